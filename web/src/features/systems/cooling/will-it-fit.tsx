import type { RecordsAnswer } from '@bold-ballast/contract'
import { fitsIn } from '@bold-ballast/core'
import { useMemo, useState } from 'react'
import { api } from '../../../data/api.ts'
import { Panel } from '../../../ui/dialog.tsx'
import { RecordForm } from '../../../ui/forms/record-form.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { spacesForm } from './cooling-form.ts'

const ALONG = { lengthM: 'length', widthM: 'width', heightM: 'height' } as const

/** Parts with outer sizes against the named spaces of the car, before anything is ordered. */
export function WillItFit({ records }: { records: RecordsAnswer }) {
  const { text, units } = useQuantities()
  const [isOpen, setIsOpen] = useState(false)
  const [patch] = api.usePatchBuildMutation()
  const form = useMemo(spacesForm, [])
  const { build, parts } = records
  const sized = parts.flatMap((part) => (part.outer ? [{ ...part, outer: part.outer }] : []))
  return (
    <section>
      <h2 className="mb-1">Will it fit</h2>
      {build.spaces.length === 0 || sized.length === 0 ? (
        <p className="text-quiet">
          {build.spaces.length === 0 ? 'Name the spaces of the car with their sizes' : 'Give parts their outer sizes under Parts'}: a core that is larger than
          its space is told before it is ordered.
        </p>
      ) : (
        <ScrollBox label="Parts against spaces">
          <table className="border-collapse">
            <thead>
              <tr>
                <th className="text-left">Part</th>
                {build.spaces.map(({ name }) => (
                  <th key={name} className="pl-4 text-left">
                    {name}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {sized.map(({ id, name, outer }) => (
                <tr key={id} className="border-t border-line align-baseline">
                  <td className="py-1">{name}</td>
                  {build.spaces.map((space) => {
                    const { fits, leastRoomM, along } = fitsIn(outer, space)
                    return (
                      <td key={space.name} className={`py-1 pl-4 ${fits ? '' : 'text-danger'}`}>
                        <b>
                          {fits ? `fits, ${text('length', leastRoomM, { decimals: 0 })} to spare` : `${text('length', -leastRoomM, { decimals: 0 })} too large`}
                        </b>
                        <span className="block text-[12.5px] text-quiet">
                          its {ALONG[along[0] as keyof typeof ALONG]} along the car, {ALONG[along[2] as keyof typeof ALONG]} up
                        </span>
                      </td>
                    )
                  })}
                </tr>
              ))}
            </tbody>
          </table>
        </ScrollBox>
      )}
      <button type="button" className="word-link" onClick={() => setIsOpen(true)}>
        {build.spaces.length === 0 ? 'Name the spaces' : 'Alter the spaces'}
      </button>
      {isOpen && (
        <Panel title="Spaces of the car" onClose={() => setIsOpen(false)}>
          <RecordForm
            key={build.version}
            draftKey={`${build.id}.spaces`}
            fields={form.specs()}
            defaults={form.defaults(build, units)}
            submitLabel="Save the spaces"
            toBody={(read) => ({ version: build.version, ...form.body(read) })}
            send={(body) => patch({ buildId: build.id, body }).unwrap()}
            onDone={() => setIsOpen(false)}
          />
        </Panel>
      )}
    </section>
  )
}
