import type { Lap, LapHolder } from '@bold-ballast/core'

/** What a picture tells apart: a shift and the end of a gear are the engine’s. */
export type HeldBy = 'tyres' | 'engine' | 'brakes'
const heldBy = (holder: LapHolder): HeldBy => (holder === 'grip' ? 'tyres' : holder === 'braking' ? 'brakes' : 'engine')

/** A stretch of a lap that one thing holds. */
export interface LapPiece {
  readonly by: HeldBy
  readonly fromM: number
  readonly toM: number
  readonly fromS: number
  readonly toS: number
}

/** Shorter than this nothing is drawn by itself, s. */
const SHORTEST_S = 0.12

/** A lap as stretches of what holds the car; what is too short to be seen is taken in by what it lies in. */
export function lapPieces(lap: Lap): LapPiece[] {
  const pieces: { -readonly [Key in keyof LapPiece]: LapPiece[Key] }[] = []
  lap.cells.forEach(({ atM, lengthM }, i) => {
    const by = heldBy(lap.holder[i] as LapHolder)
    const [fromS, toS] = [lap.timeS[i] ?? 0, lap.timeS[i + 1] ?? 0]
    const last = pieces.at(-1)
    if (last && last.by === by) {
      last.toM = atM + lengthM
      last.toS = toS
    } else pieces.push({ by, fromM: atM, toM: atM + lengthM, fromS, toS })
  })
  return pieces.reduce<typeof pieces>((kept, piece) => {
    const last = kept.at(-1)
    if (last && (piece.toS - piece.fromS < SHORTEST_S || last.by === piece.by)) {
      last.toM = piece.toM
      last.toS = piece.toS
    } else kept.push({ ...piece })
    return kept
  }, [])
}

export const HELD_WORDS: Readonly<Record<HeldBy, string>> = { tyres: 'tyres hold it', engine: 'engine holds it', brakes: 'brakes hold it' }

export const secondsHeld = ({ secondsBy }: Lap): Readonly<Record<HeldBy, number>> => ({
  tyres: secondsBy.grip,
  engine: secondsBy.power + secondsBy.shift + secondsBy.gear,
  brakes: secondsBy.braking,
})
