export type ChildKey =
  | 'targets'
  | 'ports'
  | 'uncertainties'
  | 'sink'
  | 'path'
  | 'branches'
  | 'lossPoints'
  | 'calibration'
  | 'calibrationPoints'
  | 'selection'
  | 'source'
  | 'converter'
  | 'feed'
  | 'wiring'
  | 'battery'
  | 'sun'
  | 'runs'
  | 'readings'

/**
 * The tables below a job or a fan, each with its three statements. For a job $1 is its id; for fans $1 is a JSON list of
 * their ids, so that many are written at once. $2 are the rows as JSON with column names. A row keeps its created_at; its
 * revision and updated_at move only when something in it changed.
 */
export interface ChildTable<Key extends string> {
  key: Key
  select: string
  deleteMissing: string
  upsert: string
}

/** Who the rows belong to: the column, how $1 picks them, and what is inserted there. */
interface Owner {
  column: string
  mine: string
  value: string
  /** what incoming rows must hold to be this owner's */ given: string
}
const ofJob: Owner = { column: 'job_id', mine: 'job_id = $1', value: '$1', given: 'true' }
const ofFans: Owner = {
  column: 'fan_id',
  mine: 'fan_id = ANY (ARRAY (SELECT jsonb_array_elements_text($1::jsonb)))',
  value: 'fan_id',
  given: 'fan_id = ANY (ARRAY (SELECT jsonb_array_elements_text($1::jsonb)))',
}

/**
 * The three statements of one table, written once from its constant names; values are parameters only.
 * @param id columns that tell an owner's rows apart (none: the owner has at most one)
 * @param columns all others that a document holds
 */
function rowsOf<Key extends string>(
  owner: Owner,
  key: Key,
  table: string,
  id: readonly string[],
  columns: readonly string[],
): ChildTable<Key> {
  const all = [...id, ...columns].join(', ')
  const rows = `jsonb_populate_recordset(NULL::${table}, $2::jsonb)`
  const incoming = columns.map((c) => `EXCLUDED.${c}`).join(', ')
  const present = columns.map((c) => `t.${c}`).join(', ')
  const keys = owner.value === '$1' ? id : [owner.column, ...id]
  const kept = keys.length
    ? `(${keys.join(', ')}) NOT IN (SELECT ${keys.map((c) => `r.${c}`).join(', ')} FROM ${rows} r)`
    : `NOT EXISTS (SELECT 1 FROM ${rows})`
  return {
    key,
    select: `SELECT * FROM ${table} WHERE ${owner.mine} ORDER BY ${[owner.column, ...id.filter((c) => c !== 'id'), ...columns.filter((c) => c === 'position')].join(', ')}`,
    deleteMissing: `DELETE FROM ${table} WHERE ${owner.mine} AND ${kept}`,
    upsert: `INSERT INTO ${table} AS t (${owner.column}, ${all}) SELECT ${owner.value}, ${all} FROM ${rows} WHERE ${owner.given}
      ON CONFLICT (${[owner.column, ...id].join(', ')}) DO UPDATE SET (${columns.join(', ')}) = ROW (${incoming}), revision = t.revision + 1, updated_at = now()
      WHERE (${present}) IS DISTINCT FROM (${incoming})`,
  }
}
const child = (key: ChildKey, table: string, id: readonly string[], columns: readonly string[]) =>
  rowsOf(ofJob, key, table, id, columns)
const fanChild = (key: FanChildKey, table: string, id: readonly string[], columns: readonly string[]) =>
  rowsOf(ofFans, key, table, id, columns)

export type FanChildKey = 'points' | 'curves' | 'curvePoints' | 'sources' | 'tests'
export const fanTables: ChildTable<FanChildKey>[] = [
  fanChild('points', 'fan_point', ['position'], ['flow_m3s', 'pressure_pa']),
  fanChild('curves', 'fan_curve', ['position'], ['volts', 'basis']),
  fanChild('curvePoints', 'fan_curve_point', ['curve', 'position'], ['flow_m3s', 'pressure_pa']),
  fanChild('sources', 'fan_source', ['figure'], ['basis']),
  fanChild(
    'tests',
    'fan_test',
    ['id'],
    [
      'position',
      'specimen',
      'taken_at',
      'volts',
      'ambient_c',
      'current_a',
      'start_a',
      'start_v',
      'rpm',
      'flow_m3s',
      'pressure_pa',
      'air_speed_ms',
      'level_db_a',
      'level_distance_m',
      'background_db_a',
      'notes',
    ],
  ),
]

export const childTables: ChildTable<ChildKey>[] = [
  child('targets', 'target', ['id'], ['position', 'kind', '"limit"', 'place', 'set_by', 'why']),
  child('ports', 'port', ['id'], ['position', 'role', 'name', 'side', 'area_m2', 'flow_m3s']),
  child('uncertainties', 'uncertainty', ['id'], ['position', 'grade', 'low', 'high']),
  child('sink', 'sink_point', ['position'], ['flow_m3s', 'k_per_w']),
  child(
    'path',
    'path_element',
    ['id'],
    [
      'position',
      'kind',
      'name',
      'branch_id',
      'basis',
      'style',
      'area_m2',
      'free_area_ratio',
      'pattern',
      'hole_m',
      'pitch_m',
      'edge',
      'medium',
      'c1',
      'c2',
      'load_factor',
      'diameter_m',
      'diameter2_m',
      'width_m',
      'height_m',
      'length_m',
      'gap_m',
      'fin_m',
      'grain_m',
      'surface',
      'slack',
      'radius_ratio',
      'angle_deg',
      'count',
      'a',
      'b',
    ],
  ),
  child('branches', 'path_branch', ['id'], ['position', 'split_id', 'name', 'leak']),
  child('lossPoints', 'loss_point', ['element_id', 'position'], ['flow_m3s', 'pressure_pa']),
  child(
    'calibration',
    'calibration',
    [],
    ['id', 'kind', 'used', 'fan_id', 'count', 'volts', 'flow_m3s', 'heat_w', 'rise_k'],
  ),
  child('calibrationPoints', 'calibration_point', ['position'], ['flow_m3s', 'pressure_pa']),
  child(
    'selection',
    'fan_selection',
    [],
    ['id', 'fan_id', 'second_fan_id', 'count', 'arrangement', 'drive_v', 'duty'],
  ),
  child(
    'source',
    'power_source',
    [],
    [
      'id',
      'kind',
      'name',
      'nominal_v',
      'low_v',
      'high_v',
      'open_v',
      'i_max_a',
      'i_peak_a',
      'regulated',
      'output',
      'wire_awg',
      'wire_length_m',
      'fuse_a',
      'fuse_fitted',
      'fuse_distance_m',
      'polarity_checked',
      'usb_kind',
      'type_c_pull_down',
      'tap',
      'five_load_a',
      'transient_protected',
      'reversible',
    ],
  ),
  child(
    'converter',
    'power_converter',
    [],
    [
      'id',
      'kind',
      'out_v',
      'i_max_a',
      'efficiency',
      'dropout_v',
      'adjustable',
      'set_first',
      'measured_v',
      'ohm',
      'ohm2',
      'rating_w',
      'diodes',
      'duty',
      'pwm_hz',
      'switch_side',
      'flyback',
      'junction_to_air_k_per_w',
      'caps_fitted',
      'cap_v',
    ],
  ),
  child(
    'feed',
    'feed_part',
    ['id'],
    [
      'position',
      'parent_id',
      'kind',
      'name',
      'wire_awg',
      'wire_length_m',
      'fuse_a',
      'converter_kind',
      'out_v',
      'i_max_a',
      'efficiency',
      'ohm',
      'set_first',
      'load_kind',
      'count',
      'current_a',
      'start_a',
      'rated_v',
      'fan_id',
      'led_string',
      'led_v',
    ],
  ),
  child(
    'wiring',
    'wiring',
    [],
    [
      'plus_colour',
      'minus_colour',
      'identified_by',
      'connector',
      '"join"',
      'strain_relief',
      'reverse_protected',
      'route_m',
      'bundle',
      'insulation_c',
      'wire_air_c',
      'tach_used',
      'tach_joined',
      'hub',
      'header_mode',
      'pwm_sink_a',
      'pwm_pin_v',
      'electrical_series',
      'barrel_plug_m',
      'barrel_jack_m',
      'crimp_pull_n',
      'shrink_bore_m',
      'shrink_ratio',
      'switch_dc_v',
      'switch_dc_a',
    ],
  ),
  child(
    'battery',
    'battery',
    [],
    [
      'id',
      'chemistry',
      'cells',
      'charge_coulomb',
      'cell_v',
      'depth',
      'max_a',
      'auto_off_a',
      'idle_w',
      'protected_pack',
      'cold_c',
      'charged_cold',
      'air_travel',
      'energy_basis',
      'wished_s',
      'duty_share',
    ],
  ),
  child(
    'sun',
    'sun',
    [],
    ['id', 'panel_w', 'panel_voc', 'panel_vmp', 'controller', 'sun_hours', 'wished_days'],
  ),
  child(
    'runs',
    'run',
    ['id'],
    [
      'position',
      'kind',
      'name',
      'taken_at',
      'change_no',
      'changed',
      'stage',
      'who',
      'stood_at',
      'fan_v',
      'voltage_at',
      'ambient_c',
      'heat_w',
      'distance_m',
      'soak_s',
      'steady',
      'lid',
      'other_openings',
      'background_db_a',
      'instrument',
      'calibrated',
      'floor_db_a',
      'changes',
      'notes',
      'photo_id',
      'log_id',
      'slope_k_s',
      'tau_s',
    ],
  ),
  child(
    'readings',
    'reading',
    ['run_id', 'id'],
    ['position', 'quantity', 'place', 'value', 'repeats', 'stage', 'source', 'method', 'points'],
  ),
]
