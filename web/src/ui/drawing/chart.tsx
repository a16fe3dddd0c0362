import type { Config, Data, Layout } from 'plotly.js'
import { useEffect, useMemo, useRef, useSyncExternalStore } from 'react'
import { usePreferences } from '../../data/store.ts'

type Plotly = typeof import('plotly.js')
let loading: Promise<Plotly> | undefined
const loadPlotly = () => {
  loading ??= import('plotly.js-cartesian-dist-min').then((module) => module.default as unknown as Plotly)
  return loading
}
const CONFIG: Partial<Config> = { responsive: true, displaylogo: false, displayModeBar: false, doubleClick: 'reset', ...({ showSendToCloud: false } as object) }

const watchPaper = (tell: () => void) => {
  const paper = window.matchMedia('print')
  paper.addEventListener('change', tell)
  return () => paper.removeEventListener('change', tell)
}

/** The theme that is drawn in: the picked one on a screen, light on paper. */
function useShownTheme() {
  const { theme } = usePreferences()
  const isPaper = useSyncExternalStore(watchPaper, () => window.matchMedia('print').matches)
  return isPaper ? 'light' : theme
}

/** Colours of curves in the picked theme; a drawing made of them is made anew when the theme changes. */
export function useChartColours() {
  const theme = useShownTheme()
  return useMemo(() => {
    const style = getComputedStyle(document.documentElement)
    const [pine, slate, danger, wash, ink, edge, wait, sheet] = ['--pine', '--planned', '--danger', '--wash', '--ink', '--edge', '--wait', '--sheet'].map(
      (name) => style.getPropertyValue(name).trim(),
    ) as [string, string, string, string, string, string, string, string]
    return { theme, pine, slate, danger, wash, ink, edge, wait, sheet }
  }, [theme])
}

/** Curves in the page's own type and colours; loaded only where curves are drawn. */
export function Chart({
  data,
  layout,
  label,
  className,
  onZoom,
}: {
  data: Data[]
  layout: Partial<Layout>
  label: string
  className?: string
  /** Told the range of the x axis that was zoomed to, and null when it was reset. */
  onZoom?: (range: readonly [number, number] | null) => void
}) {
  const holder = useRef<HTMLDivElement>(null)
  const zoomed = useRef(onZoom)
  zoomed.current = onZoom
  const theme = useShownTheme()
  // biome-ignore lint/correctness/useExhaustiveDependencies: colours are read from the page, so a change of theme draws again.
  useEffect(() => {
    let isGone = false
    const element = holder.current as HTMLDivElement
    const style = getComputedStyle(document.documentElement)
    const colour = (name: string) => style.getPropertyValue(name).trim()
    const axis = { gridcolor: colour('--line'), zerolinecolor: colour('--edge'), linecolor: colour('--line') }
    const full: Partial<Layout> = {
      autosize: true,
      margin: { t: 8, r: 90, b: 34, l: 56 },
      paper_bgcolor: 'rgba(0,0,0,0)',
      plot_bgcolor: 'rgba(0,0,0,0)',
      font: { family: 'Archivo Variable, sans-serif', size: 12, color: colour('--quiet') },
      showlegend: false,
      separators: '.\u202f',
      ...layout,
      xaxis: { ...axis, ...layout.xaxis },
      yaxis: { ...axis, ...layout.yaxis },
      ...(layout.yaxis2 ? { yaxis2: { ...axis, ...layout.yaxis2 } } : {}),
      ...(layout.yaxis3 ? { yaxis3: { ...axis, ...layout.yaxis3 } } : {}),
    }
    void loadPlotly().then((plotly) => {
      if (isGone) return
      void plotly.react(element, data, full, CONFIG).then((drawn) => {
        element.dataset.drawn = String(Number(element.dataset.drawn ?? 0) + 1)
        if (!onZoom || element.dataset.zooms) return
        element.dataset.zooms = 'true'
        drawn.on('plotly_relayout', (change) => {
          const [low, high] = [change['xaxis.range[0]'], change['xaxis.range[1]']]
          if (typeof low === 'number' && typeof high === 'number') zoomed.current?.([low, high])
          else if (change['xaxis.autorange'] || 'xaxis.range' in change) zoomed.current?.(null)
        })
      })
    })
    return () => {
      isGone = true
    }
  }, [data, layout, theme])
  useEffect(() => {
    const element = holder.current as HTMLDivElement
    return () => void loading?.then((plotly) => plotly.purge(element))
  }, [])
  return <div ref={holder} role="img" aria-label={label} className={className} />
}
