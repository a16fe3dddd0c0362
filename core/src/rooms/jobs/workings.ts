import { optimismFactors } from '../../jobs/optimism.ts'
import { metricFrame, ofStage, type WorkingLine, type WorkingMaker } from '../../stages/working-line.ts'
import { JOBS_METRICS, moneyValue } from './metrics.ts'
import { costItems, moneyToStage } from './money.ts'
import { optimismOf } from './road-of-car.ts'

/** Items of money that are told one by one, the greatest first. */
const TOLD = 12
const PROOF_OF = { paid: 'measured', catalogue: 'catalogue', guess: 'guess' } as const

const moneyWorking = ofStage((car, position) => {
  const value = moneyValue(car, position)
  const [declared] = JOBS_METRICS
  if (!value || !declared) return undefined
  const items = costItems(car).filter((item) => item.position <= position)
  const { extrasNobodyEntered } = moneyToStage(car, position)
  const bias = optimismOf(car).money
  const lines = [...items]
    .sort((a, b) => Math.abs(b.amount) - Math.abs(a.amount))
    .map(({ name, amount, known }): WorkingLine => ({ label: name, value: amount, kind: 'money', proof: PROOF_OF[known] }))
  const rest = lines.slice(TOLD).reduce((sum, line) => sum + (line.value ?? 0), 0)
  return {
    ...metricFrame(car, position, declared, value),
    lines: [...lines.slice(0, TOLD), ...(lines.length > TOLD ? [{ label: `${lines.length - TOLD} more`, value: rest, kind: 'money' } as const] : [])],
    remarks: [
      bias.isDefault
        ? `Guessed prices count ${optimismFactors(bias).mean.toFixed(2)} times: assumed until five paid prices are known, no source.`
        : `Guessed prices count ${optimismFactors(bias).mean.toFixed(2)} times: so ${bias.pairCount} paid ones came out.`,
      ...(extrasNobodyEntered > 0
        ? [`Not in it: about ${extrasNobodyEntered.toFixed(0)} for what comes with parts on the way, as it did with those that are here.`]
        : []),
    ],
  }
})

export const JOBS_WORKINGS = { moneyToStage: moneyWorking } satisfies Record<string, WorkingMaker>
