import { version } from '../../package.json'
import { api } from '../data/api.ts'
import { useBuild } from '../data/use-build.ts'
import { dayText } from '../ui/words.ts'

/** What stands at the foot of every printed page of a build: which build and stage, the day, and the version that worked it out. */
export function PrintFoot() {
  const { stages, position, buildId } = useBuild()
  const { data } = api.endpoints.records.useQueryState(buildId)
  const stage = stages[position]
  return (
    <p className="print-only print-foot flex justify-between border-t border-line pt-1 text-xs">
      <span>
        {data?.build.name}, stage {position} {stage?.name}
      </span>
      <span>printed {dayText(new Date().toISOString())}</span>
      <span>Bold Ballast {version}</span>
    </p>
  )
}
