import {
  attempt,
  CalculationError,
  COLD_SCHOOL_WORDS,
  COLD_SCHOOLS,
  type ColdSchool,
  coldForHotPa,
  discRiseK,
  firstToLock,
  hotGasK,
  parseQuantity,
  type TrackRoom,
  type TrackRoomStage,
  WHEEL_KEYS,
  type WheelKey,
} from '@bold-ballast/core'
import { api } from '../../../data/api.ts'
import { Panel } from '../../../ui/dialog.tsx'
import { WorkingLink } from '../../../ui/figure.tsx'
import { RecordForm } from '../../../ui/forms/record-form.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useAsked } from '../../../ui/hooks/use-asked.ts'
import { useWidth } from '../../../ui/hooks/use-width.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { Caution, Empty } from '../../../ui/states.tsx'
import { dayText } from '../../../ui/words.ts'
import type { TrackTabProps } from '../tab-props.ts'
import { brakeForm, keepWindows } from './brake-form.ts'
import { BrakesFigure } from './brakes-figure.tsx'

const WORDS = { LF: 'Left front', RF: 'Right front', LR: 'Left rear', RR: 'Right rear' } as const
/** Wanted hot pressures until somebody types them: what the tyre's maker says, else what the last pair came to. */
const rounded = (pa: number) => Math.round(pa / 1000) * 1000

/** The tyre of a wheel at the stage. */
const tyreOf = (room: TrackRoom, { tyreIds }: TrackRoomStage, wheel: WheelKey) =>
  room.tyres.find(({ id }) => id === (wheel === 'LF' || wheel === 'RF' ? tyreIds.front : tyreIds.rear))
const hotOf = (room: TrackRoom, made: TrackRoomStage, wheel: WheelKey): number | null => {
  const hotPa = tyreOf(room, made, wheel)?.hotPa
  return hotPa ? (wheel === 'LF' || wheel === 'RF' ? hotPa.front : hotPa.rear) : null
}

/** Cold pressures for wanted hot ones, wheel by wheel, by each wheel's own pair. */
function ColdForHot({ room, made }: { room: TrackRoom; made: TrackRoomStage }) {
  const { units, text, format, decimalMark } = useQuantities()
  const address = useAddress()
  const school: ColdSchool = COLD_SCHOOLS.find((each) => each === address.get('school')) ?? 'sameRise'
  if (room.pairs.length === 0)
    return (
      <Empty
        title="No pair of pressures yet"
        why="Type cold pressures with the tyres’ temperature before a session and hot ones behind it: then the cold pressure for a wanted hot one follows from this car’s own tyres."
      />
    )
  const read = (name: string, kind: 'pressure' | 'temperature', fallback: number): number | null => {
    const raw = address.get(name)
    if (raw.trim() === '') return fallback
    const found = attempt(() => parseQuantity(raw, kind, { defaultUnit: units[kind], decimalMark, field: name }).value)
    return found instanceof CalculationError ? null : found
  }
  const todayK = read('today', 'temperature', room.pairs[0]?.coldK ?? 288)
  return (
    <section>
      <h2 className="mb-1">Cold pressure for a wanted hot one</h2>
      <div className="mb-2 flex flex-wrap items-baseline gap-x-5 gap-y-2">
        <label className="flex items-baseline gap-2">
          Tyres today, cold
          <input
            className="w-24"
            placeholder={text('temperature', room.pairs[0]?.coldK ?? 288, { decimals: 0 })}
            value={address.get('today')}
            onChange={(event) => address.type({ today: event.target.value })}
          />
        </label>
        <label className="flex items-baseline gap-2">
          The gas
          <select value={school} onChange={(event) => address.set({ school: event.target.value === 'sameRise' ? '' : event.target.value })}>
            {COLD_SCHOOLS.map((each) => (
              <option key={each} value={each}>
                {COLD_SCHOOL_WORDS[each]}
              </option>
            ))}
          </select>
        </label>
      </div>
      <table className="w-full max-w-[640px]">
        <thead>
          <tr className="text-xs text-quiet">
            <th className="text-left font-normal">Wheel</th>
            <th className="text-right font-normal">its pair, cold to hot, {units.pressure}</th>
            <th className="text-right font-normal">gas when hot</th>
            <th className="pl-4 text-left font-normal">wanted hot</th>
            <th className="text-right font-normal">set cold</th>
          </tr>
        </thead>
        <tbody>
          {WHEEL_KEYS.map((wheel) => {
            const pair = room.pairs.find((each) => each.wheel === wheel)
            if (!pair)
              return (
                <tr key={wheel} className="border-t border-line">
                  <th scope="row" className="py-1.5 text-left font-normal">
                    {WORDS[wheel]}
                  </th>
                  <td className="text-quiet" colSpan={4}>
                    no pair of its own
                  </td>
                </tr>
              )
            const usualHotPa = hotOf(room, made, wheel) ?? rounded(pair.hotPa)
            const wantedHotPa = read(`hot${wheel}`, 'pressure', usualHotPa)
            const gas = attempt(() => hotGasK(pair))
            const cold =
              wantedHotPa === null || todayK === null
                ? null
                : attempt(() =>
                    coldForHotPa({ pair, wantedHotPa, coldK: todayK, school, ...(pair.ambientPa === undefined ? {} : { ambientPa: pair.ambientPa }) }),
                  )
            return (
              <tr key={wheel} className="border-t border-line">
                <th scope="row" className="py-1.5 text-left font-normal">
                  {WORDS[wheel]}
                </th>
                <td className="py-1.5 text-right tabular-nums">
                  {format('pressure', pair.coldPa).number} → {format('pressure', pair.hotPa).number}
                </td>
                <td className="py-1.5 text-right tabular-nums">{typeof gas === 'number' ? text('temperature', gas, { decimals: 0 }) : ''}</td>
                <td className="py-1 pl-4">
                  <input
                    aria-label={`Wanted hot, ${WORDS[wheel].toLowerCase()}`}
                    className="w-24"
                    placeholder={text('pressure', usualHotPa)}
                    value={address.get(`hot${wheel}`)}
                    onChange={(event) => address.type({ [`hot${wheel}`]: event.target.value })}
                  />
                </td>
                <td className="py-1.5 text-right">
                  {cold === null ? (
                    <span className="text-wait">cannot be read</span>
                  ) : cold instanceof CalculationError ? (
                    <span className="text-wait">{cold.message}</span>
                  ) : (
                    <strong className="text-[17px] tabular-nums">{text('pressure', cold)}</strong>
                  )}
                </td>
              </tr>
            )
          })}
        </tbody>
      </table>
      <p className="mt-1 text-xs text-quiet">
        Pairs of {dayText(room.pairs[0]?.at ?? '')}; dry gas in a volume that stays, moist air rises 2 to 10 % more. Bled tyres make no pair. Hard tyres take a
        lap or two more.
      </p>
    </section>
  )
}

/** Pressures, brakes of the stage against what both axles would use alike, and how warm a stop makes the discs. */
export function TyresTab({ records, room, made, stageId, position, driven }: TrackTabProps) {
  const { units, text } = useQuantities()
  const [holder, width] = useWidth<HTMLDivElement>(560)
  const [isEditing, setIsEditing] = useAsked('brakes')
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const buildId = records.build.id
  const resource = 'brake-systems' as const
  const own = records.brakeSystems.find((each) => each.stageId === stageId) ?? null
  const car = driven?.stage?.car ?? made.lap.braking
  const { brakes, locking } = made
  const lap = driven?.lap
  const stops = lap ? { from: lap.fastestMps, to: lap.slowestMps } : null
  const rise = (axle: 'front' | 'rear') => {
    const discKg = brakes?.[axle].discKg
    if (!car || !brakes || !discKg || !stops || !locking) return null
    const share = axle === 'front' ? locking.share : 1 - locking.share
    const found = attempt(() => discRiseK({ massKg: car.massKg, fromMps: stops.from, toMps: stops.to, axleShare: share, discs: 2, discKg }))
    return found instanceof CalculationError ? null : found
  }
  const fast = car && locking ? attempt(() => firstToLock(car, { frontShare: locking.share, friction: car.friction * car.gripFactor, speedMps: 50 })) : null
  return (
    <div className="grid gap-x-10 gap-y-6 lg:grid-cols-2">
      <div className="min-w-0">
        <ColdForHot room={room} made={made} />
      </div>
      <div ref={holder} className="min-w-0">
        <h2 className="mb-1 flex flex-wrap items-baseline gap-x-3">
          Brakes at stage {position}
          <button type="button" className="word-link text-sm font-normal" onClick={() => setIsEditing(true)}>
            {own ? 'Edit them' : brakes ? 'Give this stage its own' : 'Measure them'}
          </button>
        </h2>
        {!brakes || !locking || !car ? (
          <p className="text-quiet">
            {brakes
              ? 'Mass and axle loads are needed to say which axle locks first.'
              : 'No calipers on record: the lap takes the brakes as split as the loads are. Pistons, pads and masters say the share, and which axle locks first.'}
          </p>
        ) : (
          <>
            <p className={`border-l-4 pl-3 ${locking.axle === 'rear' ? 'border-danger' : 'border-pine'}`}>
              <strong>{locking.axle === 'rear' ? 'The rear locks first' : 'The front locks first'}</strong>, at {locking.decelerationG.toFixed(2)} g from{' '}
              {text('speed', 20, { decimals: 0 })}
              {fast && !(fast instanceof CalculationError)
                ? ` and ${fast.decelerationG.toFixed(2)} g from ${text('speed', 50, { decimals: 0 })}${fast.axle === locking.axle ? '' : `, there the ${fast.axle}`}`
                : ''}
              . {locking.axle === 'rear' ? 'The car turns round: move the balance forward before it is driven hard.' : 'That is the safe one.'}
            </p>
            <p className="mt-1">
              Front share{' '}
              <WorkingLink of="brakeShare" id={stageId}>
                {text('share', locking.share, { decimals: 1 })}
              </WorkingLink>{' '}
              by pistons, pads and cylinders: calculated, the ratio of the pressures is not the share.
            </p>
            <BrakesFigure car={car} share={locking.share} width={Math.min(width, 620)} />
            <p className="text-xs text-quiet">
              Upright marks: where an axle locks, red the rear. Usual: at the ideal of the hardest stop plus 3 to 5 points, so that the front locks first.
            </p>
            {rise('front') !== null && stops && (
              <p className="mt-2">
                One stop from {text('speed', stops.from, { decimals: 0 })} to {text('speed', stops.to, { decimals: 0 })} warms a front disc by{' '}
                <strong>{Math.round(rise('front') ?? 0)} K</strong>
                {rise('rear') === null ? '' : `, a rear one by ${Math.round(rise('rear') ?? 0)} K`}, if it gives nothing away.
                {brakes.front.padWindowK &&
                  ` Front pads work from ${text('temperature', brakes.front.padWindowK[0], { decimals: 0 })} to ${text('temperature', brakes.front.padWindowK[1], { decimals: 0 })}.`}
              </p>
            )}
            <Caution className="mt-3 text-xs">
              Bed pads and discs as their maker says, then let them cool. Discs stay hot long after the car has stopped.
            </Caution>
          </>
        )}
      </div>
      {isEditing && (
        <Panel title={`Brakes at stage ${position}`} onClose={() => setIsEditing(false)}>
          <RecordForm
            key={own?.version ?? 0}
            draftKey={`${buildId}.${stageId}.brakes`}
            fields={brakeForm.specs()}
            defaults={brakeForm.defaults(own ?? brakes, units)}
            submitLabel="Save the brakes"
            toBody={(read, id) => ({ ...keepWindows(brakeForm.body(read), own ?? brakes), ...(own ? { version: own.version } : { id, stageId }) })}
            send={(body) => (own ? patch({ buildId, resource, id: own.id, body: body as never }).unwrap() : create({ buildId, resource, body }).unwrap())}
            onDone={() => setIsEditing(false)}
          />
        </Panel>
      )}
    </div>
  )
}
