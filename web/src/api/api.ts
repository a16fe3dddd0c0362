import type { GarageEntry, Problem, PullPreview, RecordsAnswer, ResourceName, WorkingAnswer } from '@bold-ballast/contract'
import type { Board, PowerRoom, WeightRoom, WorkingSubject } from '@bold-ballast/core'
import { createApi, fetchBaseQuery } from '@reduxjs/toolkit/query/react'
import type { Preferences } from '../app/preferences.ts'

type Body = Record<string, unknown>
export interface PullFileArguments {
  readonly buildId: string
  readonly sessionId: string
  readonly importId: string
  readonly file: Blob
  readonly powerUnit?: string
  readonly torqueUnit?: string
}

const pullFileRequest = (mode: 'preview' | 'import', { buildId, sessionId, file, ...query }: PullFileArguments) => ({
  url: `builds/${buildId}/sessions/${sessionId}/pull-files`,
  method: 'POST',
  params: { mode, ...query },
  headers: { 'content-type': 'text/csv' },
  body: file,
})

/** Everything the server knows; a write to a build makes what is shown of it be read again. */
export const api = createApi({
  reducerPath: 'api',
  baseQuery: fetchBaseQuery({
    baseUrl: '/api/',
    timeout: 60_000,
    prepareHeaders: (headers, { getState }) => {
      const { person } = (getState() as { preferences: Preferences }).preferences
      if (person) headers.set('x-person', encodeURIComponent(person))
    },
  }),
  tagTypes: ['Build'],
  keepUnusedDataFor: 300,
  endpoints: (build) => ({
    garage: build.query<GarageEntry[], void>({ query: () => 'builds', providesTags: ['Build'] }),
    records: build.query<RecordsAnswer, string>({ query: (id) => `builds/${id}/records`, providesTags: ['Build'] }),
    board: build.query<Board, string>({ query: (id) => `builds/${id}/board`, providesTags: ['Build'] }),
    weight: build.query<WeightRoom, string>({ query: (id) => `builds/${id}/weight`, providesTags: ['Build'] }),
    power: build.query<PowerRoom, string>({ query: (id) => `builds/${id}/power`, providesTags: ['Build'] }),
    working: build.query<WorkingAnswer, { buildId: string; of: WorkingSubject; id: string }>({
      query: ({ buildId, of, id }) => ({ url: `builds/${buildId}/working`, params: { of, id } }),
      providesTags: ['Build'],
    }),
    createBuild: build.mutation<Body, Body>({
      query: (body) => ({ url: 'builds', method: 'POST', body }),
      invalidatesTags: (_r, error) => (error ? [] : ['Build']),
    }),
    createRecord: build.mutation<Body, { buildId: string; resource: ResourceName; body: Body }>({
      query: ({ buildId, resource, body }) => ({ url: `builds/${buildId}/${resource}`, method: 'POST', body }),
      // The new record stands in the lists at once; what is worked out from it is read again.
      onQueryStarted: async ({ buildId, resource }, { dispatch, queryFulfilled }) => {
        const made = await queryFulfilled.catch(() => null)
        if (!made) return
        const key = resource === 'in-cars' ? 'inCars' : resource
        dispatch(
          api.util.updateQueryData('records', buildId, (draft) => {
            const list = draft[key] as unknown as Body[]
            if (!list.some((entry) => entry.id === made.data.id)) list.push(made.data)
          }),
        )
      },
      invalidatesTags: (_r, error) => (error ? [] : ['Build']),
    }),
    patchRecord: build.mutation<Body, { buildId: string; resource: ResourceName; id: string; body: Body }>({
      query: ({ buildId, resource, id, body }) => ({ url: `builds/${buildId}/${resource}/${id}`, method: 'PATCH', body }),
      invalidatesTags: ['Build'],
    }),
    removeRecord: build.mutation<Body, { buildId: string; resource: ResourceName; id: string; version: number }>({
      query: ({ buildId, resource, id, version }) => ({ url: `builds/${buildId}/${resource}/${id}`, method: 'DELETE', body: { version } }),
      invalidatesTags: ['Build'],
    }),
    restoreRecord: build.mutation<Body, { buildId: string; resource: ResourceName; id: string; version: number }>({
      query: ({ buildId, resource, id, version }) => ({ url: `builds/${buildId}/${resource}/${id}/restore`, method: 'POST', body: { version } }),
      invalidatesTags: ['Build'],
    }),
    reorderStages: build.mutation<Body[], { buildId: string; stages: { id: string; version: number }[] }>({
      query: ({ buildId, stages }) => ({ url: `builds/${buildId}/stage-order`, method: 'PUT', body: { stages } }),
      invalidatesTags: ['Build'],
    }),
    previewPulls: build.mutation<PullPreview, PullFileArguments>({ query: (all) => pullFileRequest('preview', all) }),
    importPulls: build.mutation<Body[], PullFileArguments>({
      query: (all) => pullFileRequest('import', all),
      invalidatesTags: (_r, error) => (error ? [] : ['Build']),
    }),
  }),
})

/** What went wrong, in words for the person, and whether sending again may help. */
export interface Failure {
  readonly message: string
  readonly isAway: boolean
  readonly problem: Problem | null
}

export function readFailure(error: unknown): Failure {
  const { status, data } = (error ?? {}) as { status?: unknown; data?: unknown }
  const problem = typeof data === 'object' && data !== null && 'detail' in data ? (data as Problem) : null
  if (problem) return { message: problem.detail, isAway: problem.status === 503, problem }
  if (status === 'FETCH_ERROR' || status === 'TIMEOUT_ERROR') return { message: 'The server does not answer.', isAway: true, problem: null }
  return { message: 'Something went wrong. Load the page again.', isAway: false, problem: null }
}
