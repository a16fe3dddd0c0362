import type { RecordsAnswer } from '@bold-ballast/contract'
import type { DriveRoom, DriveRoomStage } from '@bold-ballast/core'
import { SURFACES } from '@bold-ballast/core'
import { Link } from 'react-router'
import { api } from '../../data/api.ts'
import { useBuild } from '../../data/use-build.ts'
import { type RoomProps, useRoomOpening } from '../../shared/room-opening.tsx'
import { Panel } from '../../ui/dialog.tsx'
import { useAsked } from '../../ui/hooks/use-asked.ts'
import { useQuantities } from '../../ui/quantity.ts'
import { OpenTab, Tabs, useTab } from '../../ui/tabs.tsx'
import { CoursePanel } from './course-panel.tsx'
import { DriveLine } from './drive-line.tsx'
import { driveNews } from './news.ts'
import { SettingsPanel } from './settings-panel.tsx'
import { TABS } from './tabs.ts'
import { useDrive } from './use-drive.ts'

/** Gears, grip, slides and what the driveline carries, at the picked stage. */
export function DrivetrainPage() {
  const { buildId } = useBuild()
  const opening = useRoomOpening<DriveRoomStage, DriveRoom>(api.useDrivetrainQuery(buildId), 'the drivetrain')
  return 'instead' in opening ? opening.instead : <Room {...opening.props} />
}

function Room({ records, room, made, position, stageId }: RoomProps<DriveRoom, DriveRoomStage>) {
  const { text } = useQuantities()
  const isDrift = records.build.discipline === 'drift'
  // A drift car is looked at sliding.
  const tabs = isDrift ? [...TABS.filter(({ path }) => path === 'slide'), ...TABS.filter(({ path }) => path !== 'slide')] : TABS
  const [tab, open] = useTab(tabs)
  const { address, car, finalRatio, setFinal, surface, course } = useDrive(records, made)
  const [isNaming, setIsNaming] = useAsked('course')
  const [isSetting, setIsSetting] = useAsked('settings')
  return (
    <>
      <title>{`${records.build.name}: Drivetrain · Bold Ballast`}</title>
      <div className="mb-3 flex flex-wrap items-baseline gap-x-4 gap-y-2">
        <h1>{driveNews(made, course, text)}</h1>
      </div>
      <div className="flex flex-wrap items-start gap-x-4">
        <Tabs tabs={tabs} tab={tab} open={open} />
        <span className="no-print mb-3 ml-auto flex flex-wrap items-center gap-2">
          {records.courses.length > 0 && (
            <label className="flex items-center gap-2">
              <span className="text-quiet">Course</span>
              <select value={course?.id ?? ''} onChange={(event) => address.set({ course: event.target.value })}>
                {records.courses.map(({ id, name }) => (
                  <option key={id} value={id}>
                    {name}
                  </option>
                ))}
              </select>
            </label>
          )}
          <button type="button" className="button" onClick={() => setIsNaming(true)}>
            {records.courses.length > 0 ? 'Courses' : 'Name a course'}
          </button>
          <button type="button" className="button" onClick={() => setIsSetting(true)}>
            Settings
          </button>
          <select aria-label="Surface" value={surface} onChange={(event) => address.set({ surface: event.target.value === 'dry' ? '' : event.target.value })}>
            {SURFACES.map((each) => (
              <option key={each} value={each}>
                {each}
              </option>
            ))}
          </select>
        </span>
      </div>
      {made.warnings.map((warning) => (
        <p key={warning} className="mb-2 border-l-4 border-wait pl-3">
          {warning}
        </p>
      ))}
      {made.missing.length > 0 ? (
        <Missing made={made} records={records} position={position} stageId={stageId} />
      ) : (
        <OpenTab tab={tab} props={{ records, room, position, stageId, made, car, finalRatio, setFinal, surface, course }} />
      )}
      {isSetting && (
        <Panel title={`Settings of stage ${position}`} onClose={() => setIsSetting(false)}>
          <SettingsPanel records={records} stageId={stageId} onDone={() => setIsSetting(false)} />
        </Panel>
      )}
      {isNaming && (
        <Panel title="Courses: corners and the straights between them" onClose={() => setIsNaming(false)}>
          <CoursePanel records={records} course={course} onDone={() => setIsNaming(false)} />
        </Panel>
      )}
    </>
  )
}

const ROOM_WORDS = { weight: 'Weight', power: 'Power', drivetrain: 'here', plan: 'Plan' } as const

/** What is missing and where it is typed; the line that makes a driveline stands here already. */
function Missing({ made, records, position, stageId }: { made: DriveRoomStage; records: RecordsAnswer; position: number; stageId: string }) {
  return (
    <div className="max-w-3xl">
      <h2 className="mb-1">Type the gears in one line; the ladder stands here</h2>
      <DriveLine records={records} made={made} position={position} stageId={stageId} />
      <h3 className="mt-4 font-semibold">Still missing at this stage</h3>
      <ul className="mt-1 list-disc pl-5">
        {made.missing.map(({ what, room, more }) => (
          <li key={what}>
            {what}
            {room !== 'drivetrain' && (
              <>
                {': '}
                <Link className="word-link" to={`/builds/${records.build.id}/${room}?stage=${stageId}${more}`}>
                  {ROOM_WORDS[room]}
                </Link>
              </>
            )}
          </li>
        ))}
      </ul>
    </div>
  )
}
