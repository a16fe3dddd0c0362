import type { RecordsAnswer } from '@bold-ballast/contract'
import { api } from '../../data/api.ts'
import { RecordForm } from '../../ui/forms/record-form.tsx'
import { useQuantities } from '../../ui/quantity.ts'
import { settingBody, settingDefaults, settingFieldSpecs } from './settings-form.ts'

/** What is chosen for a stage and not bolted to the car, and what is known of the car beside its parts. */
export function SettingsPanel({ records, stageId, onDone }: { records: RecordsAnswer; stageId: string; onDone: () => void }) {
  const { units } = useQuantities()
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const buildId = records.build.id
  const setting = records.driveSettings.find((each) => each.stageId === stageId) ?? null
  const resource = 'drive-settings' as const
  return (
    <RecordForm
      key={`${stageId} ${setting?.version ?? 0}`}
      draftKey={`${buildId}.${stageId}.driveSetting`}
      fields={settingFieldSpecs}
      defaults={settingDefaults(setting, units)}
      submitLabel="Store the settings"
      toBody={(read, id) => ({ ...settingBody(read), ...(setting ? { version: setting.version } : { id, stageId }) })}
      send={(body) => (setting ? patch({ buildId, resource, id: setting.id, body }).unwrap() : create({ buildId, resource, body }).unwrap())}
      onDone={onDone}
    />
  )
}
