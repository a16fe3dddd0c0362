import { useEffect } from 'react'
import { api } from '../../data/api.ts'
import { prefer } from '../../data/preferences.ts'
import { useAppDispatch, usePreferences } from '../../data/store.ts'
import { useBuild } from '../../data/use-build.ts'
import { LoadError, Loading } from '../../ui/states.tsx'
import { OpenTab, Tabs, useTab } from '../../ui/tabs.tsx'
import { TABS } from './tabs.ts'

const PAPERS = [
  { paper: 'a4', word: 'A4' },
  { paper: 'letter', word: 'Letter' },
] as const

/** The paper that sheets are laid out for, and the way onto it. */
function PaperBar() {
  const { paper } = usePreferences()
  const dispatch = useAppDispatch()
  return (
    <div className="no-print ml-auto flex items-center gap-3">
      <label className="flex items-center gap-2">
        Paper
        <select value={paper} onChange={(event) => dispatch(prefer({ paper: event.target.value as typeof paper }))}>
          {PAPERS.map(({ paper: each, word }) => (
            <option key={each} value={each}>
              {word}
            </option>
          ))}
        </select>
      </label>
      <button type="button" className="button" onClick={() => window.print()}>
        Print, or save as PDF
      </button>
    </div>
  )
}

/** Sheets to hand over: one stage on a page, the whole build, what scrutineering asks, what is ticked, what a maker gets. */
export function ReportPage() {
  const { buildId, records, board, position } = useBuild()
  const { paper } = usePreferences()
  const [tab, open] = useTab(TABS)
  useEffect(() => {
    document.documentElement.dataset.paper = paper
    return () => {
      delete document.documentElement.dataset.paper
    }
  }, [paper])
  const answers = [api.useWeightQuery(buildId), api.useJobsQuery(buildId), api.useRulesQuery(buildId)] as const
  const [weight, jobs, rules] = answers
  const failed = answers.find(({ error, data }) => error && !data)
  if (failed) return <LoadError error={failed.error} retry={() => void failed.refetch()} />
  if (!records || !board || !weight.data || !jobs.data || !rules.data) return <Loading what="the report" />
  return (
    <>
      <title>{`${records.build.name}: ${tab.word} · Bold Ballast`}</title>
      <h1 className="no-print mb-3">
        {tab.word} of {tab.path === 'story' ? records.build.name : `stage ${position} ${board.stages[position]?.name ?? ''}`}
      </h1>
      <div className="flex flex-wrap items-start gap-x-4">
        <Tabs tabs={TABS} tab={tab} open={open} />
        <PaperBar />
      </div>
      <article className={`paper paper-${paper}`} aria-label={tab.word}>
        <OpenTab tab={tab} props={{ records, board, weight: weight.data, jobs: jobs.data, rules: rules.data, position }} />
      </article>
    </>
  )
}
