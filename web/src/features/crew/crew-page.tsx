import { useBuild } from '../../data/use-build.ts'
import { useAddress } from '../../ui/hooks/use-address.ts'
import { LoadError, Loading } from '../../ui/states.tsx'
import { OpenTab, Tabs, useTab } from '../../ui/tabs.tsx'
import { TABS } from './tabs.ts'
import { ThenPage } from './then/then-page.tsx'

/** Who moved the number since one looked, who may do what, and who may look; and the build as it stood behind a line of its log. */
export function CrewPage() {
  const { buildId, board, records, position, error, retry } = useBuild()
  const { get, set } = useAddress()
  const [tab, open] = useTab(TABS)
  if (error && !board) return <LoadError error={error} retry={retry} />
  if (!board || !records) return <Loading what="the crew" />
  const entry = Number(get('entry'))
  return (
    <>
      <title>{`${records.build.name}: Crew · Bold Ballast`}</title>
      {Number.isInteger(entry) && entry > 0 ? (
        <ThenPage buildId={buildId} entryId={entry} close={() => set({ entry: '' })} />
      ) : (
        <OpenTab tab={tab} props={{ buildId, board, records, position, tabs: <Tabs tabs={TABS} tab={tab} open={open} /> }} />
      )}
    </>
  )
}
