import type { Limit, Target } from '../src/records/plan-kinds.ts'

/** A target of 1,455 kg at most at the first stage, with other fields where they are given. */
export const target = (more: Partial<Target>): Target => ({
  id: 't',
  metric: 'massReady',
  sense: 'atMost',
  value: 1455,
  highValue: null,
  dueStageId: 's0',
  ...more,
})
/** A class rule of 1,200 kg at least from the first stage on, with other fields where they are given. */
export const limit = (more: Partial<Limit>): Limit => ({
  id: 'l',
  metric: 'massReady',
  sense: 'atLeast',
  value: 1200,
  source: 'classRule',
  fromStageId: 's0',
  untilStageId: null,
  ...more,
})
