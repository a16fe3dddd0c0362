import type { RecordsAnswer } from '@bold-ballast/contract'
import type { PanelFault, PanelState } from '@bold-ballast/core'
import { Figure } from '../../../ui/figure.tsx'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { PANEL_SUPPORT_WORDS } from './panel-form.ts'
import { panelsTable } from './panels-table.ts'

const FAULT_WORDS: Readonly<Record<PanelFault, string>> = { air: 'the air', standing: 'a person', rods: 'its rods', kerb: 'a kerb' }

/** "holds", or what it does not hold; a kerb is a blow and told apart. */
function verdictOf({ faults, refusal }: PanelState): { word: string; isBad: boolean } {
  if (refusal) return { word: refusal, isBad: true }
  const bad = faults.filter((fault) => fault !== 'kerb')
  if (bad.length > 0) return { word: `fails: ${bad.map((fault) => FAULT_WORDS[fault]).join(', ')}`, isBad: true }
  return { word: faults.includes('kerb') ? 'holds; a kerb bends it' : 'holds', isBad: false }
}

function Row({ state, edit, choose }: { state: PanelState; edit: () => void; choose: () => void }) {
  const { text } = useQuantities()
  const { panel, answer, sheetName } = state
  const { word, isBad } = verdictOf(state)
  const tip = (check: { tipM: number; holds: boolean } | undefined) =>
    check ? (
      <span className={check.holds ? '' : 'font-semibold text-danger'}>
        <Figure kind="length" value={check.tipM} decimals={1} />
      </span>
    ) : null
  return (
    <tr className={panel.isChosen ? 'font-semibold' : ''}>
      <th scope="row" className="pr-4 text-left whitespace-nowrap">
        {state.deviceName}
        {panel.isChosen && <span className="block text-xs text-pine">built</span>}
      </th>
      <td className="min-w-44">
        {panel.layers === 2 ? '2 × ' : ''}
        {text('length', panel.thicknessM, { decimals: 1 })} {sheetName}
        <span className="block text-xs font-normal text-quiet">
          {PANEL_SUPPORT_WORDS[panel.support]}
          {panel.note ? `; ${panel.note}` : ''}
        </span>
      </td>
      <td className="pl-3 text-right">{tip(answer?.air)}</td>
      <td className="pl-3 text-right">{tip(answer?.standing)}</td>
      <td className="pl-3 text-right">{tip(answer?.kerb)}</td>
      <td className="pl-3 text-right">
        {answer?.rodUse && <span className={answer.rodUse.use > 1 ? 'text-danger' : ''}>{text('share', answer.rodUse.use, { decimals: 0 })}</span>}
      </td>
      <td className="pl-3 text-right">{answer && <Figure kind="mass" value={answer.massKg} decimals={1} />}</td>
      <td className={`pl-5 ${isBad ? 'text-danger' : 'text-pine'}`}>{word}</td>
      <td className="no-print text-right whitespace-nowrap">
        {!panel.isChosen && (
          <button type="button" className="word-link mr-3 ml-3" onClick={choose} aria-label={`build it: ${state.deviceName} of ${sheetName}`}>
            build it
          </button>
        )}
        <button type="button" className="word-link" onClick={edit} aria-label={`edit the ${sheetName} panel of ${state.deviceName}`}>
          edit
        </button>
      </td>
    </tr>
  )
}

/** The panels that were kept, side by side: what each holds, what it weighs, and which is built. */
export function KeptPanels({
  records,
  panels,
  edit,
  choose,
}: {
  records: RecordsAnswer
  panels: readonly PanelState[]
  edit: (id: string) => void
  choose: (id: string) => void
}) {
  const elsewhere = records.panels.length - panels.length
  return (
    <>
      {panels.length > 0 && (
        <>
          <h2 className="mb-1">Kept</h2>
          <ScrollBox label="Kept panels">
            <table className="lined mb-4 w-full">
              <thead>
                <tr>
                  <th className="text-left">Device</th>
                  <th className="text-left">Panel</th>
                  <th className="pl-3 text-right">edge, air</th>
                  <th className="pl-3 text-right">edge, person</th>
                  <th className="pl-3 text-right">edge, kerb</th>
                  <th className="pl-3 text-right">rods</th>
                  <th className="pl-3 text-right">sheet weighs</th>
                  <th className="pl-5 text-left">Verdict</th>
                  <th className="no-print">
                    <span className="sr-only">Change it</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {panels.map((state) => (
                  <Row key={state.panel.id} state={state} edit={() => edit(state.panel.id)} choose={() => choose(state.panel.id)} />
                ))}
              </tbody>
            </table>
          </ScrollBox>
          <p className="no-print -mt-2 mb-4 text-[13px]">
            <CsvButton name={`${records.build.name} panels`} table={() => panelsTable(panels, verdictOf)} />
          </p>
        </>
      )}
      {elsewhere > 0 && (
        <p className="mb-3 text-xs text-quiet">
          {elsewhere === 1 ? 'One panel belongs to a device' : `${elsewhere} panels belong to devices`} that {elsewhere === 1 ? 'is' : 'are'} not in the car at
          this stage.
        </p>
      )}
    </>
  )
}
