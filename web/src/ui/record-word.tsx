import { Suspense } from 'react'
import { lazyPart } from './lazy-part.ts'

const Word = lazyPart(async () => {
  const { recordWord } = await import('../data/record-words.ts')
  return ({ of }: { of: string }) => recordWord(of)
})

/** What a list or an address holds one of; its words come with the declarations of all records, which no first screen needs. */
export const RecordWord = ({ of }: { of: string }) => (
  <Suspense fallback="a record">
    <Word of={of} />
  </Suspense>
)
