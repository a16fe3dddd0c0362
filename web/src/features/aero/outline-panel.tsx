import type { RecordsAnswer } from '@bold-ballast/contract'
import { api } from '../../data/api.ts'
import { RecordForm } from '../../ui/forms/record-form.tsx'
import { useQuantities } from '../../ui/quantity.ts'
import { outlineBody, outlineDefaults, outlineFieldSpecs, tapeDefaults, tapedOutline, tapeFieldSpecs } from './outline-form.ts'
import { SideTracer } from './side-tracer.tsx'

/** The car by a tape, and the speed and schools that its aero is quoted by. */
export function OutlinePanel({ records, onDone }: { records: RecordsAnswer; onDone: () => void }) {
  const { build } = records
  const { units } = useQuantities()
  const [patch] = api.usePatchBuildMutation()
  return (
    <>
      <RecordForm
        key={build.version}
        draftKey={`${build.id}.outline`}
        fields={outlineFieldSpecs}
        defaults={outlineDefaults(build, units)}
        submitLabel="Store the outline"
        toBody={(read) => ({ version: build.version, ...outlineBody(read, build) })}
        send={(body) => patch({ buildId: build.id, body }).unwrap()}
        onDone={onDone}
      />
      {build.outline && (
        <SideTracer
          outline={build.outline}
          wheelbaseM={build.wheelbaseM}
          save={(sidePoints) => patch({ buildId: build.id, body: { version: build.version, outline: { ...build.outline, sidePoints } } as never }).unwrap()}
        />
      )}
    </>
  )
}

interface StageOutlineProps {
  readonly records: RecordsAnswer
  readonly stageId: string
  /** As it stands at the stage now. */
  readonly outline: RecordsAnswer['build']['outline']
  readonly onDone: () => void
}

/** The car by a tape from a stage on: arms set out, a floor pan shortened, another nose. Without a tape it is as at the stage before. */
export function StageOutlinePanel({ records, stageId, outline, onDone }: StageOutlineProps) {
  const { units } = useQuantities()
  const [patch] = api.usePatchRecordMutation()
  const stage = records.stages.find(({ id }) => id === stageId)
  if (!stage) return null
  return (
    <>
      <p className="mb-3 text-quiet">Earlier stages, and what was read at them, keep theirs. Empty tapes: as at the stage before.</p>
      <RecordForm
        key={stage.version}
        draftKey={`${records.build.id}.outline.${stageId}`}
        fields={tapeFieldSpecs}
        defaults={tapeDefaults(outline, units)}
        submitLabel="Store the outline of this stage"
        toBody={(read) => ({ version: stage.version, outline: tapedOutline(read, outline) })}
        send={(body) => patch({ buildId: records.build.id, resource: 'stages', id: stageId, body }).unwrap()}
        onDone={onDone}
      />
      {stage.outline && (
        <SideTracer
          outline={stage.outline}
          wheelbaseM={stage.geometry?.wheelbaseM ?? records.build.wheelbaseM}
          save={(sidePoints) =>
            patch({
              buildId: records.build.id,
              resource: 'stages',
              id: stageId,
              body: { version: stage.version, outline: { ...stage.outline, sidePoints } } as never,
            }).unwrap()
          }
        />
      )}
    </>
  )
}
