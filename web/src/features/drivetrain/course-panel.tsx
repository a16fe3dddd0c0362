import type { RecordsAnswer } from '@bold-ballast/contract'
import { useState } from 'react'
import { api } from '../../data/api.ts'
import { TakenFromOthers } from '../../shared/taken-from-others.tsx'
import { RecordForm } from '../../ui/forms/record-form.tsx'
import { useRemoval } from '../../ui/forms/removal.tsx'
import { useQuantities } from '../../ui/quantity.ts'
import { courseBody, courseDefaults, courseFieldSpecs } from './course-form.ts'

type Course = RecordsAnswer['courses'][number]

/** The courses of the build: one is written anew or altered here. */
export function CoursePanel({ records, course, onDone }: { records: RecordsAnswer; course: { readonly id: string } | null; onDone: () => void }) {
  const [picked, setPicked] = useState(course?.id ?? '')
  const { units } = useQuantities()
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const { take, notice } = useRemoval(records.build.id, 'courses')
  const buildId = records.build.id
  const edited: Course | null = records.courses.find(({ id }) => id === picked) ?? null
  return (
    <>
      {notice}
      {records.courses.length > 0 && (
        <label className="mb-3 flex items-center gap-2">
          <span>Course</span>
          <select value={picked} onChange={(event) => setPicked(event.target.value)}>
            {records.courses.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
            <option value="">a new one</option>
          </select>
          {edited && (
            <button type="button" className="word-link" onClick={() => void take(edited).then(() => setPicked(''))}>
              Delete it
            </button>
          )}
        </label>
      )}
      {picked === '' && (
        <TakenFromOthers
          list="courses"
          buildId={buildId}
          nameOf={({ name }) => name}
          has={({ name }) => records.courses.some((own) => own.name === name)}
          taken={(id, name) => {
            setPicked(id)
            return `${name} is copied.`
          }}
        />
      )}
      <RecordForm
        key={`${picked} ${edited?.version ?? 0}`}
        draftKey={`${buildId}.course.${picked}`}
        fields={courseFieldSpecs}
        defaults={courseDefaults(edited, units)}
        submitLabel={edited ? 'Save the course' : 'Store the course'}
        toBody={(read, id) => ({ ...courseBody(read), ...(edited ? { version: edited.version } : { id }) })}
        send={(body) =>
          edited ? patch({ buildId, resource: 'courses', id: edited.id, body }).unwrap() : create({ buildId, resource: 'courses', body }).unwrap()
        }
        onDone={onDone}
      />
    </>
  )
}
