import type { BrokenRecord } from '@bold-ballast/core'
import { Suspense } from 'react'
import { NavLink, Outlet, useMatch } from 'react-router'
import { othersAt } from '../data/crew/here-slice.ts'
import { useAppSelector } from '../data/store.ts'
import { useBuild } from '../data/use-build.ts'
import { useFresh } from '../data/use-fresh.ts'
import { useLater } from '../data/use-later.ts'
import { AlsoHere } from '../ui/also-here.tsx'
import { lazyPart } from '../ui/lazy-part.ts'
import { RecordWord } from '../ui/record-word.tsx'
import { Alert, LoadError, Loading } from '../ui/states.tsx'
import { FORMULAS_ROOM, ROOMS } from './rooms.ts'
import { StageRail } from './stage-rail.tsx'
import { usePrintFoot } from './use-print-foot.ts'

const WorkingSheet = lazyPart(async () => (await import('../features/working/working-sheet.tsx')).WorkingSheet)

/** Stage rail, side list and the room of a build. */
export function BuildFrame() {
  const build = useBuild()
  useLater(build.buildId)
  useFresh(build.buildId)
  usePrintFoot()
  const others = useAppSelector(othersAt(build.buildId))
  const isBoard = useMatch('/builds/:buildId/board') !== null
  if (build.error && !build.board) return <LoadError error={build.error} retry={build.retry} />
  if (!build.board) return <Loading what="the build" />
  const { search } = build
  const stageOnly = search.get('stage') ? `?stage=${search.get('stage')}` : ''
  return (
    <>
      <StageRail stages={build.stages} position={build.position} pick={build.pick} />
      <div className="flex flex-1 flex-col min-[900px]:flex-row">
        <nav
          aria-label="Rooms of the build"
          className="no-print flex flex-wrap gap-1 border-line bg-page p-3 min-[900px]:w-[168px] min-[900px]:shrink-0 min-[900px]:flex-col min-[900px]:border-r"
        >
          {ROOMS.map((room, i) => (
            <span key={room.path} className="contents">
              {room.heading && room.heading !== ROOMS[i - 1]?.heading && (
                <span className="hidden px-2.5 pt-4 pb-1 text-xs text-quiet min-[900px]:block">{room.heading}</span>
              )}
              <NavLink
                to={`${room.path}${stageOnly}`}
                className={({ isActive }) =>
                  `flex min-h-8 items-center justify-between gap-3 rounded px-2.5 font-semibold ${isActive ? 'bg-bar text-white' : 'text-quiet hover:text-ink'}`
                }
              >
                <span className="flex items-center gap-2">
                  {room.name}
                  <AlsoHere people={others.filter((other) => other.room === room.path)} label="Here:" />
                </span>
                <kbd className="hidden font-mono text-[11px] font-normal min-[900px]:inline">g {room.key}</kbd>
              </NavLink>
            </span>
          ))}
          <NavLink
            to={FORMULAS_ROOM.path}
            className="flex min-h-8 items-center justify-between gap-3 rounded px-2.5 font-semibold text-quiet hover:text-ink min-[900px]:mt-6"
          >
            {FORMULAS_ROOM.name}
            <kbd className="hidden font-mono text-[11px] font-normal min-[900px]:inline">g {FORMULAS_ROOM.key}</kbd>
          </NavLink>
        </nav>
        <main id="page" tabIndex={-1} className="min-w-0 flex-1 px-5 pt-4 pb-10 outline-none print:p-0">
          {build.records && <BrokenRecords broken={build.records.broken} />}
          {build.records || isBoard ? <Outlet /> : <Loading what="the records" />}
        </main>
      </div>
      {search.get('working') && (
        <Suspense fallback={null}>
          <WorkingSheet />
        </Suspense>
      )}
    </>
  )
}

/** Records that cannot be used, named wherever their build is shown: no sum contains them. */
function BrokenRecords({ broken }: { broken: readonly BrokenRecord[] }) {
  if (broken.length === 0) return null
  return (
    <Alert className="mb-4">
      <p className="font-semibold">
        {broken.length === 1 ? 'One record is broken' : `${broken.length} records are broken`} and left out of every sum. Take the last change to it back in the
        log, or delete it.
      </p>
      <ul>
        {broken.slice(0, 5).map((record) => (
          <li key={record.id}>
            <RecordWord of={record.list} /> “{record.name}”: {record.reason}
          </li>
        ))}
      </ul>
    </Alert>
  )
}
