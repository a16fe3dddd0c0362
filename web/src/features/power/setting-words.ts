import type { DynoSetting, SettingChange } from '@bold-ballast/core'
import type { useQuantities } from '../../ui/quantity.ts'

type Text = ReturnType<typeof useQuantities>['text']
const ABOVE = { none: '', gauge: 'above the air', absolute: 'above nothing' } as const

/** Boost with what it is above; empty without. */
export const boostWords = ({ boostControl, boostPa }: DynoSetting, text: Text): string =>
  boostControl === 'none' ? '' : boostPa === null ? `boost ${ABOVE[boostControl]}` : `${text('pressure', boostPa, { decimals: 0 })} ${ABOVE[boostControl]}`

/** What a setting ran on, in one line. */
export const settingWords = (setting: DynoSetting, text: Text): string =>
  [
    boostWords(setting, text),
    setting.nitrousShot ? `nitrous, shot of ${setting.nitrousShot.typed ?? text('power', setting.nitrousShot.powerW, { decimals: 0 })}` : null,
    setting.fuel,
    setting.ethanolShare === null ? null : `${text('share', setting.ethanolShare, { decimals: 0 })} ethanol`,
    setting.wasSet,
  ]
    .filter(Boolean)
    .join(', ')

/** One change from a setting to the next. */
export const changeWords = (change: SettingChange): string => (change.kind === 'set' ? change.text : change.kind)
