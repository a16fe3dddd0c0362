import { useFocusByKey } from '../../../ui/hooks/use-focus-by-key.ts'
import { Plates } from '../../../ui/plates.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import type { AeroTabProps } from '../tab-props.ts'

/** The notch of a device, one step down or up; arrow keys step, Enter keeps. */
function Stepper({
  isFirst,
  device,
  notch,
  pick,
  keep,
}: { device: AeroTabProps['made']['devices'][number]; notch: { readonly id: string; readonly name: string }; readonly isFirst: boolean } & Pick<
  AeroTabProps,
  'pick' | 'keep'
>) {
  const at = device.notches.findIndex(({ id }) => id === notch.id)
  const handle = useFocusByKey<HTMLSpanElement>(isFirst)
  const step = (by: number) => {
    const next = device.notches[Math.min(device.notches.length - 1, Math.max(0, at + by))]
    if (next) pick(device.id, next.id)
  }
  return (
    <span
      ref={handle}
      role="spinbutton"
      tabIndex={0}
      aria-label={`Notch of ${device.name}`}
      aria-valuenow={at + 1}
      aria-valuemin={1}
      aria-valuemax={device.notches.length}
      aria-valuetext={`${notch.name} of ${device.notches.length}`}
      className="inline-flex items-center gap-2 rounded border border-edge px-1.5 text-xs focus-visible:outline-2 focus-visible:outline-pine"
      onKeyDown={(event) => {
        if (event.key === 'ArrowRight' || event.key === 'ArrowUp') step(1)
        else if (event.key === 'ArrowLeft' || event.key === 'ArrowDown') step(-1)
        else if (event.key === 'Enter') keep()
        else return
        event.preventDefault()
      }}
    >
      <button type="button" tabIndex={-1} aria-hidden="true" className="min-h-6 px-1" onClick={() => step(-1)} disabled={at === 0}>
        −
      </button>
      <strong>
        {notch.name} of {device.notches.length}
      </strong>
      <button type="button" tabIndex={-1} aria-hidden="true" className="min-h-6 px-1" onClick={() => step(1)} disabled={at === device.notches.length - 1}>
        +
      </button>
    </span>
  )
}

/** Every device in the car: what it gives and costs at the picked speed, its notch, and how it is known. */
export function DeviceTable({
  totals,
  q,
  pick,
  keep,
  picks,
  openDevice,
  overs,
}: Pick<AeroTabProps, 'totals' | 'q' | 'pick' | 'keep' | 'picks' | 'openDevice'> & { overs: ReadonlySet<string | null> }) {
  const { format } = useQuantities()
  const first = totals.lines.find(({ device }) => device.notches.length > 1)
  const cell = (value: number, sd: number) => (
    <td className="py-1 text-right align-top tabular-nums">
      <span className="font-semibold">{format('force', value, { decimals: 0 }).number}</span>
      <span className="block text-xs text-quiet">± {format('force', sd, { decimals: 0 }).number}</span>
    </td>
  )
  return (
    <ScrollBox label="Devices in the car">
      <table className="w-full">
        <thead>
          <tr className="text-xs text-quiet">
            <th className="text-left font-normal">In the car at this stage</th>
            <th className="text-right font-normal">Down, {format('force', 1).unit}</th>
            <th className="text-right font-normal">Drag, {format('force', 1).unit}</th>
            <th>
              <span className="sr-only">Proof</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {totals.lines.map(({ device, notch, areas }) => {
            const isLooked = picks[device.id] !== undefined && picks[device.id] !== device.picked
            return (
              <tr key={device.id} className={`border-t border-line ${isLooked ? 'bg-picked' : ''}`}>
                <th scope="row" className="py-1 pr-2 text-left align-top font-normal">
                  <button
                    type="button"
                    className={`word-link text-left font-semibold ${overs.has(device.name) ? 'text-danger' : ''}`}
                    onClick={() => openDevice(device.id)}
                  >
                    {device.name}
                  </button>
                  <span className="block text-xs text-quiet">
                    {notch.how ?? (notch.countsAsNothing ? 'counts as nothing' : (notch.proof ?? 'nobody knows'))}
                  </span>
                  {device.notches.length > 1 && <Stepper isFirst={device.id === first?.device.id} device={device} notch={notch} pick={pick} keep={keep} />}
                  {(notch.stallChance ?? 0) > 0.25 && (
                    <span className="block text-xs text-wait">may have let go: chance {Math.round(100 * (notch.stallChance ?? 0))} %</span>
                  )}
                </th>
                {areas ? (
                  <>
                    {cell(q * (areas.frontM2 + areas.rearM2), q * Math.sqrt(Math.max(0, areas.frontVariance + areas.rearVariance + 2 * areas.covariance)))}
                    {cell(q * areas.dragM2, q * Math.sqrt(areas.dragVariance))}
                  </>
                ) : (
                  <td colSpan={2} className="py-1 text-right align-top text-quiet">
                    {notch.countsAsNothing ? '0' : 'unknown'}
                  </td>
                )}
                <td className="py-1.5 pl-2 text-right align-top">{notch.proof && <Plates proof={notch.proof} />}</td>
              </tr>
            )
          })}
        </tbody>
      </table>
    </ScrollBox>
  )
}
