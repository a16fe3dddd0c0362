import type { DynoSetting } from '@bold-ballast/core'
import { useId } from 'react'

interface Props {
  readonly settings: readonly DynoSetting[]
  readonly value: string
  readonly onPick: (id: string) => void
  /** What stands above it; without one `name` says it to those who cannot see where it stands. */
  readonly label?: string
  readonly name?: string
}

/** One of the settings of a session; nothing where there is only one. */
export function SettingSelect({ settings, value, onPick, label, name }: Props) {
  const id = useId()
  if (settings.length < 2) return null
  const select = (
    <select id={id} value={value} onChange={(event) => onPick(event.target.value)} aria-label={name} className={label ? 'w-full' : ''}>
      {settings.map((setting) => (
        <option key={setting.id} value={setting.id}>
          {setting.name}
        </option>
      ))}
    </select>
  )
  if (!label) return select
  return (
    <div className="mb-3">
      <label htmlFor={id} className="mb-1 block font-semibold">
        {label}
      </label>
      {select}
    </div>
  )
}
