import { PAD_NAMES, PAD_WORDS, type SheetCell, type SheetRow } from '@bold-ballast/core'
import { Panel } from '../../../ui/dialog.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useAsked } from '../../../ui/hooks/use-asked.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { Empty } from '../../../ui/states.tsx'
import type { AeroTabProps } from '../tab-props.ts'
import { setupBody, setupDefaults, setupFieldSpecs } from './setup-form.ts'
import { comparedRows, spanOf } from './sheet-rows.ts'
import { StageSetupForm } from './stage-setup-form.tsx'

/** A cell: what is wanted, and what was read behind it. */
function Cell({ kind, cell, isOff }: { kind: SheetRow['kind']; cell: SheetCell | undefined; isOff: boolean }) {
  const { format } = useQuantities()
  const say = (value: number | string | null) => {
    if (value === null) return null
    if (typeof value === 'string') return value
    return kind === null ? String(value) : format(kind, value, kind === 'angle' ? { decimals: 2 } : {}).number
  }
  const [wanted, read] = [say(cell?.wanted ?? null), say(cell?.read ?? null)]
  if (wanted === null && read === null) return <span className="text-quiet">–</span>
  return (
    <>
      {wanted !== null && <span className="font-semibold">{wanted}</span>}
      {read !== null && (
        <span className={isOff ? 'text-danger' : 'text-quiet'}>
          {wanted === null ? '' : ' '}
          {`(${read})`}
        </span>
      )}
    </>
  )
}

/** What is turned and not bolted, on one sheet; beside it another stage's, what differs marked. */
export function SetupTab({ records, room, made, position, stageId }: AeroTabProps) {
  const address = useAddress()
  const { units } = useQuantities()
  const [isTyping, setIsTyping] = useAsked('setup')
  const asked = address.get('beside')
  const besideAt = asked === '' ? -1 : Number(asked)
  const beside = room.stages[besideAt] ?? null
  const rows = comparedRows(made.sheet, beside?.sheet ?? null)
  const stageName = (at: number) => records.stages.find((stage) => stage.position === at)?.name ?? ''
  const unitOf = (kind: SheetRow['kind']) => (kind === null ? '' : kind === 'angle' ? '°' : units[kind])
  return (
    <>
      <div className="no-print mb-3 flex flex-wrap items-center gap-3">
        <button type="button" className="button" onClick={() => setIsTyping(true)}>
          Type what is turned
        </button>
        <label className="flex items-center gap-2 text-xs text-quiet">
          beside
          <select value={beside ? String(besideAt) : ''} onChange={(event) => address.set({ beside: event.target.value })} className="text-sm text-ink">
            <option value="">nothing</option>
            {records.stages.flatMap(({ id, position: at, name }) =>
              at === position
                ? []
                : [
                    <option key={id} value={String(at)}>
                      {at} {name}
                    </option>,
                  ],
            )}
          </select>
        </label>
      </div>
      {rows.length === 0 ? (
        <Empty
          title="Nothing is turned yet"
          why="Camber, toe, clicks, cold pressures and bars of a stage stand on one sheet here, with springs and notches, to print and to hold against another day’s."
        />
      ) : (
        <ScrollBox label="Set-up sheet">
          <table className="w-full max-w-[880px]">
            <caption className="mb-1 text-left text-xs text-quiet">
              Stage {position} {stageName(position)}: wanted, and what was read in brackets
              {made.sheet.cornersFrom !== null && made.sheet.cornersFrom !== position ? `; corners as at stage ${made.sheet.cornersFrom}` : ''}
              {beside ? `. Below each row stage ${besideAt} ${stageName(besideAt)}; what differs is marked` : ''}
            </caption>
            <thead>
              <tr className="text-xs text-quiet">
                <th className="text-left font-normal" />
                {PAD_NAMES.map((pad) => (
                  <th key={pad} className="px-2 text-right font-normal">
                    {PAD_WORDS[pad]}
                  </th>
                ))}
                <th className="pl-3 text-left font-normal" />
              </tr>
            </thead>
            <tbody>
              {rows.flatMap(({ row, other, differs, off }) => [
                <tr key={row.key} className="border-t border-line">
                  <th scope="row" className="py-1 pr-3 text-left font-normal">
                    {row.word}
                  </th>
                  {row.cells.map(({ at, cell }) => (
                    <td
                      key={at}
                      colSpan={spanOf(at)}
                      className={`px-2 py-1 tabular-nums ${spanOf(at) === 1 ? 'text-right' : 'text-center'} ${differs.has(at) ? 'bg-wash' : ''}`}
                    >
                      <Cell kind={row.kind} cell={cell} isOff={off.has(at)} />
                      {differs.has(at) && <span className="sr-only"> differs</span>}
                    </td>
                  ))}
                  <td className="pl-3 text-xs text-quiet">{unitOf(row.kind)}</td>
                </tr>,
                ...(differs.size > 0
                  ? [
                      <tr key={`${row.key} other`} className="text-quiet">
                        <th scope="row" className="pr-3 pb-1 text-left text-xs font-normal">
                          at stage {besideAt}
                        </th>
                        {row.cells.map(({ at }) => (
                          <td key={at} colSpan={spanOf(at)} className={`px-2 pb-1 tabular-nums ${spanOf(at) === 1 ? 'text-right' : 'text-center'}`}>
                            <Cell kind={row.kind} cell={other?.cells.find((each) => each.at === at)?.cell} isOff={false} />
                          </td>
                        ))}
                        <td />
                      </tr>,
                    ]
                  : []),
              ])}
            </tbody>
          </table>
        </ScrollBox>
      )}
      {isTyping && (
        <Panel title="What is turned at each corner" onClose={() => setIsTyping(false)}>
          <StageSetupForm
            records={records}
            stageId={stageId}
            part="corners"
            fields={setupFieldSpecs}
            defaults={(setup) => setupDefaults(setup, units)}
            submitLabel="Store what is turned"
            toBody={setupBody}
            onDone={() => setIsTyping(false)}
          />
        </Panel>
      )}
    </>
  )
}
