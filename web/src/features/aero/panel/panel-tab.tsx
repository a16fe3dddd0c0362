import type { RecordsAnswer } from '@bold-ballast/contract'
import type { Panel, PanelState, SheetState } from '@bold-ballast/core'
import { useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { Panel as SidePanel } from '../../../ui/dialog.tsx'
import type { FormValues } from '../../../ui/forms/form-reader.ts'
import { RecordForm } from '../../../ui/forms/record-form.tsx'
import { useRemoval } from '../../../ui/forms/removal.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { Alert, Caution } from '../../../ui/states.tsx'
import type { AeroTabProps } from '../tab-props.ts'
import { KeptPanels } from './kept-panels.tsx'
import { OwnSheets } from './own-sheets.tsx'
import { panelBody, panelDefaults, panelFieldSpecs } from './panel-form.ts'
import { type FoundSheet, SheetChooser } from './sheet-chooser.tsx'
import { sheetBody, sheetDefaults, sheetFieldSpecs } from './sheet-form.ts'

/** Kinds that are cut from sheets. */
const CUT_FROM_SHEETS: readonly string[] = ['splitter', 'airDam', 'floor', 'sideSkirt', 'diffuser', 'spoiler', 'other']

interface Editing {
  readonly records: RecordsAnswer
  readonly onDone: () => void
}

function PanelForm({
  records,
  panel,
  begin,
  deviceId,
  sheets,
  onDone,
}: Editing & { panel: (Panel & { version: number }) | null; begin: FormValues; deviceId: string; sheets: readonly SheetState[] }) {
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const buildId = records.build.id
  const { take, notice } = useRemoval(buildId, 'panels')
  const resource = 'panels' as const
  return (
    <>
      {notice}
      {panel && (
        <p className="mb-3">
          <button type="button" className="word-link" onClick={() => void take(panel).then(onDone)}>
            Delete it
          </button>
        </p>
      )}
      <RecordForm
        key={`${panel?.id ?? deviceId} ${panel?.version ?? 0}`}
        draftKey={`${buildId}.panel.${panel?.id ?? `new.${deviceId}`}`}
        fields={panelFieldSpecs(sheets.map(({ record }) => record))}
        defaults={begin}
        submitLabel="Store the panel"
        toBody={(read, id) => ({ ...panelBody(read), ...(panel ? { version: panel.version } : { id, deviceId }) })}
        send={(body) => (panel ? patch({ buildId, resource, id: panel.id, body }).unwrap() : create({ buildId, resource, body }).unwrap())}
        onDone={onDone}
      />
    </>
  )
}

function SheetForm({ records, id, onDone }: Editing & { id: string }) {
  const { units } = useQuantities()
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const buildId = records.build.id
  const { take, notice } = useRemoval(buildId, 'panel-materials')
  const resource = 'panel-materials' as const
  const sheet = records.panelMaterials.find((each) => each.id === id) ?? null
  return (
    <>
      {notice}
      {sheet && (
        <p className="mb-3">
          <button type="button" className="word-link" onClick={() => void take(sheet).then(onDone)}>
            Delete it
          </button>
        </p>
      )}
      <RecordForm
        key={`${id} ${sheet?.version ?? 0}`}
        draftKey={`${buildId}.sheet.${id}`}
        fields={sheetFieldSpecs}
        defaults={sheetDefaults(sheet, units)}
        submitLabel="Store the sheet"
        toBody={(read, newId) => ({ ...sheetBody(read), ...(sheet ? { version: sheet.version } : { id: newId }) })}
        send={(body) => (sheet ? patch({ buildId, resource, id: sheet.id, body }).unwrap() : create({ buildId, resource, body }).unwrap())}
        onDone={onDone}
      />
    </>
  )
}

/** Makes a panel the built one of its device; the one before is given up with it. */
function useChoose(records: RecordsAnswer, panels: readonly PanelState[]) {
  const [batch] = api.useBatchMutation()
  const [failure, setFailure] = useState<string | null>(null)
  const versionOf = (id: string) => records.panels.find((each) => each.id === id)?.version ?? 1
  const choose = async (id: string) => {
    const deviceId = panels.find(({ panel }) => panel.id === id)?.panel.deviceId
    const before = panels.filter(({ panel }) => panel.deviceId === deviceId && panel.isChosen)
    const write = (panelId: string, isChosen: boolean) => ({
      kind: 'update' as const,
      resource: 'panels' as const,
      id: panelId,
      body: { version: versionOf(panelId), isChosen },
    })
    const writes = [...before.map(({ panel }) => write(panel.id, false)), write(id, true)]
    const answer = await batch({ buildId: records.build.id, batchId: crypto.randomUUID(), writes })
    setFailure(answer.error ? readFailure(answer.error).message : null)
  }
  return { choose, failure }
}

/** Sheets that a splitter or floor can be cut from; what was kept of them, and which is built. */
export function PanelTab({ records, room, made }: AeroTabProps) {
  const { units } = useQuantities()
  const [edited, setEdited] = useState<string | null>(null)
  const [sheetId, setSheetId] = useState<string | null>(null)
  const [found, setFound] = useState<FoundSheet | null>(null)
  const { choose, failure } = useChoose(records, made.panels)
  const devices = made.devices.filter(({ kind }) => CUT_FROM_SHEETS.includes(kind))
  const panel = records.panels.find(({ id }) => id === edited)
  const device = devices.find(({ id }) => id === (panel?.deviceId ?? found?.deviceId))
  const close = () => {
    setEdited(null)
    setFound(null)
  }
  return (
    <>
      <Caution className="mb-3">
        Dust and resin harm lungs and skin. Standing on a panel, and anything that may fly off, is for qualified people and the event’s rules.
      </Caution>
      {failure && <Alert className="mb-2">{failure}</Alert>}
      <KeptPanels records={records} panels={made.panels} edit={setEdited} choose={(id) => void choose(id)} />
      <SheetChooser room={room} made={made} devices={devices} keep={setFound} />
      <OwnSheets sheets={room.sheets} edit={setSheetId} />
      {(panel ?? found) && (
        <SidePanel title={panel ? `A panel of ${device?.name ?? 'a device'}` : `Keep it for ${device?.name ?? 'a device'}`} onClose={close}>
          <PanelForm
            records={records}
            panel={panel ?? null}
            begin={panelDefaults(panel ?? (found as FoundSheet).panel, units)}
            deviceId={panel?.deviceId ?? (found as FoundSheet).deviceId}
            sheets={room.sheets}
            onDone={close}
          />
        </SidePanel>
      )}
      {sheetId !== null && (
        <SidePanel title={sheetId === 'new' ? 'A sheet of your own' : 'Your own sheet'} onClose={() => setSheetId(null)}>
          <SheetForm records={records} id={sheetId} onDone={() => setSheetId(null)} />
        </SidePanel>
      )}
    </>
  )
}
