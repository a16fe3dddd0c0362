import type { RecordsAnswer } from '@bold-ballast/contract'
import type { AeroRoom, CoastPair, KeptFit } from '@bold-ballast/core'
import { type Remote, wrap } from 'comlink'
import { useState } from 'react'
import { api } from '../../../data/api.ts'
import { AirFromStation } from '../../../shared/station-air.tsx'
import type { FormValues } from '../../../ui/forms/form-reader.ts'
import { RecordForm } from '../../../ui/forms/record-form.tsx'
import { useRemoval } from '../../../ui/forms/removal.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { Caution } from '../../../ui/states.tsx'
import type { AeroWorker } from '../aero.worker.ts'
import { beginAeroWorker } from '../begin-worker.ts'
import { RunFiles, type RunMapping } from './run-files.tsx'
import { RunsOfLogger } from './runs-of-logger.tsx'
import { type TypedRun, testBody, testDefaults, testFieldSpecs } from './test-form.ts'

/** Fits pairs away from the page; a pair that has no fit is refused with its reason. */
async function fitPairs(pairs: readonly CoastPair[]): Promise<KeptFit[]> {
  if (pairs.length === 0) return []
  const thread = beginAeroWorker()
  try {
    const found = await (wrap<AeroWorker>(thread) as Remote<AeroWorker>).fits(pairs)
    return found.map((fit, i) => {
      if ('refused' in fit) throw new Error(`Pair ${i + 1}: ${fit.refused}`)
      return fit
    })
  } finally {
    thread.terminate()
  }
}

/** A test, new or as it is: where, when, with what mass and air, and its runs out of files or typed. */
export function TestPanel({
  records,
  room,
  stageId,
  position,
  testId,
  onDone,
}: {
  records: RecordsAnswer
  room: AeroRoom
  stageId: string
  position: number
  testId: string
  onDone: () => void
}) {
  const { units } = useQuantities()
  const [write] = api.useBatchMutation()
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const buildId = records.build.id
  const { take, notice } = useRemoval(buildId, 'aero-tests')
  const test = records.aeroTests.find(({ id }) => id === testId) ?? null
  const defaults = testDefaults(test, room, stageId, position, units)
  const [values, setValues] = useState<FormValues>(defaults)
  const [pairCount, setPairCount] = useState(1)
  const [mapping, setMapping] = useState<RunMapping | null>(null)
  // The same at every try, so that an answer that was lost is not stored twice.
  const [ids] = useState(() => ({ batch: crypto.randomUUID(), runs: Array.from({ length: 40 }, () => crypto.randomUUID()) }))
  const kind = values.kind === 'steady' ? 'steady' : 'coastDown'
  const held = records.aeroRuns.filter((run) => run.testId === testId).length
  /** What a person said of the columns holds for the next file of that logger, in every room. */
  const remember = async () => {
    if (!mapping || mapping.columns.length === 0) return
    const known = records.loggerMappings.find(({ loggerName }) => loggerName.toLowerCase() === mapping.loggerName.toLowerCase())
    const told = { loggerName: mapping.loggerName, columns: mapping.columns }
    if (known) await patch({ buildId, resource: 'logger-mappings', id: known.id, body: { ...told, version: known.version } }).unwrap()
    else await create({ buildId, resource: 'logger-mappings', body: { id: crypto.randomUUID(), ...told } }).unwrap()
    setMapping(null)
  }
  const send = async ({ runs, ...body }: Record<string, unknown> & { runs?: readonly TypedRun[] }) => {
    const added = runs ?? []
    const fits = await fitPairs(added.flatMap((run) => ('coast' in run ? [run.coast] : [])))
    const id = test?.id ?? (body.id as string)
    await remember()
    const isChanged = Object.keys(body).some((key) => key !== 'version')
    return write({
      buildId,
      batchId: ids.batch,
      writes: [
        ...(test
          ? isChanged
            ? [{ kind: 'update' as const, resource: 'aero-tests' as const, id, body }]
            : []
          : [{ kind: 'create' as const, resource: 'aero-tests' as const, body }]),
        ...added.map((run, i) => ({
          kind: 'create' as const,
          resource: 'aero-runs' as const,
          body: { id: ids.runs[i], testId: id, position: held + i, ...('coast' in run ? { coast: { ...run.coast, fit: fits[i] } } : run) },
        })),
      ],
    }).unwrap()
  }
  return (
    <>
      {notice}
      {test && (
        <p className="mb-3">
          <button type="button" className="word-link" onClick={() => void take(test).then(onDone)}>
            Delete it with its runs
          </button>
        </p>
      )}
      <Caution className="mb-3">
        Coast only where it is closed to others, with room to stop, brakes that are warm and the engine running: steering and brakes may rest on it.
      </Caution>
      <RecordForm
        key={`${testId} ${test?.version ?? 0}`}
        draftKey={`${buildId}.aeroTest.${testId}`}
        fields={testFieldSpecs(records.stages, kind, pairCount)}
        defaults={defaults}
        submitLabel={test ? 'Save the test' : 'Store the test'}
        toBody={(reader, id) => ({
          ...testBody(reader, { room, stages: records.stages, isNew: !test, pairCount }),
          ...(test ? { version: test.version } : { id }),
        })}
        send={send}
        onDone={onDone}
        onValues={setValues}
      >
        {(set) => (
          <>
            <AirFromStation set={set} />
            <RunsOfLogger
              made={room.stages[position] ?? null}
              airDensityKgM3={room.airDensityKgM3}
              kind={kind}
              take={(texts, pairs) => {
                setPairCount(Math.max(pairCount, pairs))
                for (const [name, text] of Object.entries(texts)) set(name, text)
              }}
            />
            {kind === 'coastDown' && (
              <>
                <RunFiles
                  loggers={records.loggerMappings}
                  mapping={mapping}
                  map={setMapping}
                  take={(texts, count) => {
                    setPairCount(Math.max(pairCount, count))
                    for (const [name, text] of Object.entries(texts)) set(name, text)
                  }}
                />
                <p className="sm:col-span-2">
                  <button type="button" className="word-link" onClick={() => setPairCount(pairCount + 1)}>
                    Type another pair
                  </button>
                </p>
              </>
            )}
          </>
        )}
      </RecordForm>
    </>
  )
}
