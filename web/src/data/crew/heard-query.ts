import { CLOSED_HEADER, ROLE_HEADER, type Role } from '@bold-ballast/contract'
import type { BaseQueryFn, FetchArgs, FetchBaseQueryError, FetchBaseQueryMeta } from '@reduxjs/toolkit/query/react'
import { SEAT, sitDown } from '../stored.ts'
import { closedSeen, roleSeen, signedOutSeen } from './seat-slice.ts'

type Query = BaseQueryFn<string | FetchArgs, unknown, FetchBaseQueryError, object, FetchBaseQueryMeta>

/** Addresses that answer "not right" to whoever is just signing in. */
const SIGNS_IN = /^(sign-in|hand-over|join)$/

/** Asks, and hears from the answer whether people sign in here, whether somebody has, and as what. */
export const heardQuery =
  (ask: Query): Query =>
  async (args, tools, more) => {
    const answer = await ask(args, tools, more)
    const response = answer.meta?.response
    const url = typeof args === 'string' ? args : args.url
    if (response?.headers.get(CLOSED_HEADER)) tools.dispatch(closedSeen())
    // Sign-in was ended at the terminal: whoever was at this browser is anyone again.
    else if (response?.ok && SEAT !== null) sitDown(null)
    const buildId = /^builds\/([0-9a-f-]{36})/.exec(url)?.[1]
    const role = response?.headers.get(ROLE_HEADER)
    if (buildId && role) tools.dispatch(roleSeen({ buildId, role: role as Role }))
    if (response?.status === 401 && !SIGNS_IN.test(url)) tools.dispatch(signedOutSeen())
    return answer
  }
