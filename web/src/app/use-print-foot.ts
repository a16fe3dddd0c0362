import { useEffect } from 'react'
import { version } from '../../package.json'
import { api } from '../data/api.ts'
import { useBuild } from '../data/use-build.ts'
import { dayText } from '../ui/words.ts'

/** A text as CSS writes it. */
const cssString = (text: string): string => `"${text.replace(/["\\]/g, '\\$&').replace(/\s+/g, ' ')}"`

/** What stands at the foot of every printed page of a build: which build and stage, the day, and the version that worked it out. */
export function usePrintFoot(): void {
  const { stages, position, buildId } = useBuild()
  const { data } = api.endpoints.records.useQueryState(buildId)
  const stage = stages[position]
  const words = `${data?.build.name ?? ''}, stage ${position} ${stage?.name ?? ''}, printed ${dayText(new Date().toISOString())}, Bold Ballast ${version}`
  useEffect(() => {
    const { style } = document.documentElement
    style.setProperty('--print-foot', cssString(words))
    return () => {
      style.removeProperty('--print-foot')
    }
  }, [words])
}
