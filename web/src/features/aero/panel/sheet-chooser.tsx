import {
  type AeroRoom,
  type AeroRoomStage,
  attempt,
  CalculationError,
  choosePanel,
  PANEL_KEYS,
  PANEL_MATERIALS,
  type Panel,
  parseQuantity,
  type RoomDevice,
  STRIP_SUPPORT_WORDS,
  type StripSupport,
} from '@bold-ballast/core'
import { useMemo, useState } from 'react'
import { Figure } from '../../../ui/figure.tsx'
import { typedText, useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'

/** What is kept of a sheet that was found. */
export interface FoundSheet {
  readonly deviceId: string
  readonly panel: Pick<Panel, 'sheet' | 'materialId' | 'thicknessM' | 'span' | 'widthM' | 'lipM' | 'support' | 'rodAtM' | 'standingN' | 'carriedKg'>
}

const SUPPORTS = ['cantilever', 'clampedRod', 'hingedRod'] as const satisfies readonly (StripSupport & Panel['support'])[]
type Support = (typeof SUPPORTS)[number]

/** What each number of the sum is called on the screen. */
const WORDS: Readonly<Record<string, string>> = {
  lipM: 'From its clamp to the edge',
  widthM: 'Width',
  rodAtM: 'Rods, from the clamp',
  standingN: 'On the edge',
  carriedKg: 'A cooler',
}

/** A refusal of the sum in the words of the screen; its bounds are in SI. */
function sayRefusal({ field, message }: CalculationError): string {
  const word = WORDS[field]
  if (!word || !message.startsWith(`${field} is`)) return message
  const unit = field.endsWith('Kg') ? 'kg' : field.endsWith('N') ? 'N' : 'm'
  return `${message.replace(field, word).replace(/\.$/, '')}, in ${unit}.`
}

const isListed = (key: string): key is NonNullable<Panel['sheet']> => (PANEL_KEYS as readonly string[]).includes(key)

interface ChooserProps {
  readonly room: AeroRoom
  readonly made: AeroRoomStage
  /** Those that are cut from sheets. */
  readonly devices: readonly RoomDevice[]
  readonly keep: (found: FoundSheet) => void
}

/** Of each material the thinnest sheet that holds the air at the fastest speed and a person on its edge, side by side. */
export function SheetChooser({ room, made, devices, keep }: ChooserProps) {
  const { units, text, decimalMark } = useQuantities()
  const splitter = made.devices.find(({ splitter: own }) => own !== null)?.splitter
  const [typed, setTyped] = useState({
    lip: typedText('length', splitter?.lipM ?? 0.15, units.length),
    width: typedText('length', splitter?.widthM ?? 1.6, units.length),
    person: typedText('force', 1000, units.force),
    cooler: typedText('mass', 0, units.mass),
    rod: '',
  })
  const [support, setSupport] = useState<Support>('cantilever')
  const [span, setSpan] = useState<'along' | 'across'>('along')
  const [deviceId, setDeviceId] = useState(devices.find(({ kind }) => kind === 'splitter')?.id ?? devices[0]?.id ?? '')
  const { pressurePa, coefficient, isOwn } = made.panelPressures[deviceId] ?? room.panelPressure
  const sheets = useMemo(() => [...PANEL_MATERIALS, ...room.sheets.flatMap(({ found: own }) => (own ? [own.material] : []))], [room.sheets])
  const found = useMemo(
    () =>
      attempt(() => {
        const length = (text: string, field: string) => parseQuantity(text, 'length', { defaultUnit: units.length, decimalMark, field }).value
        const load = {
          support,
          lipM: length(typed.lip, 'Lip'),
          widthM: length(typed.width, 'Width'),
          rodAtM: support === 'cantilever' || typed.rod === '' ? null : length(typed.rod, 'Rods'),
          rodNPerM2: null,
          pressurePa,
          loadFactor: 2,
          standingN: parseQuantity(typed.person, 'force', { defaultUnit: units.force, decimalMark, field: 'Standing' }).value,
          mostTipM: 0.005,
          carriedKg: parseQuantity(typed.cooler, 'mass', { defaultUnit: units.mass, decimalMark, field: 'Cooler' }).value,
          span,
        }
        return { load, choices: choosePanel(load, sheets) }
      }),
    [typed, support, span, pressurePa, units, decimalMark, sheets],
  )
  const input = (name: keyof typeof typed, label: string) => (
    <label key={name} className="flex flex-col gap-1">
      <span className="text-xs text-quiet">{label}</span>
      <input value={typed[name]} onChange={(event) => setTyped({ ...typed, [name]: event.target.value })} className="w-32" />
    </label>
  )
  return (
    <section aria-label="Sheets to choose from">
      <h2 className="mb-1">What holds</h2>
      <div className="mb-3 flex flex-wrap items-end gap-3">
        {input('lip', 'From its clamp to the edge')}
        {input('width', 'Width')}
        {input('person', 'On the edge: a person, a kerb')}
        {input('cooler', 'Carries a cooler of')}
        <label className="flex flex-col gap-1">
          <span className="text-xs text-quiet">Held</span>
          <select value={support} onChange={(event) => setSupport(event.target.value as Support)}>
            {SUPPORTS.map((each) => (
              <option key={each} value={each}>
                {STRIP_SUPPORT_WORDS[each]}
              </option>
            ))}
          </select>
        </label>
        {support !== 'cantilever' && input('rod', 'Rods, from the clamp')}
        <label className="flex flex-col gap-1">
          <span className="text-xs text-quiet">Grain or flutes run</span>
          <select value={span} onChange={(event) => setSpan(event.target.value as 'along' | 'across')}>
            <option value="along">with the span</option>
            <option value="across">across it</option>
          </select>
        </label>
        {devices.length > 0 && (
          <label className="flex flex-col gap-1">
            <span className="text-xs text-quiet">To be kept for</span>
            <select value={deviceId} onChange={(event) => setDeviceId(event.target.value)}>
              {devices.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </select>
          </label>
        )}
      </div>
      <p className="mb-2 text-quiet">
        Air at {text('speed', room.basis.fastestMps, { decimals: 0 })}: {text('pressure', pressurePa)} ({coefficient.toFixed(2)} of the air’s,{' '}
        {isOwn ? 'as its estimate has it' : 'the usual'}), times 2 for stress; the tip may move {text('length', 0.005)}.
      </p>
      {found instanceof CalculationError ? (
        <p className="border-l-4 border-wait pl-3">{sayRefusal(found)}</p>
      ) : (
        <ScrollBox label="Materials">
          <table className="w-full">
            <thead>
              <tr className="text-xs text-quiet">
                <th className="text-left font-normal">Sheet</th>
                <th className="pl-3 text-right font-normal">thinnest that holds both</th>
                <th className="pl-3 text-right font-normal">air alone</th>
                <th className="pl-3 text-right font-normal">kg/m²</th>
                <th className="pl-3 text-right font-normal">tip, air</th>
                <th className="pl-3 text-right font-normal">tip, person</th>
                <th className="pl-3 text-right font-normal">strength in hand</th>
                <th className="pl-3 text-right font-normal">price over ply</th>
                <th className="pl-4 text-left font-normal">Working</th>
                <th className="no-print">
                  <span className="sr-only">Keep it</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {found.choices.map(({ material, panel, airOnlyM, decides }) => (
                <tr key={material.key} className={`border-t border-line align-top ${panel.holds ? '' : 'text-quiet'}`}>
                  <th scope="row" className="py-1 pr-3 text-left font-normal">
                    {material.name}
                  </th>
                  <td className="py-1 pl-3 text-right font-semibold">
                    {panel.holds ? <Figure kind="length" value={panel.thicknessM} decimals={1} /> : 'none listed'}
                    {panel.holds && (
                      <span className="block text-xs font-normal text-quiet">{decides === 'standing' ? 'the person decides' : 'the air decides'}</span>
                    )}
                  </td>
                  <td className="py-1 pl-3 text-right">{airOnlyM === null ? 'none' : <Figure kind="length" value={airOnlyM} decimals={1} />}</td>
                  <td className="py-1 pl-3 text-right tabular-nums">{panel.kgPerM2.toFixed(1)}</td>
                  <td className="py-1 pl-3 text-right">
                    <Figure kind="length" value={panel.air.tipM} decimals={1} />
                  </td>
                  <td className="py-1 pl-3 text-right">
                    <Figure kind="length" value={panel.standing.tipM} decimals={1} />
                  </td>
                  <td className="py-1 pl-3 text-right tabular-nums">{Math.min(panel.air.strength, panel.standing.strength).toFixed(1)} ×</td>
                  <td className="py-1 pl-3 text-right tabular-nums">{material.priceOverPly > 0 ? `${material.priceOverPly} ×` : ''}</td>
                  <td className="py-1 pl-4 text-xs text-quiet">{material.notes.join(' ')}</td>
                  <td className="no-print py-1 pl-2">
                    {deviceId !== '' && (
                      <button
                        type="button"
                        className="word-link"
                        aria-label={`keep ${material.name}`}
                        onClick={() => {
                          const { widthM, lipM, rodAtM, standingN, carriedKg } = found.load
                          const own = isListed(material.key) ? { sheet: material.key, materialId: null } : { sheet: null, materialId: material.key }
                          keep({ deviceId, panel: { ...own, thicknessM: panel.thicknessM, span, widthM, lipM, support, rodAtM, standingN, carriedKg } })
                        }}
                      >
                        keep
                      </button>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </ScrollBox>
      )}
    </section>
  )
}
