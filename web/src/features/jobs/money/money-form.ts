import { buildFields } from '@bold-ballast/core'
import { field, makeForm, type OwnKind } from '../../../ui/forms/form-fields.ts'

const SIGNS = /[€$£¥₤₩]|\b[A-Z]{3}\b|\bkr\b/

/** A sum in the build's own money; one with another sign is refused. */
const ownMoney = (path: 'budget' | 'hourWorth', label: string): OwnKind => ({
  read: (read, name) => {
    const raw = read.raw(name)
    if (raw === '') return null
    const [sign] = SIGNS.exec(raw) ?? []
    const currency = read.raw('money-currency')
    if (sign && sign !== currency)
      read.refuse(name, `${label} is in ${sign}, and this build is counted in ${currency || 'nothing yet'}. Type it in that, or alter the money.`)
    const plain = raw.replace(SIGNS, '').trim()
    return read.typedQuantity(name, plain, 'money', label)?.value ?? null
  },
  begin: (record) => {
    const value = (record as { money?: Record<string, number | null> | null } | null)?.money?.[path]
    return value === null || value === undefined ? '' : String(value)
  },
})

/** What the build is counted in. */
export const moneyForm = makeForm(
  buildFields,
  [
    field('money.currency', 'text', { label: 'Money it is counted in', hint: 'A sign or three letters, such as € or GBP.' }),
    field('money.budget', ownMoney('budget', 'The budget'), { label: 'Budget for the whole build' }),
    field('money.hourWorth', ownMoney('hourWorth', 'An hour'), {
      label: 'What an hour of work is worth',
      hint: 'Empty: hours cost nothing. It counts where a change is priced.',
    }),
  ],
  [{ path: 'money', unless: 'money.currency' }],
)
