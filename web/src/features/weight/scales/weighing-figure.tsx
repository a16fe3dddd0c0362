import type { StoredRecords } from '@bold-ballast/contract'
import { buildAtStage, PAD_NAMES, PAD_WORDS, type WeightRoom } from '@bold-ballast/core'
import { Figure } from '../../../ui/figure.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { dayText } from '../../../ui/words.ts'
import { crossFigure } from './cross.ts'

const PLACES = { LF: { x: 8, y: 34 }, RF: { x: 8, y: 168 }, LR: { x: 248, y: 34 }, RR: { x: 248, y: 168 } } as const
const BODY = { x: 70, y: 52, width: 178, height: 84 }

/** The latest visit as the car from above: four readings, and where its mass stands. */
export function LatestWeighing({ records, room }: { records: StoredRecords; room: WeightRoom }) {
  const { format, text } = useQuantities()
  const weighing = [...records.weighings]
    .filter((entry) => entry.setAside === null)
    .sort((a, b) => Date.parse(a.at) - Date.parse(b.at))
    .at(-1)
  const figures = room.weighings.find((entry) => entry.weighingId === weighing?.id)
  if (!weighing || !figures) return null
  const { corners, centre, floor } = figures
  const cross = corners && crossFigure(records.build.crossConvention, corners)
  const { wheelbaseM, trackFrontM, trackRearM } = buildAtStage(records, weighing.stageId)
  const across = Math.max(trackFrontM, trackRearM)
  const axle = { front: BODY.x + 34, rear: BODY.x + BODY.width - 34 }
  const dot = centre && {
    x: axle.front + (centre.behindFrontAxleM.value / wheelbaseM) * (axle.rear - axle.front),
    y: BODY.y + BODY.height / 2 - (centre.leftOfMiddleM.value / across) * BODY.height,
  }
  const isWhole = weighing.total !== null || weighing.axles !== null
  const reading = (pad: (typeof PAD_NAMES)[number]) => {
    const value = weighing.pads[pad] ?? weighing.secondPlacement?.pads[pad]
    return value ? format('mass', value.massKg).number : 'no reading'
  }
  return (
    <section>
      <h2>
        On the scales, {dayText(weighing.at)}, driver {weighing.driverInKg > 0 ? 'in' : 'out'}, {text('volume', weighing.fuelL, { isGoal: true })}
      </h2>
      {!isWhole && (
        <svg
          viewBox="0 0 320 196"
          className="w-full max-w-[330px]"
          role="img"
          aria-label={`Pads: ${PAD_NAMES.map((pad) => `${PAD_WORDS[pad]} ${reading(pad)}`).join(', ')}`}
        >
          <rect {...BODY} rx="12" fill="var(--page)" stroke="var(--edge)" />
          {[axle.front, axle.rear].flatMap((x) =>
            [BODY.y - 11, BODY.y + BODY.height - 1].map((y) => <rect key={`${x} ${y}`} x={x - 14} y={y} width="28" height="12" rx="3" fill="var(--ink)" />),
          )}
          <g stroke="var(--edge)" strokeDasharray="3 3">
            <line x1={BODY.x - 8} x2={BODY.x + BODY.width + 8} y1={BODY.y + BODY.height / 2} y2={BODY.y + BODY.height / 2} />
            <line x1={(axle.front + axle.rear) / 2} x2={(axle.front + axle.rear) / 2} y1={BODY.y - 8} y2={BODY.y + BODY.height + 8} />
          </g>
          <path d={`M${BODY.x + 8} ${BODY.y + BODY.height / 2} l10 -5 v10 z`} fill="var(--edge)" />
          {dot && <circle cx={dot.x} cy={dot.y} r="5.5" fill="var(--ink)" />}
          {dot && centre && (
            <text x={dot.x} y={BODY.y + BODY.height - 10} fontSize="11" textAnchor="middle" fill="var(--quiet)">
              {text('length', centre.behindFrontAxleM.value, { sd: centre.behindFrontAxleM.sd })} behind front axle
            </text>
          )}
          {PAD_NAMES.map((pad) => (
            <g key={pad} fill="var(--ink)">
              <text x={PLACES[pad].x} y={PLACES[pad].y - 8} fontSize={reading(pad) === 'no reading' ? 13 : 18} fontWeight="700">
                {reading(pad)}
              </text>
              <text x={PLACES[pad].x} y={PLACES[pad].y + 8} fontSize="11.5" fill="var(--quiet)">
                {PAD_WORDS[pad]}
              </text>
            </g>
          ))}
        </svg>
      )}
      {corners ? (
        <dl className="grid grid-cols-2 gap-x-6">
          {(
            [
              ['Total', 'mass', corners.totalKg],
              ['Front', 'share', corners.frontShare],
              ['Left', 'share', corners.leftShare],
              [cross?.word ?? '', cross?.kind ?? 'share', cross ?? corners.crossShareRfLr],
            ] as const
          ).map(([word, kind, entry]) => (
            <div key={word} className="flex items-baseline justify-between gap-2 border-t border-line py-1.5">
              <dt className="text-quiet">{word}</dt>
              <dd className="font-bold">
                <Figure kind={kind} value={entry.value} sd={entry.sd} working={{ of: 'weighing', id: weighing.id }} />
              </dd>
            </div>
          ))}
        </dl>
      ) : (
        <>
          {floor && (
            <p className="mb-2 font-bold">
              Total <Figure kind="mass" value={floor.totalKg.value} sd={floor.totalKg.sd} showSpread working={{ of: 'weighing', id: weighing.id }} />, front{' '}
              <Figure kind="share" value={floor.frontShare.value} sd={floor.frontShare.sd} showSpread />
            </p>
          )}
          {isWhole && figures.reference && (
            <p className="mb-2">
              <strong>
                <Figure kind="mass" value={figures.reference.massKg} sd={figures.reference.sdKg} showSpread working={{ of: 'weighing', id: weighing.id }} />
              </strong>{' '}
              at the reference
              {figures.axleShare ? (
                <>
                  ; front <Figure kind="share" value={figures.axleShare.value} sd={figures.axleShare.sd} showSpread />
                </>
              ) : (
                '. A total has no corners: shares and the centre stay unknown.'
              )}
            </p>
          )}
          {figures.refusal && <p className="mb-2">{figures.refusal}</p>}
          <ul>
            {figures.known.map((entry) => (
              <li key={entry.label} className="flex justify-between border-t border-line py-1.5">
                {entry.label} <Figure kind="mass" value={entry.massKg} sd={entry.sdKg} showSpread />
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  )
}
