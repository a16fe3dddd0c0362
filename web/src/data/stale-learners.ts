import type { UnknownAction } from '@reduxjs/toolkit'
import { createListenerMiddleware } from '@reduxjs/toolkit'
import { api } from './api.ts'
import { touchesBuild } from './tags.ts'

interface Written extends UnknownAction {
  readonly payload: { readonly buildId?: unknown; readonly id?: unknown }
  readonly meta: { readonly arg: { readonly originalArgs?: { readonly buildId?: unknown } } }
}
interface Cached {
  readonly endpointName?: string
  readonly originalArgs?: unknown
  readonly data?: { readonly build?: { readonly guessPairsFrom?: string } }
}

/** Builds that are open here and learn from the guesses of all others: a write to any of those touches what is shown of them. */
export const staleLearners = createListenerMiddleware()
staleLearners.startListening({
  predicate: (action) => action.type === `${api.reducerPath}/executeMutation/fulfilled`,
  effect: (action, { dispatch, getState }) => {
    const { payload, meta } = action as Written
    const written = meta.arg.originalArgs?.buildId ?? payload?.buildId
    if (written === undefined) return
    const { queries } = (getState() as { readonly [api.reducerPath]: { readonly queries: Readonly<Record<string, Cached | undefined>> } })[api.reducerPath]
    for (const query of Object.values(queries))
      if (query?.endpointName === 'records' && query.originalArgs !== written && query.data?.build?.guessPairsFrom === 'garage')
        dispatch(api.util.invalidateTags(touchesBuild(String(query.originalArgs))))
  },
})
