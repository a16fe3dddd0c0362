import { LOG_ENTRY_HEADER } from '@bold-ballast/contract'
import { createListenerMiddleware, type UnknownAction } from '@reduxjs/toolkit'
import { api } from './api.ts'
import { wrote } from './undo-slice.ts'

interface WriteAction extends UnknownAction {
  readonly payload: Record<string, unknown>
  readonly meta: {
    readonly arg: { readonly endpointName: string; readonly originalArgs: Record<string, unknown> }
    readonly baseQueryMeta?: { readonly response?: Response }
  }
}

const DONE_WORDS: Record<string, string> = {
  createRecord: 'Added',
  patchRecord: 'Changed',
  removeRecord: 'Deleted',
  reorderStages: 'Moved',
  importPulls: 'Imported',
  batch: 'Wrote',
  addPhoto: 'Added',
  createBuild: 'Made',
  patchBuild: 'Changed',
  removeBuild: 'Deleted',
  importBuildFile: 'Imported',
}

async function whatWasWritten(endpoint: string, args: Record<string, unknown>, answer: Record<string, unknown>): Promise<string> {
  if (endpoint === 'reorderStages') return 'the stages'
  if (endpoint === 'importPulls') return 'the pulls'
  const writes = endpoint === 'batch' ? (args.writes as readonly { readonly resource: string }[]) : []
  if (writes.length > 1) return `${writes.length} records`
  const resource = writes[0]?.resource ?? (args.resource as string | undefined) ?? 'builds'
  const name = answer.name ?? answer.dynoName
  if (name) return `${name}`
  // Fetched when it is first needed; a notice without it is still a notice.
  return import('./record-words.ts').then(
    ({ recordWord }) => recordWord(resource),
    () => 'a record',
  )
}

/** Every write that made a line in a log is noted, so that it can be taken back. */
export const noteWrites = createListenerMiddleware()
noteWrites.startListening({
  predicate: (action) => action.type === `${api.reducerPath}/executeMutation/fulfilled`,
  effect: async (action, { dispatch }) => {
    const { payload, meta } = action as WriteAction
    const entryId = Number(meta.baseQueryMeta?.response?.headers.get(LOG_ENTRY_HEADER) ?? 0)
    const { endpointName, originalArgs } = meta.arg
    const done = DONE_WORDS[endpointName]
    if (!entryId || !done) return
    const buildId = String(originalArgs.buildId ?? payload.buildId ?? payload.id)
    dispatch(wrote({ buildId, entryId, words: `${done} ${await whatWasWritten(endpointName, originalArgs, payload)}.` }))
  },
})
