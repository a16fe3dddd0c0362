import { buildStory, METRIC_INFO, type StoryChapter, type StoryFigure } from '@bold-ballast/core'
import { useMemo } from 'react'
import { Trail } from '../../../shared/board/trail.tsx'
import { Figure } from '../../../ui/figure.tsx'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { dayText } from '../../../ui/words.ts'
import { SheetHead } from '../sheet-head.tsx'
import type { SheetProps } from '../sheet-props.ts'
import { storyTable } from '../tables.ts'

/** Where a number comes from: how far it came since the stage before, the day it was read. */
function wordsOf({ cell, change, readOn }: StoryFigure, signed: (value: number) => string): string {
  if (cell.fromPosition !== null) return `as at stage ${cell.fromPosition}`
  const since = change === null ? [] : [`${signed(change)} on the stage before`]
  return [...since, ...(readOn.length > 0 ? [`read ${readOn.map(dayText).join(', ')}`] : [])].join('; ')
}

/** A number of the stage, and how far it came from the stage before. */
function StoryNumber({ figure }: { figure: StoryFigure }) {
  const { metric, cell } = figure
  const { text } = useQuantities()
  const { kind, word } = METRIC_INFO[metric]
  return (
    <div className="min-w-[128px]">
      <p className="text-[13px] text-quiet">{word}</p>
      <p className="text-[18px] font-semibold">
        <Figure kind={kind} value={cell.value} sd={cell.sd} proof={cell.proof} />
      </p>
      <p className="text-[13px] text-quiet">{wordsOf(figure, (value) => text(kind, value, { sign: true, sd: cell.sd }))}</p>
    </div>
  )
}

const FATE_WORDS = { kept: 'kept', sold: 'sold', scrapped: 'scrapped' } as const

/** What became of a line's piece, in words. */
const fateWords = ({ fate }: StoryChapter['lines'][number]): string => (fate ? `, ${FATE_WORDS[fate.is]}${fate.words ? ` (${fate.words})` : ''}` : '')

function Chapter({ chapter, currency }: { chapter: StoryChapter; currency: string }) {
  const { text, format } = useQuantities()
  const { position, name, date, state, note, figures, lines, offKg, onKg, parts, decisions, events, jobs, paid, planned } = chapter
  const money = (value: number) => `${format('money', value).number} ${currency}`.trim()
  const list = (isDone: boolean) =>
    lines
      .filter((line) => line.isDone === isDone)
      .map((line) => `${line.name}${line.massKg === null ? '' : ` ${text('mass', line.massKg, { sign: true })}`}${fateWords(line)}`)
      .join('; ')
  const [done, open] = [list(true), list(false)]
  const sentences = [
    done && `${text('mass', offKg)} came off and ${text('mass', onKg)} went on: ${done}.`,
    open && `Still planned: ${open}.`,
    parts.length > 0 && `Parts: ${parts.map((part) => part.name).join(', ')}.`,
    events.length > 0 && `${events.map((event) => `${event.name}, ${dayText(event.startsOn)}`).join('; ')}.`,
    jobs.done + jobs.open > 0 && `${jobs.done} of ${jobs.done + jobs.open} jobs done, ${Number(jobs.hours.toFixed(1))} h worked.`,
    paid + planned > 0 && `Paid ${money(paid)}${planned > 0 ? `, planned ${money(planned)}` : ''}.`,
  ].filter((sentence): sentence is string => typeof sentence === 'string')
  return (
    <section className="break-inside-avoid border-t border-line py-3">
      <h2 className="mb-1 flex items-baseline gap-2">
        <span className="inline-flex size-6 items-center justify-center rounded border border-ink text-[13px]">{position}</span>
        {name}
        <span className="font-normal text-quiet">
          {state}
          {date ? `, ${dayText(date)}` : ''}
        </span>
      </h2>
      {note && <p>{note}</p>}
      <div className="my-1 flex flex-wrap gap-x-8 gap-y-2">
        {figures.map((figure) => (
          <StoryNumber key={figure.metric} figure={figure} />
        ))}
      </div>
      {sentences.map((sentence) => (
        <p key={sentence}>{sentence}</p>
      ))}
      {decisions.map(({ id, question, chosen, reason, decidedOn }) => (
        <p key={id}>
          {question} <b>{chosen}</b>
          {decidedOn ? `, ${dayText(decidedOn)}` : ''}
          {reason ? `: ${reason}` : '.'}
        </p>
      ))}
    </section>
  )
}

/** The build from its first stage on: what was done, what it weighed and gave, what was decided and why. */
export function StoryTab({ records, board, weight, jobs, position }: SheetProps) {
  const { units } = useQuantities()
  const story = useMemo(() => buildStory(records, board, weight, jobs), [records, board, weight, jobs])
  return (
    <>
      <SheetHead records={records} title="Build story">
        <CsvButton name={`${records.build.name}-story`} table={() => storyTable(story, units)} />
      </SheetHead>
      <div className="mb-3">
        <Trail board={board} records={records} position={position} />
      </div>
      {story.map((chapter) => (
        <Chapter key={chapter.id} chapter={chapter} currency={records.build.money?.currency ?? ''} />
      ))}
    </>
  )
}
