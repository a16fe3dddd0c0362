import type { Knex } from 'knex'

/** Whose the names are that stand in old lines of a build's log, as its garage agreed; the lines themselves never change. */
export async function claimedNames(db: Knex, buildId: string): Promise<(by: string) => string> {
  const claims = (await db('nameClaims')
    .join('people', 'people.id', 'nameClaims.personId')
    .join('builds', 'builds.garageId', 'nameClaims.garageId')
    .where('builds.id', buildId)
    .select('nameClaims.name as typed', 'people.name as person')) as { typed: string; person: string }[]
  const persons = new Map(claims.map(({ typed, person }) => [typed, person]))
  return (by) => persons.get(by) ?? by
}
