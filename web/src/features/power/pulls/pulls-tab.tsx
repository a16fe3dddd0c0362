import { Figure } from '../../../ui/figure.tsx'
import type { PowerTabProps } from '../tab-props.ts'
import { PullCurves } from './pull-curves.tsx'
import { SessionList } from './session-list.tsx'

/** The curves of the stage's pulls, what it makes, and the sessions they were run in. */
export function PullsTab({ records, room, position, stageId, startImport, edit }: PowerTabProps) {
  const power = room.stages[position]
  return (
    <div className="grid gap-8 min-[1180px]:grid-cols-[1fr_360px]">
      <PullCurves records={records} room={room} position={position} />
      <aside className="grid content-start gap-6 min-[1180px]:border-l min-[1180px]:border-line min-[1180px]:pl-5">
        {power && (
          <section>
            <h2>
              Stage {position} {records.stages[position]?.name}
            </h2>
            <p className="text-[32px] leading-tight font-bold">
              <Figure kind="power" value={power.value} sd={power.sd} proof={power.proof as 'measured'} showSpread working={{ of: 'power', id: stageId }} />
            </p>
          </section>
        )}
        <SessionList records={records} room={room} position={position} startImport={startImport} edit={edit} />
      </aside>
    </div>
  )
}
