import type { RecordsAnswer } from '@bold-ballast/contract'
import { fromSi, RATING_SUBJECTS, type StageWeakLinks, wornParts } from '@bold-ballast/core'
import type { Data } from 'plotly.js'
import { useMemo } from 'react'
import { lifeText } from '../../../shared/part-words.ts'
import { Chart, useChartColours } from '../../../ui/drawing/chart.tsx'

/** Lower than this the chart does not go: what is so far over its limit has its number at the edge. */
const LOWEST = -0.5

/** Headroom over power: each line has the number of its row where it meets its limit; one that holds has its name. Dotted: the rating is a guess. */
export function LinksChart({
  records,
  swept,
  targetW,
  todayW,
  powerUnit,
}: {
  records: RecordsAnswer
  swept: StageWeakLinks
  targetW: number
  todayW: number | null
  powerUnit: string
}) {
  const colours = useChartColours()
  const { data, layout } = useMemo(() => {
    const x = swept.powersW.map((powerW) => fromSi('power', powerW, powerUnit))
    const partOf = (partId: string) => records.parts.find(({ id }) => id === partId)
    const lines = swept.links.map((link, i): Data => {
      const part = partOf(link.partId)
      const name = `${part?.name}, ${RATING_SUBJECTS[link.subject].word}`
      const isGuess = part?.ratings[link.ratingIndex]?.known === 'guess'
      return {
        x,
        y: link.headrooms.map((value) => (value === null ? null : 100 * value)),
        type: 'scatter',
        mode: 'lines',
        name,
        line: {
          color: link.limitPowerW === null ? colours.slate : i === 0 ? colours.danger : colours.pine,
          width: i === 0 ? 2.8 : 1.5,
          dash: isGuess ? 'dot' : 'solid',
        },
        hovertemplate: `%{y:.0f} % left at %{x:.0f} ${powerUnit}<extra>${name}</extra>`,
      }
    })
    // On a phone the names stand in the list below alone.
    const isNarrow = window.innerWidth < 640
    const [from, to] = [x[0] as number, x.at(-1) as number]
    // Numbers on the line of the limit; those that would cover each other step up.
    let before = Number.NEGATIVE_INFINITY
    let level = 0
    const numbers = swept.links.flatMap((link, i) => {
      if (link.limitPowerW === null) return []
      const at = fromSi('power', link.limitPowerW, powerUnit)
      level = at - before < (to - from) / (isNarrow ? 14 : 45) ? level + 1 : 0
      before = at
      return [
        { x: at, y: 0, yshift: 10 + 15 * level, showarrow: false, text: `<b>${i + 1}</b>`, font: { size: 12, color: i === 0 ? colours.danger : colours.ink } },
      ]
    })
    let above = Number.POSITIVE_INFINITY
    const names = swept.links
      .filter(({ limitPowerW }) => limitPowerW === null)
      .map((link) => ({ name: partOf(link.partId)?.name ?? '', at: link.headrooms.findLastIndex((value) => value !== null), link }))
      .filter(({ at }) => at >= 0)
      .sort((a, b) => (b.link.headrooms[b.at] as number) - (a.link.headrooms[a.at] as number))
      .map(({ name, at, link }) => {
        const y = Math.min(100 * (link.headrooms[at] as number), above - 7)
        above = y
        return { x: x[at] as number, y, xanchor: 'left' as const, xshift: 4, showarrow: false, text: name, font: { size: 11 } }
      })
    // Two that stand near each other have their names on their far sides.
    const isNear = todayW !== null && Math.abs(fromSi('power', targetW - todayW, powerUnit)) < (to - from) / (isNarrow ? 4 : 12)
    const upright = (watts: number, name: string, side: 'left' | 'right') => {
      const at = fromSi('power', watts, powerUnit)
      const xanchor = isNear ? side : 'center'
      return {
        shape: { type: 'line' as const, x0: at, x1: at, y0: 0, y1: 1, yref: 'paper' as const, line: { color: colours.edge, width: 1, dash: 'dash' as const } },
        label: {
          x: at,
          y: 1,
          yref: 'paper' as const,
          yanchor: 'bottom' as const,
          xanchor: xanchor as 'left' | 'right' | 'center',
          showarrow: false,
          text: name,
          font: { size: 11 },
        },
      }
    }
    // How much of a life is left does not hang on power: it stands at the start of the sweep, on the same scale.
    const worn = wornParts(records).map(({ part, life }) => ({ left: Math.max(0, 100 * (1 - life.share)), words: `${part.kind}: ${lifeText(part, life)}` }))
    // On a ground of their own: a curve may pass under them.
    const lifeWords = worn.map(({ left, words }) => ({
      x: from,
      y: left,
      xanchor: 'left' as const,
      xshift: 9,
      showarrow: false,
      text: words,
      bgcolor: colours.sheet,
      borderpad: 1,
      font: { size: 11, color: colours.wait },
    }))
    const lives: Data = {
      x: worn.map(() => from),
      y: worn.map(({ left }) => left),
      text: worn.map(({ words }) => words),
      type: 'scatter',
      mode: 'markers',
      marker: { symbol: 'hourglass', size: 12, color: colours.wait },
      hovertemplate: '%{text}<extra></extra>',
      cliponaxis: false,
    }
    const marks = [
      ...(todayW === null ? [] : [upright(todayW, 'today', todayW < targetW ? 'right' : 'left')]),
      upright(targetW, 'target', todayW !== null && todayW > targetW ? 'right' : 'left'),
    ]
    return {
      data: worn.length > 0 ? [...lines, lives] : lines,
      layout: {
        margin: { t: 22, r: isNarrow ? 12 : 190, b: 40, l: isNarrow ? 44 : 56 },
        xaxis: { title: { text: `power, ${powerUnit}` }, tickformat: ',.0f', range: [from - (to - from) / 60, to] },
        yaxis: { title: { text: 'headroom, %' }, zeroline: true, zerolinewidth: 2, zerolinecolor: colours.ink, range: [100 * LOWEST, 100] },
        shapes: marks.map(({ shape }) => shape),
        annotations: [...numbers, ...(isNarrow ? [] : [...names, ...lifeWords]), ...marks.map(({ label }) => label)],
      },
    }
  }, [swept, records, targetW, todayW, powerUnit, colours])
  return <Chart data={data} layout={layout} label="Headroom of each part by power" className="h-[330px] w-full" />
}
