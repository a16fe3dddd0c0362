import type { RecordsAnswer } from '@bold-ballast/contract'
import { lessonKind } from '@bold-ballast/core'
import { KindPanel } from '../../../shared/kind-panel.tsx'
import { field, makeForm } from '../../../ui/forms/form-fields.ts'
import { useAddress } from '../../../ui/hooks/use-address.ts'

const lessonForm = makeForm(lessonKind.fields, [
  field('about', 'text', { label: 'Told when these words are typed', hint: 'A kind of part or job, such as final drive.' }),
  field('text', 'text', { label: 'The lesson, in one line', isWide: true }),
  field('isShared', 'checkbox', { label: 'Told in every build of the garage' }),
])

/** What was learned the hard way: shown under the line when such a job is typed. */
export function Lessons({ records }: { records: RecordsAnswer }) {
  const { get, set } = useAddress()
  const picked = records.lessons.find(({ id }) => id === get('lesson')) ?? null
  return (
    <details className="no-print" open={get('do') === 'lesson' || picked !== null}>
      <summary className="cursor-pointer font-semibold">
        {records.lessons.length === 0 ? 'Lessons' : `${records.lessons.length} ${records.lessons.length === 1 ? 'lesson' : 'lessons'}`}
      </summary>
      <ul>
        {records.lessons.map(({ id, about, text }) => (
          <li key={id} className="border-b border-line py-1">
            <button type="button" className="word-link font-semibold" onClick={() => set({ lesson: id })}>
              {about}
            </button>{' '}
            {text}
          </li>
        ))}
      </ul>
      <button type="button" className="word-link" onClick={() => set({ do: 'lesson' })}>
        A new lesson
      </button>
      {(picked || get('do') === 'lesson') && (
        <KindPanel buildId={records.build.id} resource="lessons" word="lesson" form={lessonForm} record={picked} onClose={() => set({ do: '', lesson: '' })} />
      )}
    </details>
  )
}
