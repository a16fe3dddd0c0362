import { type AeroRoomStage, largestChordM, type QuantityKind, SPARE_M, type WingPose } from '@bold-ballast/core'
import { FormReader, type FormValues } from '../../ui/forms/form-reader.ts'
import { typedText } from '../../ui/quantity.ts'

type Units = Record<QuantityKind, string>

/** The texts that make a wing as big as the rules of the stage allow, or why it cannot be said. */
export type BiggestWing = { readonly chords: string; readonly span: string } | { readonly why: string }

const limitOf = (made: AeroRoomStage, metric: string): number | null =>
  made.limits
    .filter((limit) => limit.metric === metric && limit.sense === 'atMost')
    .reduce<number | null>((least, { value }) => Math.min(least ?? value, value), null)

/** The steepest angle among the notches that are typed, rad; none typed: level. */
function steepestOf(read: FormReader): number {
  const angles = read.lines('notches').flatMap((line) => {
    const word = line.split(/\s*;\s*/).find((each) => /^[-−+]?\d+(?:[.,]\d+)?\s*(?:°|deg)/i.test(each))
    return word ? [read.typedQuantity('notches', word, 'angle', 'Angle', '°')?.value ?? 0] : []
  })
  return angles.length === 0 ? 0 : Math.max(...angles)
}

/**
 * One element at the pivot that is typed, as long in its chord as height over the roof, reach behind and the class's own chord allow at its steepest notch, and
 * as wide as span and width allow; ten millimetres are left free of each limit.
 */
export function biggestWing(
  values: FormValues,
  units: Units,
  decimalMark: '.' | ',',
  { made, outline }: { made: AeroRoomStage; outline: AeroRoomStage['outline'] },
): BiggestWing {
  if (!outline) return { why: 'Tape the outline first: the limits hang on it.' }
  const read = new FormReader(values, units, decimalMark)
  if (read.raw('pivotX') === '' || read.raw('pivotZ') === '') return { why: 'Type where its pivot stands; then it grows from there.' }
  const pose: WingPose = {
    spanM: 1,
    chordM: 0.1,
    pivotXM: read.quantity('pivotX', 'The pivot’s place', 'length').value,
    pivotZM: read.quantity('pivotZ', 'The pivot’s height', 'length').value,
    pivotShare: read.raw('pivotShare') === '' ? 0.25 : read.quantity('pivotShare', 'The pivot', 'share').value,
    angleRad: steepestOf(read),
    plate: null,
  }
  const [refusal] = Object.values(read.errors)
  if (refusal) return { why: refusal }
  const [over, rear, chord, span, side] = (['wingOverRoof', 'reachRear', 'wingChord', 'wingSpan', 'reachSide'] as const).map((metric) => limitOf(made, metric))
  const found = largestChordM(pose, {
    topM: over === null || over === undefined ? null : outline.roofHeightM + over,
    rearXM: rear === null || rear === undefined ? null : made.wheelbaseM + outline.rearOverhangM + rear,
  })
  if (found === null) return { why: 'No wing fits at that pivot: it stands over the roof’s limit or behind the rear one. Move it.' }
  const chordM = Math.floor(1000 * Math.min(found, chord === null || chord === undefined ? found : chord - SPARE_M)) / 1000
  const widest = Math.min(outline.bodyWidthM + 2 * (side ?? 0), span ?? Number.POSITIVE_INFINITY) - 2 * SPARE_M
  return { chords: typedText('length', chordM, units.length), span: typedText('length', Math.floor(1000 * widest) / 1000, units.length) }
}
