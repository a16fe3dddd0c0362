import {
  type BatchWrite,
  type BuildFileReport,
  type CalculationDescription,
  type DeviceCommand,
  type DeviceEntry,
  type DeviceKind,
  type GarageEntry,
  LOG_ENTRY_HEADER,
  type LogColumns,
  type LogPage,
  type LogPreview,
  type LogSamples,
  type Problem,
  type PullColumns,
  type PullPreview,
  type PullSamples,
  type RecordsAnswer,
  type ShelfAddress,
  type ShelfEntry,
  type SinceAnswer,
  TOTAL_HEADER,
  TYPED_AT_HEADER,
  type WorkingAnswer,
} from '@bold-ballast/contract'
import {
  type AeroRoom,
  type Board,
  type CalculationAnswer,
  type ColumnMapping,
  type DriveRoom,
  type JobsRoom,
  type LogColumnMapping,
  listOfAddress,
  type Metric,
  type PowerRoom,
  type RecordList,
  type ResourceName,
  type RulesRoom,
  type SystemsRoom,
  type TrackRoom,
  type WeightRoom,
  type WorkingSubject,
} from '@bold-ballast/core'
import { createApi, fetchBaseQuery } from '@reduxjs/toolkit/query/react'
import { heardQuery } from './crew/heard-query.ts'
import { localDay } from './local-day.ts'
import type { Preferences } from './preferences.ts'
import { restsOn, restsOnAll, TAG_TYPES, touchesBuild, touchesList } from './tags.ts'

type Body = Record<string, unknown>
/** Builds whose name holds a text, from a page on. */
export interface GarageWish {
  readonly name?: string
  readonly page?: number
}
export interface GarageBuilds {
  readonly entries: readonly GarageEntry[]
  /** How many there are on all pages. */
  readonly total: number
}
export interface PullFileArguments {
  readonly buildId: string
  readonly sessionId: string
  readonly importId: string
  readonly file: Blob
  readonly mapping?: readonly ColumnMapping[]
  /** Which of the session's settings the pulls ran on; left out: the first. */
  readonly settingId?: string
}

/** Tells when a write was typed that waited here. */
const typedHeader = (typedAt: string | undefined): Record<string, string> => (typedAt ? { [TYPED_AT_HEADER]: typedAt } : {})

/** A file is sent under the type the server asks for, whatever the system it came from calls it. */
const typed = (file: Blob, type: string): Blob => file.slice(0, file.size, type)

export interface BuildFileArguments {
  readonly file: Blob
  readonly isArchive: boolean
  readonly as: 'new' | 'update'
  readonly importId: string
  readonly missing: 'keep' | 'delete'
}

const buildFileRequest = (mode: 'preview' | 'import', { file, isArchive, ...query }: BuildFileArguments) => ({
  url: 'build-files',
  method: 'POST',
  params: { mode, ...query },
  body: typed(file, isArchive ? 'application/zip' : 'application/json'),
})

const pullFileRequest = (mode: 'columns' | 'preview' | 'import', { buildId, sessionId, file, mapping, ...query }: PullFileArguments) => ({
  url: `builds/${buildId}/sessions/${sessionId}/pull-files`,
  method: 'POST',
  params: { mode, ...query, ...(mapping && mapping.length > 0 ? { mapping: JSON.stringify(mapping) } : {}) },
  body: typed(file, 'text/csv'),
})

export interface LogFileArguments {
  readonly buildId: string
  readonly sessionId: string
  readonly importId: string
  readonly logId: string
  readonly file: File
  readonly loggerName: string
  readonly mapping: readonly LogColumnMapping[]
}

const logFileRequest = (mode: 'columns' | 'preview' | 'import', { buildId, sessionId, file, mapping, ...query }: LogFileArguments) => ({
  url: `builds/${buildId}/track-sessions/${sessionId}/log-files`,
  method: 'POST',
  params: { mode, ...query, fileName: file.name, ...(mapping.length > 0 ? { mapping: JSON.stringify(mapping) } : {}) },
  body: typed(file, 'text/csv'),
  // A quarter of a gigabyte takes a while to be read.
  timeout: 180_000,
})

/** Everything the server knows; a write makes those answers be read again that rest on what it touched. */
export const api = createApi({
  reducerPath: 'api',
  baseQuery: heardQuery(
    fetchBaseQuery({
      baseUrl: '/api/',
      timeout: 60_000,
      prepareHeaders: (headers, { getState }) => {
        const { person } = (getState() as { preferences: Preferences }).preferences
        if (person) headers.set('x-person', encodeURIComponent(person))
      },
    }),
  ),
  tagTypes: TAG_TYPES,
  keepUnusedDataFor: 300,
  endpoints: (build) => ({
    // Without a wish it asks as it always did.
    garage: build.query<GarageBuilds, GarageWish | undefined>({
      query: (wish) => ({ url: 'builds', params: { day: localDay(), ...wish } }),
      transformResponse: (entries: GarageEntry[], meta): GarageBuilds => ({
        entries,
        total: Number(meta?.response?.headers.get(TOTAL_HEADER) ?? entries.length),
      }),
      providesTags: ['Garage'],
    }),
    records: build.query<RecordsAnswer, string>({ query: (id) => `builds/${id}/records`, providesTags: (_r, _e, id) => restsOnAll(id) }),
    revision: build.query<{ revision: number }, string>({ query: (id) => `builds/${id}/revision` }),
    board: build.query<Board, string>({ query: (id) => `builds/${id}/board?day=${localDay()}`, providesTags: (_r, _e, id) => restsOn(id, 'board') }),
    // Thousands of figures change together: comparing them one by one would cost more than drawing those that are seen.
    weight: build.query<WeightRoom, string>({
      query: (id) => `builds/${id}/weight`,
      providesTags: (_r, _e, id) => restsOn(id, 'weight'),
      structuralSharing: false,
    }),
    power: build.query<PowerRoom, string>({ query: (id) => `builds/${id}/power`, providesTags: (_r, _e, id) => restsOn(id, 'power') }),
    track: build.query<TrackRoom, string>({ query: (id) => `builds/${id}/track`, providesTags: (_r, _e, id) => restsOn(id, 'track') }),
    jobs: build.query<JobsRoom, string>({ query: (id) => `builds/${id}/jobs?day=${localDay()}`, providesTags: (_r, _e, id) => restsOn(id, 'jobs') }),
    rules: build.query<RulesRoom, string>({ query: (id) => `builds/${id}/rules`, providesTags: (_r, _e, id) => restsOn(id, 'rules') }),
    systems: build.query<SystemsRoom, string>({ query: (id) => `builds/${id}/systems`, providesTags: (_r, _e, id) => restsOn(id, 'systems') }),
    aero: build.query<AeroRoom, string>({ query: (id) => `builds/${id}/aero`, providesTags: (_r, _e, id) => restsOn(id, 'aero') }),
    drivetrain: build.query<DriveRoom, string>({ query: (id) => `builds/${id}/drivetrain`, providesTags: (_r, _e, id) => restsOn(id, 'drivetrain') }),
    working: build.query<WorkingAnswer, { buildId: string; of: WorkingSubject; id: string }>({
      query: ({ buildId, of, id }) => ({ url: `builds/${buildId}/working`, params: { of, id, day: localDay() } }),
      providesTags: (_r, _e, { buildId }) => restsOnAll(buildId),
    }),
    createBuild: build.mutation<Body, Body>({
      query: (body) => ({ url: 'builds', method: 'POST', body }),
      invalidatesTags: (_r, error) => (error ? [] : ['Garage']),
    }),
    createRecord: build.mutation<Body, { buildId: string; resource: ResourceName; body: Body; typedAt?: string | undefined }>({
      query: ({ buildId, resource, body, typedAt }) => ({ url: `builds/${buildId}/${resource}`, method: 'POST', body, headers: typedHeader(typedAt) }),
      // What was stored stands in the lists at once, before they are read again.
      onQueryStarted: async ({ buildId, resource }, { dispatch, queryFulfilled, getState }) => {
        const made = await queryFulfilled.catch(() => null)
        const { data } = api.endpoints.records.select(buildId)(getState() as never)
        if (!made || !data) return
        const list = listOfAddress(resource) as RecordList
        const others = (data[list] as readonly unknown[]).filter((entry) => (entry as Body).id !== made.data.id)
        void dispatch(api.util.upsertQueryData('records', buildId, { ...data, [list]: [...others, made.data] }))
      },
      invalidatesTags: (_r, error, { buildId, resource }) => (error ? [] : touchesList(buildId, resource)),
    }),
    patchRecord: build.mutation<Body, { buildId: string; resource: ResourceName; id: string; body: Body; typedAt?: string | undefined }>({
      query: ({ buildId, resource, id, body, typedAt }) => ({
        url: `builds/${buildId}/${resource}/${id}`,
        method: 'PATCH',
        body,
        headers: typedHeader(typedAt),
      }),
      invalidatesTags: (_r, error, { buildId, resource }) => (error ? touchesBuild(buildId) : touchesList(buildId, resource)),
    }),
    removeRecord: build.mutation<Body, { buildId: string; resource: ResourceName; id: string; version: number }>({
      query: ({ buildId, resource, id, version }) => ({ url: `builds/${buildId}/${resource}/${id}`, method: 'DELETE', body: { version } }),
      // Parts of it go along with it, so that any list may have changed.
      invalidatesTags: (_r, _e, { buildId }) => touchesBuild(buildId),
    }),
    patchBuild: build.mutation<Body, { buildId: string; body: Body }>({
      query: ({ buildId, body }) => ({ url: `builds/${buildId}`, method: 'PATCH', body }),
      invalidatesTags: (_r, _e, { buildId }) => touchesBuild(buildId),
    }),
    removeBuild: build.mutation<Body, { buildId: string; version: number }>({
      query: ({ buildId, version }) => ({ url: `builds/${buildId}`, method: 'DELETE', body: { version } }),
      invalidatesTags: (_r, error) => (error ? [] : ['Garage', 'Shelf']),
    }),
    log: build.query<LogPage, { buildId: string; before?: number }>({
      query: ({ buildId, ...params }) => ({ url: `builds/${buildId}/log`, params }),
      providesTags: (_r, _e, { buildId }) => restsOnAll(buildId),
    }),
    since: build.query<SinceAnswer, { buildId: string; from: string; metric: Metric; stage: string; ends: 'yes' | 'no' }>({
      query: ({ buildId, from, ...params }) => ({ url: `builds/${buildId}/since`, params: { ...params, ...(from === '' ? {} : { from }), day: localDay() } }),
      providesTags: (_r, _e, { buildId }) => restsOnAll(buildId),
    }),
    boardThen: build.query<Board, { buildId: string; at: number }>({
      query: ({ buildId, at }) => ({ url: `builds/${buildId}/board`, params: { at, day: localDay() } }),
    }),
    undo: build.mutation<{ action: string; name: string; entryId: number }, { buildId: string; entryId: number }>({
      query: ({ buildId, entryId }) => ({ url: `builds/${buildId}/log/${entryId}/undo`, method: 'POST', body: {} }),
      transformResponse: (done: { action: string; name: string }, meta) => ({ ...done, entryId: Number(meta?.response?.headers.get(LOG_ENTRY_HEADER) ?? 0) }),
      invalidatesTags: (_r, _e, { buildId }) => touchesBuild(buildId),
    }),
    previewBuildFile: build.mutation<BuildFileReport, BuildFileArguments>({ query: (all) => buildFileRequest('preview', all) }),
    importBuildFile: build.mutation<BuildFileReport, BuildFileArguments>({
      query: (all) => buildFileRequest('import', all),
      invalidatesTags: (report, error) => (error || !report ? [] : touchesBuild(report.buildId)),
    }),
    calculations: build.query<CalculationDescription[], void>({ query: () => 'calc' }),
    calculate: build.mutation<CalculationAnswer, { name: string; input: unknown }>({
      // A refusal is an answer with a sentence, not a failure of the server.
      query: ({ name, input }) => ({ url: `calc/${name}`, method: 'POST', body: input, validateStatus: ({ status }) => status === 200 || status === 422 }),
    }),
    batch: build.mutation<Body[], { buildId: string; batchId: string; writes: readonly BatchWrite[] }>({
      query: ({ buildId, ...body }) => ({ url: `builds/${buildId}/batches`, method: 'POST', body }),
      invalidatesTags: (_r, error, { buildId }) => (error ? [] : touchesBuild(buildId)),
    }),
    addPhoto: build.mutation<Body, { buildId: string; id: string; recordId: string; file: File }>({
      query: ({ buildId, file, ...ids }) => ({
        url: `builds/${buildId}/photo-files`,
        method: 'POST',
        params: { ...ids, name: file.name },
        body: typed(file, file.type.startsWith('image/') ? file.type : 'image/jpeg'),
      }),
      invalidatesTags: (_r, error, { buildId }) => (error ? [] : touchesList(buildId, 'photos')),
    }),
    devices: build.query<DeviceEntry[], void>({ query: () => 'devices', providesTags: ['Devices'] }),
    findDevices: build.mutation<DeviceEntry[], void>({ query: () => ({ url: 'devices/find', method: 'POST', body: {} }), invalidatesTags: ['Devices'] }),
    startStandIn: build.mutation<DeviceEntry, DeviceKind>({
      query: (kind) => ({ url: 'devices/stand-ins', method: 'POST', body: { kind } }),
      invalidatesTags: ['Devices'],
    }),
    stopStandIn: build.mutation<unknown, string>({
      query: (id) => ({ url: `devices/stand-ins/${id}`, method: 'DELETE', body: {} }),
      invalidatesTags: ['Devices'],
    }),
    askDevice: build.mutation<unknown, { id: string; command: DeviceCommand }>({
      query: ({ id, command }) => ({ url: `devices/${id}/commands`, method: 'POST', body: command }),
    }),
    reorderStages: build.mutation<Body[], { buildId: string; stages: { id: string; version: number }[] }>({
      query: ({ buildId, stages }) => ({ url: `builds/${buildId}/stage-order`, method: 'PUT', body: { stages } }),
      invalidatesTags: (_r, _e, { buildId }) => touchesBuild(buildId),
    }),
    shelf: build.query<ShelfEntry[], ShelfAddress>({ query: (address) => `shelf/${address}`, providesTags: ['Shelf'] }),
    pullSamples: build.query<PullSamples, { buildId: string; pullId: string }>({ query: ({ buildId, pullId }) => `builds/${buildId}/pulls/${pullId}/samples` }),
    logSamples: build.query<LogSamples, { buildId: string; logId: string; channels: readonly number[]; fromS?: number; toS?: number; most?: number }>({
      query: ({ buildId, logId, channels, ...params }) => ({
        url: `builds/${buildId}/track-logs/${logId}/samples`,
        params: { channels: channels.join(','), ...params },
      }),
    }),
    logColumns: build.mutation<LogColumns, LogFileArguments>({ query: (all) => logFileRequest('columns', all) }),
    previewLog: build.mutation<LogPreview, LogFileArguments>({ query: (all) => logFileRequest('preview', all) }),
    importLog: build.mutation<Body[], LogFileArguments>({
      query: (all) => logFileRequest('import', all),
      invalidatesTags: (_r, error, { buildId }) => (error ? [] : touchesBuild(buildId)),
    }),
    pullColumns: build.mutation<PullColumns, PullFileArguments>({ query: (all) => pullFileRequest('columns', all) }),
    previewPulls: build.mutation<PullPreview, PullFileArguments>({ query: (all) => pullFileRequest('preview', all) }),
    importPulls: build.mutation<Body[], PullFileArguments>({
      query: (all) => pullFileRequest('import', all),
      invalidatesTags: (_r, error, { buildId }) => (error ? [] : touchesList(buildId, 'pulls')),
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
  if (problem) return { message: problem.detail, isAway: problem.status === 503 || problem.code === 'signed-out', problem }
  if (status === 'FETCH_ERROR' || status === 'TIMEOUT_ERROR') return { message: 'The server does not answer.', isAway: true, problem: null }
  if (status === 'PARSING_ERROR') return { message: 'The answer of the server was cut off.', isAway: true, problem: null }
  return { message: 'Something went wrong. Load the page again.', isAway: false, problem: null }
}
