import { SHARED_LISTS } from '@bold-ballast/contract'
import { ANSWER_READS, type AnswerName, listOfAddress, type RecordList } from '@bold-ballast/core'

/**
 * What answers of the server rest on. `Any`: everything of a build. `List`: one list of its records. `Build`: the build as a whole, after a write that may
 * have touched more than one list. `Garage` and `Shelf`: something of every build.
 */
export const TAG_TYPES = ['Any', 'Build', 'List', 'Garage', 'Shelf', 'Devices'] as const
export interface Tag {
  readonly type: (typeof TAG_TYPES)[number]
  readonly id?: string
}

const listTag = (buildId: string, list: string): Tag => ({ type: 'List', id: `${buildId} ${list}` })

/** Tags of an answer that every write to the build makes stale. */
export const restsOnAll = (buildId: string): Tag[] => [{ type: 'Any', id: buildId }]

/** Tags of an answer that reads only some lists. */
export const restsOn = (buildId: string, answer: AnswerName): Tag[] => [
  { type: 'Build', id: buildId },
  ...ANSWER_READS[answer].map((list: RecordList) => listTag(buildId, list)),
]

/** What a write to one record makes stale: the answers that read its list. */
export const touchesList = (buildId: string, resource: string): Tag[] => {
  const list = listOfAddress(resource)
  return [
    { type: 'Garage' },
    { type: 'Any', id: buildId },
    listTag(buildId, list),
    ...(SHARED_LISTS.some((shared) => shared === list) ? [{ type: 'Shelf' } as const] : []),
  ]
}

/** What a write to more than one list, or one that was refused because others wrote, makes stale: everything of the build. */
export const touchesBuild = (buildId: string): Tag[] => [{ type: 'Garage' }, { type: 'Shelf' }, { type: 'Any', id: buildId }, { type: 'Build', id: buildId }]
