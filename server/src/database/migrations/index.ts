import type { Knex } from 'knex'
import * as createRecords from './0001-create-records.ts'

export const migrations: Record<string, Knex.Migration> = { '0001-create-records': createRecords }
