import { Suspense } from 'react'
import { Link, Outlet, useMatch } from 'react-router'
import { api } from '../data/api.ts'
import { othersAt } from '../data/crew/here-slice.ts'
import { open } from '../data/overlay-slice.ts'
import { prefer, unitsOf } from '../data/preferences.ts'
import { useAppDispatch, useAppSelector, usePreferences } from '../data/store.ts'
import { SEAT } from '../data/stored.ts'
import { AlsoHere } from '../ui/also-here.tsx'
import { lazyPart } from '../ui/lazy-part.ts'
import { Loading } from '../ui/states.tsx'
import { DISCIPLINE_WORDS, DRIVE_WORDS } from '../ui/words.ts'
import { OutboxBar } from './outbox-bar.tsx'
import { Overlays } from './overlays.tsx'
import { Shortcuts } from './shortcuts.tsx'

const SignInPage = lazyPart(async () => (await import('../features/sign-in/sign-in-page.tsx')).SignInPage)
const SeatWatch = lazyPart(async () => (await import('../features/sign-in/seat-watch.tsx')).SeatWatch)

/** Top bar and whatever is open below it. */
export function Frame() {
  return (
    <div className="flex min-h-screen flex-col">
      <a href="#page" className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-sheet focus:p-3">
        Skip to the page
      </a>
      <TopBar />
      <OutboxBar />
      <Shortcuts />
      <Page />
      <Overlays />
    </div>
  )
}

/** The page that is open; where nobody is signed in who must be, the way to sign in. */
function Page() {
  const { isClosed, isSignedOut } = useAppSelector((state) => state.seat)
  const isAside = [useMatch('/join'), useMatch('/shared')].some((found) => found !== null)
  return (
    <>
      {isClosed && (
        <Suspense fallback={null}>
          <SeatWatch />
        </Suspense>
      )}
      {isSignedOut && !isAside ? (
        <Suspense fallback={<Loading what="who is here" />}>
          <SignInPage />
        </Suspense>
      ) : (
        <Outlet />
      )}
    </>
  )
}

function TopBar() {
  const isClosed = useAppSelector((state) => state.seat.isClosed)
  const preferences = usePreferences()
  const dispatch = useAppDispatch()
  const item = 'rounded border border-[#4d5f5b] px-2.5 min-h-8 text-[13px] text-white whitespace-nowrap'
  const units = unitsOf(preferences)
  const shownUnits = `${units.mass}, ${units.power}, ${units.torque}`
  return (
    <header className="no-print flex min-h-12 flex-wrap items-center gap-x-4 gap-y-1 bg-bar px-4 py-1.5 text-white">
      <Link to="/" className="flex min-h-8 items-center gap-2.5 font-[800] tracking-tight [font-stretch:118%]" aria-label="Bold Ballast, to the Garage">
        <svg width="18" height="16" viewBox="0 0 18 16" aria-hidden="true">
          <rect x="0" y="6" width="3.4" height="6" fill="#fff" />
          <rect x="4.6" y="3" width="3.4" height="10" fill="#fff" />
          <rect x="9.2" y="1" width="3.4" height="14" fill="#f5c518" />
          <rect x="13.8" y="4" width="3.4" height="8" fill="#fff" />
        </svg>
        Bold Ballast
      </Link>
      <OpenBuild />
      <div className="ml-auto flex flex-wrap items-center gap-2">
        <Others />
        <button type="button" className={item} onClick={() => dispatch(open('find'))}>
          Find or do <kbd className="ml-1 font-mono text-[11px] text-[#c3d0cc]">Ctrl K</kbd>
        </button>
        <button type="button" className={item} aria-label={`Units and numbers: ${shownUnits}. Change`} onClick={() => dispatch(open('units'))}>
          {shownUnits}
        </button>
        <button type="button" className={item} onClick={() => dispatch(prefer({ theme: preferences.theme === 'light' ? 'dark' : 'light' }))}>
          {preferences.theme === 'light' ? 'Pit light' : 'Day light'}
        </button>
        {isClosed ? (
          SEAT && (
            <button type="button" className={item} onClick={() => dispatch(open('hands'))}>
              <b>{SEAT.name}</b> <span className="text-xs text-[#c3d0cc]">change hands</span>
            </button>
          )
        ) : (
          <button type="button" className={item} onClick={() => dispatch(open('name'))}>
            {preferences.person || 'Your name'}
          </button>
        )}
      </div>
    </header>
  )
}

/** Who else looks at the open build. */
function Others() {
  const buildId = useMatch('/builds/:buildId/*')?.params.buildId ?? ''
  const people = useAppSelector(othersAt(buildId))
  if (people.length === 0) return null
  return (
    <span className="flex items-center gap-2 text-xs text-[#c3d0cc]">
      also here <AlsoHere people={people} label="Also here:" />
    </span>
  )
}

function OpenBuild() {
  const buildId = useMatch('/builds/:buildId/*')?.params.buildId
  const { data } = api.endpoints.records.useQueryState(buildId ?? '', { skip: !buildId })
  if (!buildId || !data) return null
  const { name, discipline, drivenAxles, className } = data.build
  return (
    <p className="flex flex-wrap items-baseline gap-x-3 text-[13px]">
      <strong className="text-[15px]">{name}</strong>
      <span className="text-[#c3d0cc]">{[DISCIPLINE_WORDS[discipline], DRIVE_WORDS[drivenAxles], className].filter(Boolean).join(', ')}</span>
    </p>
  )
}
