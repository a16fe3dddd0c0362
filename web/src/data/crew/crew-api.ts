import {
  type AuditPage,
  type ClaimEntry,
  type CopiesAnswer,
  type GoalsBy,
  type InvitationEntry,
  LINK_HEADER,
  type LinkEntry,
  type MadeLink,
  type MeAnswer,
  type PersonEntry,
  type Role,
  type SeenAnswer,
  type SharedSheet,
} from '@bold-ballast/contract'
import type { OwnerAction } from '@bold-ballast/core'
import { api } from '../api.ts'

const post = (url: string, body: object = {}) => ({ url, method: 'POST', body })

export interface InvitationWish {
  readonly role: Role
  readonly buildId?: string
  readonly until?: string
  readonly personId?: string
}

/** Who is at this browser, and what owners see of their garage. */
export const crewApi = api.enhanceEndpoints({ addTagTypes: ['Me', 'People', 'Seen', 'Copies'] }).injectEndpoints({
  endpoints: (build) => ({
    me: build.query<MeAnswer, void>({ query: () => 'me', providesTags: ['Me'] }),
    makeOwner: build.mutation<MeAnswer, { name: string; login: string; password: string }>({ query: (body) => post('owner', body) }),
    signIn: build.mutation<MeAnswer, { login: string; password: string }>({ query: (body) => post('sign-in', body) }),
    join: build.mutation<MeAnswer, { token: string; name?: string; login?: string; password?: string }>({ query: (body) => post('join', body) }),
    handOver: build.mutation<MeAnswer, { personId: string; code?: string; password?: string }>({ query: (body) => post('hand-over', body) }),
    signOut: build.mutation<MeAnswer, void>({ query: () => post('sign-out') }),
    signOutEverywhere: build.mutation<MeAnswer, void>({ query: () => post('sign-out-everywhere') }),
    changePassword: build.mutation<MeAnswer, { old: string; new: string }>({ query: (body) => post('password', body), invalidatesTags: ['Me'] }),
    changeCode: build.mutation<MeAnswer, { password: string; code: string | null }>({
      query: (body) => post('code', body),
      invalidatesTags: (_r, error) => (error ? [] : ['Me']),
    }),
    people: build.query<PersonEntry[], string>({ query: (garageId) => `garages/${garageId}/people`, providesTags: ['People'] }),
    invitations: build.query<InvitationEntry[], string>({ query: (garageId) => `garages/${garageId}/invitations`, providesTags: ['People'] }),
    ownerActions: build.query<OwnerAction[], { garageId: string; day: string }>({
      query: ({ garageId, day }) => ({ url: `garages/${garageId}/next`, params: { day } }),
      providesTags: ['People'],
    }),
    copies: build.query<CopiesAnswer, string>({ query: (garageId) => `garages/${garageId}/copies`, providesTags: ['Copies'] }),
    takeCopy: build.mutation<CopiesAnswer, string>({
      query: (garageId) => post(`garages/${garageId}/copies`),
      // Already told that it runs, so that the page looks again until it is done.
      onQueryStarted: async (garageId, { dispatch, queryFulfilled }) => {
        const { data } = await queryFulfilled.catch(() => ({ data: undefined }))
        if (data) dispatch(crewApi.util.updateQueryData('copies', garageId, () => data))
      },
    }),
    checkCopy: build.mutation<unknown, { garageId: string; id: string }>({
      query: ({ garageId, id }) => post(`garages/${garageId}/copies/${id}/check`),
      invalidatesTags: ['Copies'],
    }),
    claims: build.query<ClaimEntry[], string>({ query: (garageId) => `garages/${garageId}/claims`, providesTags: ['People'] }),
    audit: build.query<AuditPage, { garageId: string; before?: number }>({
      query: ({ garageId, ...params }) => ({ url: `garages/${garageId}/audit`, params }),
      providesTags: ['People'],
    }),
    changeGarage: build.mutation<unknown, { garageId: string; name?: string; goalsBy?: GoalsBy }>({
      query: ({ garageId, ...body }) => ({ url: `garages/${garageId}`, method: 'PATCH', body }),
      invalidatesTags: ['People', 'Me'],
    }),
    invite: build.mutation<MadeLink, { garageId: string } & InvitationWish>({
      query: ({ garageId, ...body }) => post(`garages/${garageId}/invitations`, body),
      invalidatesTags: ['People'],
    }),
    withdraw: build.mutation<unknown, { garageId: string; id: string }>({
      query: ({ garageId, id }) => ({ url: `garages/${garageId}/invitations/${id}`, method: 'DELETE', body: {} }),
      invalidatesTags: ['People'],
    }),
    changeMembership: build.mutation<unknown, { garageId: string; id: string; role?: Role; until?: string | null }>({
      query: ({ garageId, id, ...body }) => ({ url: `garages/${garageId}/memberships/${id}`, method: 'PATCH', body }),
      invalidatesTags: ['People', 'Me'],
    }),
    endMembership: build.mutation<unknown, { garageId: string; id: string }>({
      query: ({ garageId, id }) => ({ url: `garages/${garageId}/memberships/${id}`, method: 'DELETE', body: {} }),
      invalidatesTags: ['People', 'Me'],
    }),
    changePerson: build.mutation<unknown, { garageId: string; personId: string; state?: 'active' | 'off'; endEverywhere?: true }>({
      query: ({ garageId, personId, ...body }) => ({ url: `garages/${garageId}/people/${personId}`, method: 'PATCH', body }),
      invalidatesTags: ['People'],
    }),
    claim: build.mutation<unknown, { garageId: string; name: string; personId: string }>({
      query: ({ garageId, ...body }) => post(`garages/${garageId}/claims`, body),
      invalidatesTags: ['People'],
    }),
    unclaim: build.mutation<unknown, { garageId: string; id: string }>({
      query: ({ garageId, id }) => ({ url: `garages/${garageId}/claims/${id}`, method: 'DELETE', body: {} }),
      invalidatesTags: ['People'],
    }),
    links: build.query<LinkEntry[], string>({ query: (buildId) => `builds/${buildId}/links`, providesTags: ['People'] }),
    makeLink: build.mutation<MadeLink, { buildId: string; stageId?: string; days: number | null }>({
      query: ({ buildId, ...body }) => post(`builds/${buildId}/links`, body),
      invalidatesTags: ['People'],
    }),
    withdrawLink: build.mutation<unknown, { buildId: string; id: string }>({
      query: ({ buildId, id }) => ({ url: `builds/${buildId}/links/${id}`, method: 'DELETE', body: {} }),
      invalidatesTags: ['People'],
    }),
    shared: build.query<SharedSheet, string>({ query: (token) => ({ url: 'shared', headers: { [LINK_HEADER]: token } }) }),
    seen: build.query<SeenAnswer, string>({ query: (buildId) => `builds/${buildId}/seen`, providesTags: ['Seen'] }),
    markSeen: build.mutation<SeenAnswer, { buildId: string; entryId: number }>({
      query: ({ buildId, entryId }) => ({ url: `builds/${buildId}/seen`, method: 'PUT', body: { entryId } }),
      invalidatesTags: ['Seen'],
    }),
  }),
})
