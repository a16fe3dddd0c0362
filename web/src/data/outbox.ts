import type { Problem } from '@bold-ballast/contract'
import type { ResourceName } from '@bold-ballast/core'
import { createSlice, type PayloadAction } from '@reduxjs/toolkit'
import { readStored, storedOfOthers, takeOverOpen, writeStored } from './stored.ts'

/** One write that waits in this browser until the server has it. Sent with the same id as often as needed, it is stored once. */
export interface Waiting {
  readonly id: string
  readonly buildId: string
  readonly kind: 'create' | 'update'
  readonly resource: ResourceName
  readonly recordId: string
  readonly body: Readonly<Record<string, unknown>>
  /** Of an edit: the record as it was read last; null: nobody knows. */
  readonly base?: Readonly<Record<string, unknown>> | null | undefined
  /** What it is, in words, for the list of what waits. */
  readonly words: string
  readonly typedAt?: string | undefined
  /** The line as it was typed, to put it back. */
  readonly typed?: string | undefined
  readonly refusal: { readonly message: string; readonly problem: Problem | null } | null
}

export const OUTBOX_KEY = 'bold-ballast.outbox'

export interface OutboxState {
  readonly items: readonly Waiting[]
  /** Why nothing goes out at the moment; null while the server answers. */
  readonly away: string | null
  /** What the server has got and the lists that were read do not show yet. */
  readonly sent: readonly Waiting[]
  /** What is said of an edit that met another one and was kept beside it. */
  readonly said: string | null
}

const initialState: OutboxState = { items: readStored<Waiting[]>(OUTBOX_KEY, []), away: null, sent: [], said: null }

/** What waits to be sent, oldest first. The browser's storage is the truth, so that tabs agree and a closed one loses nothing. */
const slice = createSlice({
  name: 'outbox',
  initialState,
  reducers: {
    reread: (state) => ({ ...state, items: readStored<Waiting[]>(OUTBOX_KEY, []) }),
    justSent: (state, { payload }: PayloadAction<Waiting>) => ({ ...state, sent: [...state.sent, payload] }),
    isSeen: (state, { payload }: PayloadAction<string>) => ({ ...state, sent: state.sent.filter(({ id }) => id !== payload) }),
    keptBoth: (state, { payload }: PayloadAction<string | null>) => ({ ...state, said: payload }),
    isAway: (state, { payload }: PayloadAction<string | null>) => ({ ...state, away: payload }),
  },
})

export const { reread, isAway, justSent, isSeen, keptBoth } = slice.actions
export const outboxReducer = slice.reducer

/** Entries of those who are not at this browser now: whose they are, and how many. */
export const waitingOfOthers = (): readonly { readonly personId: string | null; readonly count: number }[] =>
  storedOfOthers<readonly Waiting[] | null>(OUTBOX_KEY).flatMap(({ personId, value }) => (value && value.length > 0 ? [{ personId, count: value.length }] : []))

/** What was typed before anybody signed in goes out as whoever sits here. */
export const takeOverOpenOutbox = (): void => takeOverOpen<readonly Waiting[]>(OUTBOX_KEY, (mine, before) => [...(mine ?? []), ...before])

const write = (change: (items: readonly Waiting[]) => readonly Waiting[]) => writeStored(OUTBOX_KEY, change(readStored<Waiting[]>(OUTBOX_KEY, [])))

/** Changes of the stored list; each reads it anew, because another tab may have written in between. */
export const storedOutbox = {
  first: (): Waiting | undefined => readStored<Waiting[]>(OUTBOX_KEY, []).find((item) => item.refusal === null),
  add: (item: Waiting) => write((items) => [...items, item]),
  drop: (id: string) => write((items) => items.filter((item) => item.id !== id)),
  refuse: (id: string, refusal: Waiting['refusal']) => write((items) => items.map((item) => (item.id === id ? { ...item, refusal } : item))),
  /** Sends a refused one again, with the fields given. */
  resend: (id: string, body: Readonly<Record<string, unknown>>) =>
    write((items) => items.map((item) => (item.id === id ? { ...item, body, refusal: null } : item))),
  /** Edits of the same record that wait behind one that was stored rest on what it became. */
  follow: ({ recordId, buildId, body }: Waiting, record: Readonly<Record<string, unknown>>) =>
    write((items) =>
      items.map((item) =>
        item.kind === 'update' && item.recordId === recordId && item.buildId === buildId && item.body.version === body.version
          ? { ...item, body: { ...item.body, version: record.version }, base: record }
          : item,
      ),
    ),
}
