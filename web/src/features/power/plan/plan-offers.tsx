import { attempt, CalculationError, fromSi, parseQuantity, usualBsfc } from '@bold-ballast/core'
import { fieldName } from '../../../ui/forms/form-fields.ts'
import type { FormValues } from '../../../ui/forms/form-reader.ts'
import { useQuantities } from '../../../ui/quantity.ts'

const USUAL_EFFECTIVENESS = '70 %'
const G_PER_KWH = 3.6e9

/** What follows from a number that was just changed: the fuel use of another fuel, and whether a boosted engine has a cooler. */
export function PlanOffers({ begun, values, set }: { begun: FormValues; values: FormValues; set: (name: string, text: string) => void }) {
  const { decimalMark, units } = useQuantities()
  const names = {
    ethanol: fieldName('burn.ethanolShare'),
    use: fieldName('burn.bsfcKgPerJ'),
    boosted: fieldName('air.isBoosted'),
    cooler: fieldName('air.coolerEffectiveness'),
  }
  const read = (name: string, kind: 'share' | 'fuelUse') => {
    const found = attempt(() => parseQuantity(values[name] ?? '', kind, { defaultUnit: units[kind], decimalMark, field: name }))
    return found instanceof CalculationError ? undefined : found.value
  }
  const isBoosted = values[names.boosted] === 'true'
  const isChanged = values[names.ethanol] !== begun[names.ethanol] || values[names.boosted] !== begun[names.boosted]
  const [ethanolShare, use] = [read(names.ethanol, 'share'), read(names.use, 'fuelUse')]
  const usual = ethanolShare !== undefined && ethanolShare >= 0 && ethanolShare <= 1 ? usualBsfc({ air: { isBoosted }, burn: { ethanolShare } }) : undefined
  const isUsual = use === undefined || usual === undefined || (use * G_PER_KWH >= usual[0] && use * G_PER_KWH <= usual[1])
  const asksForCooler = isBoosted && begun[names.boosted] === 'false' && (values[names.cooler] ?? '') === ''
  return (
    <div role="status" className="grid gap-1 text-wait sm:col-span-2">
      {isChanged && usual && !isUsual && (
        <p>
          This fuel and induction usually take {usual[0].toFixed(0)} to {usual[1].toFixed(0)} g/kWh (common practice, no source), not{' '}
          {fromSi('fuelUse', use ?? 0, 'g/kWh').toFixed(0)}.{' '}
          <button type="button" className="word-link" onClick={() => set(names.use, `${((usual[0] + usual[1]) / 2).toFixed(0)} g/kWh`)}>
            Take {((usual[0] + usual[1]) / 2).toFixed(0)} g/kWh
          </button>
        </p>
      )}
      {asksForCooler && (
        <p>
          Boosted air is hot. Has the engine a cooler?{' '}
          <button type="button" className="word-link" onClick={() => set(names.cooler, USUAL_EFFECTIVENESS)}>
            Yes, {USUAL_EFFECTIVENESS} effective
          </button>{' '}
          (common practice, no source), or leave the field empty for none.
        </p>
      )}
    </div>
  )
}
