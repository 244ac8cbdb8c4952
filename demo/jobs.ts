/** The invented jobs of the Tarn Lane Workshop: every goal kind, some finished, some half-way, one with serious findings. */
import { wholePlan, type PlanDocument, type StreamPlan } from '#core/document'
import { choirAmplifier, filmCabinet, kilnBox, mushroomTent } from './jobs/first'
import { withBuild } from './jobs/builds'
import { hallCupboard, recorderShelf, withControl } from './jobs/control'
import { withFit } from './jobs/fits'
import { stencilPress } from './jobs/machine'
import { printRack } from './jobs/panel'
import { seedStore, tapeRack } from './jobs/places'
import { batteryLocker, cheeseBox, hydroponicTank, telescopeMirror, waxBench } from './jobs/further'

/** Each from its first stream. */
export const demoPlans = (): StreamPlan[] =>
  [
    filmCabinet(),
    choirAmplifier(),
    mushroomTent(),
    kilnBox(),
    waxBench(),
    telescopeMirror(),
    cheeseBox(),
    hydroponicTank(),
    batteryLocker(),
    stencilPress(),
    tapeRack(),
    seedStore(),
    printRack(),
    recorderShelf(),
    hallCupboard(),
  ]
    .map(withFit)
    .map(withControl)
    .map(withBuild)
export const demoJobs = (): PlanDocument[] => demoPlans().map(wholePlan)
