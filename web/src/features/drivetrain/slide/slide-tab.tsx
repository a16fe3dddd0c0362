import { attempt, CalculationError, type CornerSlide, driveMotion, type SlideSetup, slideCorner, slideCorners } from '@bold-ballast/core'
import type { Remote } from 'comlink'
import { useMemo } from 'react'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useWidth } from '../../../ui/hooks/use-width.ts'
import { useWorked } from '../../../ui/hooks/use-worked.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { Empty } from '../../../ui/states.tsx'
import { beginDriveWorker } from '../begin-worker.ts'
import type { DriveWorker } from '../drive.worker.ts'
import { FinalHandle } from '../gears/final-handle.tsx'
import { Ladder, type LadderMark } from '../gears/ladder.tsx'
import type { DriveTabProps } from '../tab-props.ts'
import { EventTyres } from './event-tyres.tsx'
import { SlideChart } from './slide-chart.tsx'
import { SlideSide } from './slide-side.tsx'

const SPEEDS = Array.from({ length: 60 }, (_, i) => 5 + i * 0.55)
const ANGLES = Array.from({ length: 50 }, (_, i) => ((10 + i * 1.06) * Math.PI) / 180)

const stateOf = (inHand: number | null, reserve: number) =>
  inHand === null || inHand < 0 ? ('short' as const) : inHand < reserve ? ('less' as const) : ('holds' as const)

/** A stage's slide with the final and the surface that are looked at. */
function useSetup({ made, car, finalRatio }: Pick<DriveTabProps, 'made' | 'car' | 'finalRatio'>): SlideSetup | null {
  return useMemo(() => {
    if (!made.slide || !car || finalRatio === null) return null
    const { slide } = made
    return {
      ...slide,
      car: { ...slide.car, slidingFriction: slide.car.slidingFriction * car.surfaceFactor },
      train: { ...slide.train, finalRatio },
      inputs: made.inputs,
    }
  }, [made, car, finalRatio])
}

/** Every corner of the course that is slid through. */
function useSlides(setup: SlideSetup | null, course: DriveTabProps['course']) {
  return useMemo(() => {
    if (!setup || !course) return []
    return slideCorners(course).flatMap(({ name, corner }) => {
      const found = attempt(() => slideCorner(setup, name, corner))
      return found instanceof CalculationError ? [] : [found]
    })
  }, [setup, course])
}

function marksOf(slides: readonly CornerSlide[], reserve: number, picked: string): LadderMark[] {
  return slides.map(({ name, speedMps, state, gears }) => ({
    name,
    carMps: speedMps,
    wheelMps: state.wheelSpeedMps,
    isPicked: name === picked,
    dots: gears.flatMap(({ gear, speedRpm, inHand }) => (inHand === null ? [] : [{ gear, rpm: speedRpm, state: stateOf(inHand, reserve) }])),
  }))
}

/** Slides: corners as arrows on the ladder, the map of what the gears hold, and what would hold the picked corner. */
export function SlideTab(props: DriveTabProps) {
  const { records, room, made, position, car, finalRatio, setFinal, course } = props
  const { units } = useQuantities()
  const address = useAddress()
  const [holder, width] = useWidth<HTMLDivElement>(640)
  const setup = useSetup(props)
  const slides = useSlides(setup, course)
  const motion = useMemo(() => (car ? attempt(() => driveMotion(car)) : null), [car])
  const next = room.stages[position + 1]?.slide ?? null
  const key = setup ? JSON.stringify([setup.car, setup.train]) : ''
  const { answer: map } = useWorked(beginDriveWorker, key, (remote: Remote<DriveWorker>) =>
    remote.map({ car: (setup as SlideSetup).car, train: (setup as SlideSetup).train }, SPEEDS, ANGLES),
  )
  const otherKey = next ? JSON.stringify([next.car, next.train]) : ''
  const { answer: other } = useWorked(beginDriveWorker, otherKey, (remote: Remote<DriveWorker>) =>
    remote.map({ car: (next as NonNullable<typeof next>).car, train: (next as NonNullable<typeof next>).train }, SPEEDS, ANGLES),
  )
  if (made.slideReason) return <Empty title="Not worked out as a slide" why={made.slideReason} />
  if (!setup || !motion || motion instanceof CalculationError || finalRatio === null || !made.car) return null
  const worst = [...slides].sort((a, b) => (a.best?.inHand ?? -1) - (b.best?.inHand ?? -1))[0]
  const picked = slides.find(({ name }) => name === address.get('corner')) ?? worst
  if (!course || slides.length === 0 || !picked)
    return (
      <Empty
        title="No corner is slid through yet"
        why="Name a corner with its radius or speed and the angle of the slide: Long quay; 64 m radius; 38°. Its arrow then stands on the ladder."
      />
    )
  const topMps = 1.06 * Math.max(...slides.map(({ state }) => state.wheelSpeedMps), (motion.gears[1] ?? motion.gears[0])?.topMps ?? 30)
  const pick = (name: string) => address.set({ corner: name })
  const step = (by: number) => pick(slides[(slides.indexOf(picked) + by + slides.length) % slides.length]?.name ?? picked.name)
  return (
    <div className="grid gap-x-6 gap-y-4 lg:grid-cols-[minmax(0,1fr)_340px]">
      <div ref={holder} className="min-w-0">
        <div className="mb-1 flex flex-wrap items-center justify-between gap-2">
          <h2>Car speed to wheel speed</h2>
          <FinalHandle records={records} finalRatio={finalRatio} own={made.car.finalRatio} setFinal={setFinal} />
        </div>
        <Ladder
          motion={motion}
          marks={marksOf(slides, setup.reserve, picked.name)}
          width={width}
          height={190 + 17 * slides.length}
          topMps={topMps}
          label="Engine speed over wheel speed in each gear; each corner an arrow from the car's speed to that of its wheels"
        />
        <h2 className="mt-2">
          Slides that a gear holds{' '}
          <span className="font-normal text-quiet">full: with {Math.round(100 * setup.reserve)} % in hand; pale: with less; dashed: the next stage</span>
        </h2>
        {map ? (
          <SlideChart
            map={map}
            other={next ? other : null}
            reserve={setup.reserve}
            speedUnit={units.speed}
            corners={slides.map(({ name, speedMps, corner, best }) => ({
              name,
              speedMps,
              angleRad: corner.slideAngleRad,
              state: stateOf(best?.inHand ?? null, setup.reserve),
              isPicked: name === picked.name,
            }))}
          />
        ) : (
          <p role="status" className="p-6 text-quiet">
            Working out the map …
          </p>
        )}
        <EventTyres records={records} position={position} />
      </div>
      <SlideSide setup={setup} picked={picked} slides={slides} pick={pick} step={step} />
    </div>
  )
}
