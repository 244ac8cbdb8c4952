import {
  batterySchema,
  branchSchema,
  buildSchema,
  calibrationSchema,
  cartonSchema,
  controlSchema,
  converterSchema,
  daySchema,
  elementSchema,
  eventSchema,
  fanSchema,
  fanStateSchema,
  fanTestSchema,
  feedPartSchema,
  fitSchema,
  jobSchema,
  portSchema,
  readingSchema,
  runSchema,
  secondPlaceSchema,
  selectionSchema,
  sinkPointSchema,
  sourceSchema,
  stageStateSchema,
  stockPartSchema,
  streamSchema,
  sunSchema,
  targetSchema,
  uncertaintySchema,
  wiringSchema,
} from '#core/document'
import { flat, type Owner, type Part } from './parts'

/** What is kept in tables: jobs, fans and parts, each with what stands below it. */

const list = (key: string, table: string, schema: Part['schema'], parts?: Part[]): Part => ({
  key,
  table,
  schema,
  by: 'id',
  parts,
})
const one = (key: string, table: string, schema: Part['schema'], parts?: Part[]): Part => ({
  key,
  table,
  schema,
  by: null,
  parts,
})
const points = (table: string, link?: string): Part => ({
  key: 'points',
  table,
  schema: elementSchema.shape.points.unwrap().element,
  by: 'position',
  link,
})

/** A plan as tables below its job. */
export const JOB: Owner = {
  table: 'job',
  column: 'job_id',
  schema: jobSchema,
  parts: [
    list('targets', 'target', targetSchema),
    list('ports', 'port', portSchema),
    list('uncertainties', 'uncertainty', uncertaintySchema),
    { key: 'sink', table: 'sink_point', schema: sinkPointSchema, by: 'position' },
    list('path', 'path_element', elementSchema, [points('loss_point', 'element_id')]),
    list('branches', 'path_branch', branchSchema),
    one('calibration', 'calibration', calibrationSchema, [points('calibration_point')]),
    one('selection', 'fan_selection', selectionSchema),
    one('fit', 'fan_fit', fitSchema),
    one('secondPlace', 'second_place', secondPlaceSchema),
    list('streams', 'air_stream', streamSchema),
    one('source', 'power_source', sourceSchema),
    list('sources', 'further_source', sourceSchema),
    one('converter', 'power_converter', converterSchema),
    list('feed', 'feed_part', feedPartSchema),
    one('wiring', 'wiring', wiringSchema),
    list('controls', 'control', controlSchema),
    one('day', 'plan_day', daySchema),
    one('build', 'plan_build', buildSchema),
    list('logbook', 'plan_event', eventSchema),
    one('battery', 'battery', batterySchema),
    one('sun', 'sun', sunSchema),
    list('runs', 'run', runSchema, [
      { ...list('readings', 'reading', readingSchema), link: 'run_id' },
      { ...list('stages', 'run_stage', stageStateSchema), link: 'run_id' },
      { ...list('fans', 'run_fan', fanStateSchema), link: 'run_id' },
    ]),
  ],
}

const pointSchema = fanSchema.shape.points.unwrap().element
/** A fan as tables below it. */
export const FAN: Owner = {
  table: 'fan',
  column: 'fan_id',
  schema: fanSchema,
  parts: [
    { key: 'points', table: 'fan_point', schema: pointSchema, by: 'position' },
    {
      key: 'curves',
      table: 'fan_curve',
      schema: fanSchema.shape.curves.unwrap().element,
      by: 'position',
      parts: [{ key: 'points', table: 'fan_curve_point', schema: pointSchema, by: 'position', link: 'curve' }],
    },
    { key: 'sources', table: 'fan_source', schema: fanSchema.shape.sources.unwrap().element, by: 'figure' },
    { key: 'tests', table: 'fan_test', schema: fanTestSchema, by: 'id' },
    { key: 'cartons', table: 'fan_carton', schema: cartonSchema, by: 'id' },
  ],
}

/** A part of the shelf. */
export const STOCK: Owner = { table: 'stock_part', column: 'part_id', schema: stockPartSchema, parts: [] }

/** Every table whose columns are the fields of a schema. */
export const tables = (): Pick<Part, 'table' | 'schema'>[] =>
  [JOB, FAN, STOCK].flatMap((owner) => [owner, ...flat(owner.parts)])
