import type { ELK as Elk, ElkNode } from 'elkjs/lib/elk-api'
import type { Diagram } from '#core/supply'

export interface Box {
  id: string
  x: number
  y: number
  width: number
  height: number
}
export interface Layout {
  width: number
  height: number
  boxes: Map<string, Box>
}
export interface Size {
  id: string
  width: number
  height: number
}

let elk: Promise<Elk> | null = null
/** The layout engine with its own worker, fetched when the first diagram is drawn. */
function engine(): Promise<Elk> {
  elk ??= Promise.all([import('elkjs/lib/elk-api.js'), import('elkjs/lib/elk-worker.min.js?url')]).then(
    ([{ default: ELK }, { default: url }]) => new ELK({ workerFactory: () => new Worker(url) }),
  )
  return elk
}

/**
 * Places a diagram's boxes in a worker, in layers from the source on; answers to older questions are dropped.
 * @param sizes how large each box is
 * @param label width to keep free for the labels of leads
 */
export function useDiagramLayout(
  diagram: Ref<Diagram>,
  sizes: Ref<Size[]>,
  upright: Ref<boolean>,
  label: Ref<number>,
) {
  const layout = shallowRef<Layout | null>(null)
  const problem = ref('')
  let asked = 0
  watch(
    [sizes, upright, label],
    async () => {
      const mine = ++asked
      if (!sizes.value.length) {
        layout.value = null
        return
      }
      try {
        const graph: ElkNode = {
          id: 'feed',
          children: sizes.value.map((s) => ({ ...s })),
          edges: diagram.value.edges.map((e) => ({ id: e.id, sources: [e.from], targets: [e.to] })),
          layoutOptions: {
            'elk.algorithm': 'layered',
            'elk.direction': upright.value ? 'DOWN' : 'RIGHT',
            'elk.layered.spacing.nodeNodeBetweenLayers': String(upright.value ? 52 : label.value),
            'elk.spacing.nodeNode': '18',
            'elk.padding': '[top=14,left=8,bottom=14,right=8]',
            'elk.layered.nodePlacement.strategy': 'NETWORK_SIMPLEX',
            'elk.layered.considerModelOrder.strategy': 'NODES_AND_EDGES',
          },
        }
        const placed = await (await engine()).layout(graph)
        if (mine !== asked) return
        layout.value = {
          width: placed.width ?? 0,
          height: placed.height ?? 0,
          boxes: new Map(
            (placed.children ?? []).map((c) => [
              c.id,
              { id: c.id, x: c.x ?? 0, y: c.y ?? 0, width: c.width ?? 0, height: c.height ?? 0 },
            ]),
          ),
        }
        problem.value = ''
      } catch (error) {
        if (mine === asked)
          problem.value = error instanceof Error ? error.message : 'The diagram could not be laid out.'
      }
    },
    { immediate: true },
  )
  return { layout, problem }
}
