import type { RecordsAnswer } from '@bold-ballast/contract'
import type { Board } from '@bold-ballast/core'
import type { ReactNode } from 'react'

/** What each job of the crew is given. */
export interface CrewTabProps {
  readonly buildId: string
  readonly board: Board
  readonly records: RecordsAnswer
  readonly position: number
  /** The way to the other jobs, which stands under the title of each. */
  readonly tabs: ReactNode
}
