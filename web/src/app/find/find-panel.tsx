import type { GarageEntry } from '@bold-ballast/contract'
import { Command } from 'cmdk'
import { Dialog } from 'radix-ui'
import { useMemo, useState } from 'react'
import { useMatch, useNavigate, useSearchParams } from 'react-router'
import { api } from '../../data/api.ts'
import { open } from '../../data/overlay-slice.ts'
import { prefer } from '../../data/preferences.ts'
import { useAppDispatch, useAppSelector, usePreferences } from '../../data/store.ts'
import { putBackLast, takeBackLast } from '../../data/take-back.ts'
import type { FindInRoom, FindItem } from '../../shared/define-room.ts'
import { exportBuild } from '../../shared/export-build.ts'
import { closeByEscape } from '../../ui/dialog.tsx'
import { ROOMS } from '../rooms.ts'
import { findItems, indexItems, search, withPickedStage } from './find-items.ts'

/** What each room adds, in the order of the side list: every folder of `features` with a `room.ts` may have a `find.ts`. */
const FINDS = import.meta.glob<{ readonly findIn: FindInRoom }>('../../features/*/find.ts', { eager: true })
const IN_ROOMS = ROOMS.flatMap(({ path }) => FINDS[`../../features/${path}/find.ts`]?.findIn ?? [])

const NO_BUILDS: readonly GarageEntry[] = []

/** The builds of the Garage; of more than one page, those whose name holds what is typed. */
function useBuildsNamed(typed: string): readonly GarageEntry[] {
  const { data: first } = api.useGarageQuery(undefined)
  const isMore = first !== undefined && first.total > first.entries.length
  const { data: named } = api.useGarageQuery({ name: typed.trim(), page: 1 }, { skip: !isMore || typed.trim().length < 2 })
  return (isMore ? named?.entries : undefined) ?? first?.entries ?? NO_BUILDS
}

/** One line that finds any screen, build, stage, part, weighing, session, pull or calculation, and does what can be done. */
export function FindPanel({ onClose }: { onClose: () => void }) {
  const [typed, setTyped] = useState('')
  const buildId = useMatch('/builds/:buildId/*')?.params.buildId
  const { data: records } = api.useRecordsQuery(buildId ?? '', { skip: !buildId })
  const garage = useBuildsNamed(typed)
  const { data: calculations = [] } = api.useCalculationsQuery()
  const isClosed = useAppSelector((state) => state.seat.isClosed)
  const index = useMemo(
    () => indexItems(findItems({ buildId, records, inRooms: IN_ROOMS, garage, calculations, isClosed })),
    [buildId, records, garage, calculations, isClosed],
  )
  const found = useMemo(() => search(index, typed), [index, typed])
  const { theme } = usePreferences()
  const navigate = useNavigate()
  const [address] = useSearchParams()
  const dispatch = useAppDispatch()
  const act = ({ to, action }: FindItem) => {
    onClose()
    if (to) void navigate(withPickedStage(to, buildId, address.get('stage')))
    else if (action === 'theme') dispatch(prefer({ theme: theme === 'light' ? 'dark' : 'light' }))
    else if (action === 'undo') void takeBackLast(dispatch)
    else if (action === 'redo') void putBackLast(dispatch)
    // Once the panel is gone from the page.
    else if (action === 'print') setTimeout(() => window.print())
    else if (action === 'export') exportBuild(buildId ?? '')
    else if (action) dispatch(open(action))
  }
  const groups = [...new Set(found.map((item) => item.group))]
  return (
    <Dialog.Root open onOpenChange={(isOpen) => !isOpen && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-black/40" />
        <Dialog.Content
          aria-describedby={undefined}
          data-find
          onKeyDown={closeByEscape(onClose)}
          className="fixed top-[8vh] left-1/2 z-30 flex max-h-[80vh] w-[min(640px,96vw)] -translate-x-1/2 flex-col rounded border border-line bg-sheet"
        >
          <Dialog.Title className="sr-only">Find or do</Dialog.Title>
          <Command shouldFilter={false} loop label="Find or do" className="flex min-h-0 flex-1 flex-col">
            <Command.Input
              value={typed}
              onValueChange={setTyped}
              placeholder="A part, a stage, a pull, a screen, or what to do"
              className="m-3 !border-2 !border-ink !px-3 !py-2 text-[16px]"
            />
            <Command.List data-found-for={typed} className="min-h-[120px] flex-1 overflow-y-auto px-3 pb-3" label="What was found">
              {found.length === 0 && <p className="p-2 text-quiet">Nothing here has every word of that. Try fewer or shorter words.</p>}
              {groups.map((group) => (
                <Command.Group
                  key={group}
                  heading={group}
                  className="[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-xs [&_[cmdk-group-heading]]:font-semibold [&_[cmdk-group-heading]]:text-quiet"
                >
                  {found
                    .filter((item) => item.group === group)
                    .map((item) => (
                      <Command.Item
                        key={item.key}
                        value={item.key}
                        onSelect={() => act(item)}
                        className="flex min-h-8 cursor-pointer items-center justify-between gap-4 rounded px-2 data-[selected=true]:bg-picked"
                      >
                        <span className="truncate">{item.label}</span>
                        <span className="truncate text-xs text-quiet">{item.hint}</span>
                      </Command.Item>
                    ))}
                </Command.Group>
              ))}
            </Command.List>
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}
