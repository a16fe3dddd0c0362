import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { Empty } from '../../../ui/states.tsx'
import type { SystemsTabProps } from '../tab-props.ts'
import { alarmsTable } from '../tables.ts'

/** Limits of readings as one table for the dash. */
export function AlarmsTab({ records, made }: SystemsTabProps) {
  const { text } = useQuantities()
  const { get } = useAddress()
  const base = `/builds/${records.build.id}/checks?tab=ready&stage=${get('stage')}`
  if (made.alarms.length === 0)
    return (
      <Empty
        title="No reading has limits yet"
        why="Type them under Checks: reading coolant temperature warn 100 stop 105; reading oil pressure warn under 4 stop under 3.2 bar."
      >
        <a className="button" href={`${base}&do=check`}>
          Type a reading
        </a>
      </Empty>
    )
  return (
    <div className="grid max-w-5xl grid-cols-[minmax(0,1fr)] content-start gap-3">
      <ScrollBox label="Limits for the dash">
        <table className="w-full border-collapse">
          <thead>
            <tr>
              <th className="text-left">Reading</th>
              <th className="pl-3 text-left">Channel</th>
              <th className="pl-3 text-right">Warns</th>
              <th className="pl-3 text-right">Stops</th>
              <th className="pl-3 text-right">Lasting</th>
              <th className="pl-3 text-right">Last read</th>
              <th className="pl-3 text-left">In good runs</th>
              <th className="pl-3 text-left">Sensors</th>
            </tr>
          </thead>
          <tbody>
            {made.alarms.map(({ check, runs, cried, last, wantsSecond }) => {
              const { quantity, warnHigh, warnLow, stopHigh, stopLow, forS, aboveMps, role, secondSensor } = check.reading
              const limits = (high: number | null, low: number | null) =>
                [low === null ? '' : `under ${text(quantity, low)}`, high === null ? '' : `over ${text(quantity, high)}`]
                  .filter((words) => words !== '')
                  .join(', ') || '–'
              return (
                <tr key={check.id} className="border-t border-line align-baseline">
                  <td className="py-1.5">
                    <a className="word-link font-semibold" href={`${base}&alter=${check.id}`}>
                      {check.name}
                    </a>
                    {aboveMps === null ? null : <span className="text-quiet">, over {text('speed', aboveMps)}</span>}
                  </td>
                  <td className="py-1.5 pl-3 text-quiet">{role ?? 'none'}</td>
                  <td className="py-1.5 pl-3 text-right whitespace-nowrap tabular-nums">{limits(warnHigh, warnLow)}</td>
                  <td className="py-1.5 pl-3 text-right whitespace-nowrap tabular-nums">{limits(stopHigh, stopLow)}</td>
                  <td className="py-1.5 pl-3 text-right whitespace-nowrap tabular-nums">{forS} s</td>
                  <td className={`py-1.5 pl-3 text-right whitespace-nowrap tabular-nums ${last?.isOver ? 'font-bold text-danger' : ''}`}>
                    {last ? text(quantity, last.value) : '–'}
                  </td>
                  <td className="py-1.5 pl-3">
                    {runs === 0 ? (
                      <span className="text-quiet">no log has it</span>
                    ) : cried === 0 ? (
                      `quiet in ${runs}`
                    ) : (
                      <b className="text-wait">
                        would have cried in {cried} of {runs}
                      </b>
                    )}
                  </td>
                  <td className="py-1.5 pl-3">{secondSensor ? 'two' : wantsSecond ? <span className="text-wait">one: fails unseen</span> : 'one'}</td>
                </tr>
              )
            })}
          </tbody>
        </table>
      </ScrollBox>
      <p className="text-[13px] text-quiet">
        <CsvButton name={`${records.build.name} alarms`} table={() => alarmsTable(made.alarms)} /> Good runs are those not set aside; a log’s extremes tell
        whether a limit was passed, not for how long.
      </p>
    </div>
  )
}
