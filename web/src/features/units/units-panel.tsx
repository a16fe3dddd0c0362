import { type QuantityKind, UNIT_CHOICES, UNIT_SETS } from '@bold-ballast/core'
import { prefer, unitsOf } from '../../data/preferences.ts'
import { useAppDispatch, usePreferences } from '../../data/store.ts'
import { Panel } from '../../ui/dialog.tsx'

const SETS = [
  { name: 'metric', words: 'Metric' },
  { name: 'imperial', words: 'Imperial' },
] as const
const MARKS = [
  { mark: '.', words: 'Point, 1.5' },
  { mark: ',', words: 'Comma, 1,5' },
] as const

/** The set of units, each quantity on its own, and the decimal mark. */
export function UnitsPanel({ onClose }: { onClose: () => void }) {
  const preferences = usePreferences()
  const dispatch = useAppDispatch()
  const units = unitsOf(preferences)
  const { unitSet, ownUnits, decimalMark } = preferences
  const pick = (kind: QuantityKind, symbol: string) => {
    const { [kind]: _, ...others } = ownUnits
    dispatch(prefer({ ownUnits: symbol === UNIT_SETS[unitSet][kind] ? others : { ...others, [kind]: symbol } }))
  }
  return (
    <Panel title="Units and numbers" onClose={onClose}>
      <fieldset className="mb-4">
        <legend className="mb-1 font-semibold">Set</legend>
        <div className="flex gap-2">
          {SETS.map(({ name, words }) => (
            <button
              key={name}
              type="button"
              aria-pressed={unitSet === name && Object.keys(ownUnits).length === 0}
              className={`button ${unitSet === name ? 'button-strong' : ''}`}
              onClick={() => dispatch(prefer({ unitSet: name, ownUnits: {} }))}
            >
              {words}
            </button>
          ))}
        </div>
        {Object.keys(ownUnits).length > 0 && <p className="mt-1 text-quiet">Some quantities have a unit of their own; pressing a set takes them back.</p>}
      </fieldset>
      <fieldset className="mb-4">
        <legend className="mb-1 font-semibold">Each quantity</legend>
        <div className="grid gap-x-6 gap-y-2 sm:grid-cols-2">
          {UNIT_CHOICES.map(({ kind, word, symbols }) => (
            <div key={kind} className="flex items-center justify-between gap-3">
              <label htmlFor={`unit-${kind}`}>{word}</label>
              <select id={`unit-${kind}`} value={units[kind]} onChange={(event) => pick(kind, event.target.value)} className="w-[120px]">
                {symbols.map((symbol) => (
                  <option key={symbol}>{symbol}</option>
                ))}
              </select>
            </div>
          ))}
        </div>
      </fieldset>
      <fieldset>
        <legend className="mb-1 font-semibold">Decimal mark</legend>
        <div className="flex gap-4">
          {MARKS.map(({ mark, words }) => (
            <label key={mark} className="flex min-h-8 items-center gap-2">
              <input type="radio" name="mark" checked={decimalMark === mark} onChange={() => dispatch(prefer({ decimalMark: mark }))} />
              {words}
            </label>
          ))}
        </div>
        <p className="mt-1 text-quiet">
          Any unit may be typed anywhere, as in 41 lb or 9,2 kg. A number such as 1,200 that reads two ways is refused, with both readings.
        </p>
      </fieldset>
    </Panel>
  )
}
