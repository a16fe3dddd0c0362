import type { StoredRecords } from '@bold-ballast/contract'
import { EXPECTED, type Expectation } from '@bold-ballast/core'
import { api } from '../../../data/api.ts'
import { useBuild } from '../../../data/use-build.ts'
import { Figure } from '../../../ui/figure.tsx'
import { RecordForm } from '../../../ui/forms/record-form.tsx'
import { useRemoval } from '../../../ui/forms/removal.tsx'
import { Empty } from '../../../ui/states.tsx'
import { expectationBody, expectationFieldSpecs, MODE_WORDS, openLines, wishedParts } from './expectation-form.ts'

/** What a stage should give where no ledger can sum it: power, grip, air, brakes, shifts, a drift day. */
export function ExpectationsTab({ records, buildId }: { records: StoredRecords; buildId: string }) {
  const [create] = api.useCreateRecordMutation()
  const removal = useRemoval(buildId, 'expectations')
  const { position, stages } = useBuild()
  const stageOf = (id: string) => records.stages.find((stage) => stage.id === id)
  const atStage = ({ stageId, changeId }: Expectation) => stageOf((changeId && records.changes.find(({ id }) => id === changeId)?.stageId) || stageId)
  return (
    <div className="grid gap-8 min-[1180px]:grid-cols-[1fr_380px]">
      <div>
        {removal.notice}
        {records.expectations.length === 0 ? (
          <Empty
            title="Nothing expected yet"
            why="Power, grip and air cannot be summed from parts. Say what a stage should reach or add, and how you know; what is measured replaces it later, and the old expectation stays."
          />
        ) : (
          <ul>
            {records.expectations.map((entry) => (
              <li key={entry.id} className="flex flex-wrap items-baseline gap-x-4 border-b border-line py-2.5">
                <span className="min-w-[160px] flex-1 font-semibold">
                  {atStage(entry)?.position} {atStage(entry)?.name}
                </span>
                <span>
                  {EXPECTED[entry.metric].word}
                  {entry.changeId && (
                    <span className="text-quiet">, by {records.changes.find(({ id }) => id === entry.changeId)?.name ?? 'a line that is gone'}</span>
                  )}
                  {entry.partId !== null && (
                    <span className="text-quiet">, by {records.parts.find(({ id }) => id === entry.partId)?.name ?? 'a part that is gone'}</span>
                  )}
                </span>
                <span className="text-quiet">{MODE_WORDS[entry.mode]}</span>
                <span className="text-[16px] font-bold">
                  <Figure
                    kind={entry.mode === 'times' ? 'ratio' : EXPECTED[entry.metric].kind}
                    value={entry.value}
                    sd={entry.sd ?? undefined}
                    sign={entry.mode === 'by'}
                    showSpread
                    proof={entry.proof}
                  />
                </span>
                <button
                  type="button"
                  className="word-link"
                  onClick={() => void removal.take(entry)}
                  aria-label={`Delete the expectation of ${EXPECTED[entry.metric].word} at stage ${atStage(entry)?.position}`}
                >
                  Delete
                </button>
              </li>
            ))}
          </ul>
        )}
      </div>
      <section>
        <h2 className="mb-2">Say what a stage should give</h2>
        <RecordForm
          key={records.expectations.length}
          draftKey={`${buildId}.expectation`}
          fields={expectationFieldSpecs(records.stages, wishedParts(records.parts), openLines(records.changes))}
          defaults={{ stage: stages[position]?.id ?? '', metric: 'wheelPower', mode: 'to', proof: 'guess', part: '', line: '' }}
          submitLabel="Add the expectation"
          toBody={(read, id) => ({ id, ...expectationBody(read) })}
          send={(body) => create({ buildId, resource: 'expectations', body }).unwrap()}
          onDone={() => {}}
        />
      </section>
    </div>
  )
}
