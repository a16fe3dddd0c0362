import type { StoredRecords } from '@bold-ballast/contract'
import { buildAtStage, PAD_NAMES, PAD_WORDS, type WeightRoom } from '@bold-ballast/core'
import { CarFigure, Corners, Words } from '../../../ui/drawing/car-figure.tsx'
import { Figure } from '../../../ui/figure.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { dayText } from '../../../ui/words.ts'
import { crossFigure } from './cross.ts'

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
  const geometry = buildAtStage(records, weighing.stageId)
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
        <CarFigure
          geometry={geometry}
          label={`Pads: ${PAD_NAMES.map((pad) => `${PAD_WORDS[pad]} ${reading(pad)}`).join(', ')}`}
          plan={(scale) => (
            <>
              <Corners
                scale={scale}
                geometry={geometry}
                of={(pad) => ({ head: reading(pad), under: PAD_WORDS[pad], isQuiet: reading(pad) === 'no reading' })}
              />
              {centre && (
                <>
                  <circle cx={scale.x(centre.behindFrontAxleM.value)} cy={scale.y(centre.leftOfMiddleM.value)} r="5.5" fill="var(--ink)" />
                  <Words
                    x={scale.x(geometry.wheelbaseM / 2)}
                    y={scale.y(0.5)}
                    text={`${text('length', centre.behindFrontAxleM.value, { sd: centre.behindFrontAxleM.sd })} behind front axle`}
                    size={11}
                    fill="var(--quiet)"
                  />
                </>
              )}
            </>
          )}
        />
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
