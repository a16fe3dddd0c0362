import type { SeatEntry } from '@bold-ballast/contract'
import { useState } from 'react'
import { crewApi } from '../../data/crew/crew-api.ts'
import { sitDown } from '../../data/stored.ts'
import { SecretForm } from '../../ui/forms/secret-form.tsx'
import { PersonTag } from '../../ui/person-tag.tsx'

/** Those who are signed in on this browser: one is picked, his code or password typed, and the page is his. */
export function TakeOver({ seats }: { seats: readonly SeatEntry[] }) {
  const [pickedId, setPicked] = useState(seats[0]?.personId ?? '')
  const [handOver] = crewApi.useHandOverMutation()
  const picked = seats.find(({ personId }) => personId === pickedId) ?? seats[0]
  if (!picked) return <p className="text-quiet">Nobody else is signed in on this browser.</p>
  const { personId, name, hasCode } = picked
  const send = async ({ secret = '' }: Readonly<Record<string, string>>) => {
    const { person } = await handOver({ personId, ...(hasCode && /^\d{4,8}$/.test(secret) ? { code: secret } : { password: secret }) }).unwrap()
    if (person) sitDown({ personId: person.id, name: person.name })
  }
  return (
    <div className="grid gap-4">
      {seats.length > 1 && (
        <div className="flex flex-wrap gap-2">
          {seats.map((seat) => (
            <button
              key={seat.personId}
              type="button"
              aria-pressed={seat.personId === personId}
              onClick={() => setPicked(seat.personId)}
              className={`button inline-flex items-center gap-2 ${seat.personId === personId ? 'bg-wash font-semibold' : ''}`}
            >
              <PersonTag name={seat.name} /> {seat.name}
            </button>
          ))}
        </div>
      )}
      <SecretForm
        key={personId}
        fields={[{ name: 'secret', label: hasCode ? `${name}’s code or password` : `${name}’s password`, type: 'code' }]}
        submit={`Hand over to ${name}`}
        send={send}
      />
    </div>
  )
}
