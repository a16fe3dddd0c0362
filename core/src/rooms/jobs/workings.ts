import { optimismFactors } from '../../jobs/optimism.ts'
import { bookAtStage } from '../../stages/book-limits.ts'
import { metricFrame, ofStage, type WorkingLine, type WorkingMaker } from '../../stages/working-line.ts'
import { JOBS_METRICS, moneyValue } from './metrics.ts'
import { costItems, moneyToStage } from './money.ts'
import { optimismOf } from './road-of-car.ts'
import { ratioAtStage, ratioRuleAt } from './rule-books.ts'

/** Items of money that are told one by one, the greatest first. */
const TOLD = 12
const PROOF_OF = { paid: 'measured', catalogue: 'catalogue', guess: 'guess' } as const

const moneyWorking = ofStage((car, position) => {
  const value = moneyValue(car, position)
  const declared = JOBS_METRICS.find(({ key }) => key === 'moneyToStage')
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

const ratioWorking = ofStage((car, position) => {
  const rule = ratioRuleAt(car, position)
  const found = rule && ratioAtStage(car, position, rule)
  const declared = JOBS_METRICS.find(({ key }) => key === 'ruleRatio')
  if (!found || !declared) return undefined
  const { massKg, powerW, ratio, sd, proof, kgToAdd, wToGiveUp } = found
  const lines: WorkingLine[] = [
    { label: 'mass as the rule counts it', value: massKg, kind: 'mass', proof },
    { label: rule.average ? 'power as the rule averages it' : 'power', value: powerW, kind: 'power', proof },
    ...rule.modifiers
      .filter(({ applies }) => applies)
      .map(({ name, kgPerW }): WorkingLine => ({ label: name, value: kgPerW, kind: 'massToPower', isSigned: true })),
    { label: 'least that the book allows', value: rule.value, kind: 'massToPower' },
    { label: kgToAdd > 0 ? 'mass to add' : 'mass in hand', value: Math.abs(kgToAdd), kind: 'mass' },
    { label: wToGiveUp > 0 ? 'power to give up' : 'power in hand', value: Math.abs(wToGiveUp), kind: 'power' },
  ]
  return {
    ...metricFrame(car, position, declared, { value: ratio, sd, proof }),
    lines,
    remarks: [`${bookAtStage(car, position)?.name ?? ''}${rule.from ? `, ${rule.from}` : ''}: ${rule.text}`],
  }
})

export const JOBS_WORKINGS = { moneyToStage: moneyWorking, ruleRatio: ratioWorking } satisfies Record<string, WorkingMaker>
