import {
  batterySchema,
  buildSchema,
  cartonSchema,
  controlSchema,
  daySchema,
  eventSchema,
  fanSchema,
  fanStateSchema,
  fanTestSchema,
  feedPartSchema,
  machineJobSchema,
  readingSchema,
  runSchema,
  sourceSchema,
  stageStateSchema,
  stockPartSchema,
  streamSchema,
  sunSchema,
  targetSchema,
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

/** A plan as tables below its job. */
export const JOB: Owner = {
  table: 'job',
  column: 'job_id',
  schema: machineJobSchema,
  parts: [
    list('targets', 'target', targetSchema),
    list('streams', 'air_stream', streamSchema),
    list('sources', 'power_source', sourceSchema),
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
