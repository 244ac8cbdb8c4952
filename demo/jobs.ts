/** The invented jobs of the Tarn Lane Workshop: every goal kind, some finished, some half-way, one with serious findings. */
import { completePlan, planSchema, seenFrom, type PlanDocument, type StreamPlan } from '#core/document'
import batteryLocker from './jobs/battery-locker.json'
import cheeseBox from './jobs/cheese-box.json'
import choirAmplifier from './jobs/choir-amplifier.json'
import filmCabinet from './jobs/film-cabinet.json'
import hallCupboard from './jobs/hall-cupboard.json'
import hydroponicTank from './jobs/hydroponic-tank.json'
import kilnController from './jobs/kiln-controller.json'
import mushroomTent from './jobs/mushroom-tent.json'
import printRack from './jobs/print-rack.json'
import recorderShelf from './jobs/recorder-shelf.json'
import seedStore from './jobs/seed-store.json'
import stencilPress from './jobs/stencil-press.json'
import tapeRack from './jobs/tape-rack.json'
import telescopeMirror from './jobs/telescope-mirror.json'
import waxBench from './jobs/wax-bench.json'

/** What a file leaves out is not known, or as usual. */
const files: unknown[] = [
  filmCabinet,
  choirAmplifier,
  mushroomTent,
  kilnController,
  waxBench,
  telescopeMirror,
  cheeseBox,
  hydroponicTank,
  batteryLocker,
  stencilPress,
  tapeRack,
  seedStore,
  printRack,
  recorderShelf,
  hallCupboard,
]

export const demoJobs = (): PlanDocument[] => files.map((file) => planSchema.parse(completePlan(file)))
/** Each from its first stream. */
export const demoPlans = (): StreamPlan[] => demoJobs().map((plan) => seenFrom(plan))
/** A job by its id. */
export const demoPlan = (id: string): StreamPlan => demoPlans().find((plan) => plan.job.id === id)!
