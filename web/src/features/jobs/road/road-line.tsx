import type { BatchWrite, RecordsAnswer } from '@bold-ballast/contract'
import { attempt, CalculationError, type JobsRoom, openTasks, parseNumber, type ReadJobLine, readJobLine, workedHours } from '@bold-ballast/core'
import { type RefObject, useLayoutEffect, useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { readStored, writeStored } from '../../../data/stored.ts'
import { useShelf } from '../../../shared/use-shelf.ts'
import { OneLine } from '../../../ui/forms/one-line.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { letterOf } from '../letters.ts'
import { hoursText, lengthText, namesOf, shortDay } from '../road-words.ts'
import type { StoredTask } from '../tab-props.ts'
import { beganWrites, doneWrites, hoursWrites, lineWrites } from './road-writes.ts'

export type LineMode = 'job' | 'hours' | 'done'

/** A number with who worked it behind it: "2.5 Ilse". */
export interface ReadAmount {
  readonly amount: number
  readonly handId: string | null
}

/** Hours or days as typed for one job. Errors: `missing`, `out-of-range`, `unknown` hand, and what a number is refused for. */
export function readAmount(text: string, task: StoredTask, room: JobsRoom, mark: '.' | ','): ReadAmount {
  const [, number = '', rest = ''] = /^\s*([\d.,]+)\s*(?:h|hours?|d|days?)?\s*(.*)$/i.exec(text) ?? []
  const unit = task.kind === 'work' ? 'hours' : 'days'
  if (number === '') throw new CalculationError('missing', 'amount', `Type ${unit}, such as 2.5.`)
  const amount = parseNumber(number, mark, unit)
  if (!(amount > 0 && amount <= 2000)) throw new CalculationError('out-of-range', 'amount', `${number} is no number of ${unit}. Type what it took.`)
  const who = rest.trim()
  const hand = who === '' ? null : room.road.hands.find(({ name }) => name.toLowerCase() === who.toLowerCase())
  if (hand === undefined)
    throw new CalculationError('unknown', 'who', `There is no hand called “${who}”; there is ${room.road.hands.map(({ name }) => name).join(', ')}.`)
  return { amount, handId: hand?.id ?? null }
}

/** What a line was read as, in words. */
function lineWords(read: ReadJobLine, room: JobsRoom, records: RecordsAnswer): string {
  if (read.is === 'arrival') return `${read.name} ${read.on <= room.today ? 'came' : 'promised for'} ${shortDay(read.on)}`
  const names = namesOf(room.road)
  const factor = room.optimism[read.kind].median
  const part = (id: string) => records.parts.find((each) => each.id === id)?.name ?? '?'
  return [
    read.name,
    `${lengthText(read.kind, read.amount)} guessed, ${lengthText(read.kind, read.amount * factor)} likely`,
    read.kind === 'wait' ? 'a wait' : read.whoIds.map(names.hand).join(' + ') || 'anyone',
    read.holds ? `holds the ${read.holds}` : '',
    read.partIds.length > 0 ? `needs ${read.partIds.map(part).join(', ')}` : '',
    read.afterIds.length > 0 ? `after ${read.afterIds.map(names.job).join(', ')}` : '',
    read.notBefore ? `not before ${shortDay(read.notBefore)}` : '',
    read.isOptional ? 'optional' : '',
    read.stage === null ? '' : `stage ${read.stage}`,
  ]
    .filter((text) => text !== '')
    .join(', ')
}

type Lesson = Pick<RecordsAnswer['lessons'][number], 'about' | 'text'>

/** Lessons whose words stand in what is typed. */
const lessonsFor = (text: string, lessons: readonly Lesson[]): string[] =>
  lessons.filter(({ about }) => text.toLowerCase().includes(about.toLowerCase())).map((lesson) => lesson.text)

/** The lessons of this build, and of the others those that are told in every build. */
function useLessons(records: RecordsAnswer): readonly Lesson[] {
  const buildId = records.build.id
  const { shelf } = useShelf('lessons', buildId)
  return [...records.lessons, ...(shelf ?? []).flatMap(({ record }) => (record.buildId === buildId ? [] : [record]))]
}

const HOW = 'Job, hours or days, hands; then holds, needs, after, not before, optional, @stage. Or a part: cooler comes 14 Mar.'

/** The one line of the tab: a job, hours on the picked job, or what it took when it is done. What is typed is kept until it is stored. */
export function RoadLine({
  records,
  room,
  stageId,
  mode,
  setMode,
  task,
  input,
  onStored,
}: {
  records: RecordsAnswer
  room: JobsRoom
  stageId: string
  mode: LineMode
  setMode: (mode: LineMode) => void
  /** The job that hours are typed for. */
  task: StoredTask | null
  input: RefObject<HTMLInputElement | null>
  onStored: (id: string | null) => void
}) {
  const buildId = records.build.id
  const key = `bold-ballast.draft.${buildId}.job`
  const { decimalMark } = useQuantities()
  const known = useLessons(records)
  const [line, setLine] = useState(() => readStored(key, ''))
  const [typed, setTyped] = useState({ of: '', text: '' })
  const [said, setSaid] = useState<string | null>(null)
  // Jobs that were stored a moment ago can be named before the page has read them again.
  const [fresh, setFresh] = useState<readonly { readonly id: string; readonly name: string }[]>([])
  const [ids, setIds] = useState(() => ({ batchId: crypto.randomUUID(), id: crypto.randomUUID() }))
  const [write, { isLoading }] = api.useBatchMutation()
  const { refetch } = api.useRecordsQuery(buildId)
  const isJob = mode === 'job' || !task
  const begun = task ? (task.kind === 'wait' ? (task.realDays ?? task.guessDays ?? 1) : workedHours(task) || (task.guessH ?? 1)) : 0
  const of = `${mode} ${task?.id ?? ''}`
  const amount = typed.of === of ? typed.text : mode === 'done' ? String(Number(begun.toFixed(2))) : ''
  // biome-ignore lint/correctness/useExhaustiveDependencies: another question takes the focus, before the next key is pressed
  useLayoutEffect(() => {
    if (mode === 'job') return
    setSaid(null)
    input.current?.focus()
    if (mode === 'done') input.current?.select()
  }, [of])
  const keep = (text: string) => {
    setSaid(null)
    if (!isJob) return setTyped({ of, text })
    setLine(text)
    writeStored(key, text === '' ? undefined : text)
  }
  const options = {
    today: room.today,
    mark: decimalMark,
    hands: room.road.hands,
    parts: records.parts,
    jobs: [...openTasks(records as never), ...fresh.filter(({ id }) => !records.tasks.some((each) => each.id === id))],
    stageCount: records.stages.length,
  }
  const readLine = isJob && line.trim() !== '' ? attempt(() => readJobLine(line, options)) : null
  const readHours = !isJob && task && amount.trim() !== '' ? attempt(() => readAmount(amount, task, room, decimalMark)) : null
  const send = async (make: (all: RecordsAnswer) => readonly BatchWrite[]) => {
    let answer = await write({ buildId, batchId: ids.batchId, writes: make(records) })
    const { problem } = answer.error ? readFailure(answer.error) : { problem: undefined }
    // Two people may log hours on one job at once: what the other stored stays, and this is added to it.
    const now = problem?.code === 'stale' ? (await refetch()).data : undefined
    if (now) answer = await write({ buildId, batchId: ids.batchId, writes: make(now) })
    return answer.error ? `${readFailure(answer.error).message} The line is kept.` : null
  }
  const store = async () => {
    const read = isJob ? readLine : readHours
    if (!read || read instanceof CalculationError) return
    const failure = await send((all) => {
      if ('is' in read) return lineWrites(read, all, stageId, room.today, ids.id)
      const now = all.tasks.find(({ id }) => id === task?.id)
      if (!now) return []
      if (mode === 'done') return doneWrites(now, read.amount, all, room.today)
      return now.kind === 'wait' ? beganWrites(now, room.today) : hoursWrites(now, read.amount, read.handId, room.today)
    })
    if (failure) return setSaid(failure)
    setIds({ batchId: crypto.randomUUID(), id: crypto.randomUUID() })
    if ('is' in read) {
      keep('')
      if (read.is === 'job') setFresh((before) => [...before, { id: ids.id, name: read.name }])
      onStored(read.is === 'job' ? ids.id : null)
      return setSaid(`Stored: ${lineWords(read, room, records)}.`)
    }
    setTyped({ of: '', text: '' })
    input.current?.blur()
    setMode('job')
    onStored(mode === 'done' ? null : (task?.id ?? null))
  }
  return (
    <OneLine
      label={isJob ? 'A line of the jobs' : mode === 'done' ? `What ${task.name} took in all` : `Worked on ${task.name}`}
      placeholder={isJob ? 'fit final drives 6 h Ilse+Tomas holds lift' : task.kind === 'work' ? '2.5' : 'Enter: it began today'}
      text={isJob ? line : amount}
      type={keep}
      said={saidOf()}
      store={store}
      isBusy={isLoading}
      input={input}
      leave={() => {
        setMode('job')
        input.current?.blur()
      }}
    />
  )

  function saidOf(): string {
    if (said) return said
    if (isJob) {
      if (readLine instanceof CalculationError) return readLine.message
      if (!readLine) return HOW
      const lessons = lessonsFor(line, known)
      return `Reads as: ${lineWords(readLine, room, records)}. Enter stores.${lessons.length > 0 ? ` Learned before: ${lessons.join(' ')}` : ''}`
    }
    if (readHours instanceof CalculationError) return readHours.message
    const at = room.road.jobs.findIndex(({ id }) => id === task?.id)
    const name = `${at >= 0 ? `${letterOf(at)} ` : ''}${task?.name ?? ''}`
    if (mode === 'done')
      return `${name} is done: ${task?.kind === 'work' ? 'hours it took in all' : 'days it took'}. Enter closes it with its lines and parts; Esc leaves it.`
    return `${name}: ${task?.kind === 'work' ? `hours worked${readHours ? ` more, ${hoursText(readHours.amount)}` : ', such as 2.5 or 2.5 Ilse'}` : 'a day count; it began today'}. Enter stores, Esc leaves it.`
  }
}
