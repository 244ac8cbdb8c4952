import { Chart, LinearScale, LineElement, PointElement, ScatterController, Tooltip } from 'chart.js'

Chart.register(ScatterController, LinearScale, PointElement, LineElement, Tooltip)

const font = { family: 'Atkinson Hyperlegible Mono Variable, monospace', size: 12 }

/** What the charts have in common: colours of the theme, axes, lines, marks at a value. What one needs beyond it registers it. */
export function useChart() {
  const colours = useChartColours()

  /** An axis with its title; one with a grid has no border. */
  const axis = (text: string, { grid = false, most = 8 } = {}) => ({
    title: { display: text !== '', text, align: 'end' as const, color: colours.value.ink, font },
    grid: grid ? { color: colours.value.grid } : { display: false },
    ticks: { color: colours.value.ink, font, maxTicksLimit: most },
    border: { display: !grid, color: colours.value.grid },
  })

  /** A drawn line without its points; `hit` px around it answer to the pointer. */
  const line = (colour: string, width: number, { dash = [] as number[], hit = 0 } = {}) => ({
    showLine: true,
    pointRadius: 0,
    pointHitRadius: hit,
    borderColor: colour,
    backgroundColor: colour,
    borderWidth: width,
    borderDash: dash,
  })

  /** A mark across the chart at one value of an axis. */
  const mark = (at: 'x' | 'y', value: number, colour: string, { width = 1.5, dash = [4, 4] } = {}) => ({
    type: 'line' as const,
    ...(at === 'x' ? { xMin: value, xMax: value } : { yMin: value, yMax: value }),
    borderColor: colour,
    borderWidth: width,
    borderDash: dash,
  })

  /** Words at a mark, in its colour. */
  const words = (content: string, colour: string, position: 'start' | 'end' = 'start') => ({
    display: true,
    content,
    position,
    color: colour,
    backgroundColor: 'transparent',
    font,
  })

  /** Fills what is drawn around it and does not move by itself. */
  const still = { responsive: true, maintainAspectRatio: false, animation: false } as const
  return { colours, font, axis, line, mark, words, still }
}
