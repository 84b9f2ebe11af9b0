import type { WayKey } from '#core/ways'
import type { HouseholdSettings, MachineSettings } from '#shared/contracts'
import type { Db } from './open'
import { statement } from './statement'

interface HouseholdRow {
  name: string
  time_zone: string
  weight_unit: 'g' | 'oz'
  temperature_unit: 'C' | 'F'
  clock_hours: 12 | 24
  sleep_from: number
  sleep_to: number
  pantry_c: number
  pantry_humidity: number
  jar_ml: number
  money: string
  kwh_price: number
  hour_worth: number
  measures: 'us' | 'metric'
  locale: HouseholdSettings['locale']
  latitude: number | null
  longitude: number | null
  version: number
}

export function readHousehold(db: Db): HouseholdSettings | undefined {
  const row = statement<HouseholdRow>(db, 'SELECT * FROM household WHERE id = 1').get()
  return (
    row && {
      name: row.name,
      timeZone: row.time_zone,
      weightUnit: row.weight_unit,
      temperatureUnit: row.temperature_unit,
      clockHours: row.clock_hours,
      sleepFrom: row.sleep_from,
      sleepTo: row.sleep_to,
      pantryC: row.pantry_c,
      pantryHumidity: row.pantry_humidity,
      jarMl: row.jar_ml,
      money: row.money,
      kwhPrice: row.kwh_price,
      hourWorth: row.hour_worth,
      measures: row.measures,
      locale: row.locale,
      latitude: row.latitude ?? undefined,
      longitude: row.longitude ?? undefined,
      version: row.version,
    }
  )
}

/** Writes the household's row; its version is one more than the one given. */
export function writeHousehold(db: Db, settings: HouseholdSettings): void {
  statement(
    db,
    `
    INSERT INTO household (id, name, time_zone, weight_unit, temperature_unit, clock_hours, sleep_from, sleep_to, pantry_c, pantry_humidity, jar_ml, money, kwh_price, hour_worth, measures, locale, latitude, longitude, version)
    VALUES (1, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, 1)
    ON CONFLICT (id) DO UPDATE SET name = excluded.name, time_zone = excluded.time_zone, weight_unit = excluded.weight_unit,
      temperature_unit = excluded.temperature_unit, clock_hours = excluded.clock_hours, sleep_from = excluded.sleep_from,
      sleep_to = excluded.sleep_to, pantry_c = excluded.pantry_c, pantry_humidity = excluded.pantry_humidity, jar_ml = excluded.jar_ml, money = excluded.money, kwh_price = excluded.kwh_price, hour_worth = excluded.hour_worth, measures = excluded.measures, locale = excluded.locale, latitude = excluded.latitude, longitude = excluded.longitude, version = household.version + 1`,
  ).run(
    settings.name,
    settings.timeZone,
    settings.weightUnit,
    settings.temperatureUnit,
    settings.clockHours,
    settings.sleepFrom,
    settings.sleepTo,
    settings.pantryC,
    settings.pantryHumidity,
    settings.jarMl,
    settings.money,
    settings.kwhPrice,
    settings.hourWorth,
    settings.measures,
    settings.locale,
    settings.latitude ?? null,
    settings.longitude ?? null,
  )
}

/** Puts the household's row as another logbook has it, with its version. */
export function setHousehold(db: Db, settings: HouseholdSettings): void {
  writeHousehold(db, settings)
  statement(db, 'UPDATE household SET version = ? WHERE id = 1').run(settings.version)
}

interface MachineRow {
  id: string
  name: string
  kind: WayKey
  trays: number
  tray_area_m2: number
  tray_tare_g: number
  tray_tares: string
  watts: number
  low_c: number
  high_c: number
  ice_g: number | null
  version: number
}

export type MachineRecord = MachineSettings & { version: number }

function toMachine(row: MachineRow): MachineRecord {
  return {
    id: row.id,
    name: row.name,
    kind: row.kind,
    trays: row.trays,
    trayAreaM2: row.tray_area_m2,
    trayTareG: row.tray_tare_g,
    trayTares: JSON.parse(row.tray_tares) as Record<string, number>,
    watts: row.watts,
    lowC: row.low_c,
    highC: row.high_c,
    iceG: row.ice_g ?? undefined,
    version: row.version,
  }
}

export function listMachines(db: Db): MachineRecord[] {
  return statement<MachineRow>(db, 'SELECT * FROM machine WHERE retired_at IS NULL ORDER BY name').all().map(toMachine)
}

export function findMachine(db: Db, id: string): MachineRecord | undefined {
  const row = statement<MachineRow>(db, 'SELECT * FROM machine WHERE id = ?').get(id)
  return row && toMachine(row)
}

export function insertMachine(db: Db, machine: MachineSettings): void {
  statement(
    db,
    `
    INSERT INTO machine (id, name, kind, trays, tray_area_m2, tray_tare_g, tray_tares, watts, low_c, high_c, ice_g) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
  ).run(
    machine.id,
    machine.name,
    machine.kind,
    machine.trays,
    machine.trayAreaM2,
    machine.trayTareG,
    JSON.stringify(machine.trayTares),
    machine.watts,
    machine.lowC,
    machine.highC,
    machine.iceG ?? null,
  )
}

export function updateMachine(db: Db, machine: MachineSettings): void {
  statement(
    db,
    `
    UPDATE machine SET name = ?, kind = ?, trays = ?, tray_area_m2 = ?, tray_tare_g = ?, tray_tares = ?, watts = ?, low_c = ?, high_c = ?, ice_g = ?, version = version + 1 WHERE id = ?`,
  ).run(
    machine.name,
    machine.kind,
    machine.trays,
    machine.trayAreaM2,
    machine.trayTareG,
    JSON.stringify(machine.trayTares),
    machine.watts,
    machine.lowC,
    machine.highC,
    machine.iceG ?? null,
    machine.id,
  )
}

/** Takes away what a new logbook begins with, where another's machines come in its place. */
export function dropMachines(db: Db): void {
  statement(db, 'DELETE FROM machine').run()
}

export function findRun(db: Db, id: string): { id: string; machine_id: string } | undefined {
  return statement<{ id: string; machine_id: string }>(db, 'SELECT id, machine_id FROM run WHERE id = ?').get(id)
}

export function insertRun(db: Db, id: string, machineId: string, createdAt: number): void {
  statement(db, 'INSERT INTO run (id, machine_id, created_at) VALUES (?, ?, ?)').run(id, machineId, createdAt)
}

export function readMeta(db: Db, key: string): string | undefined {
  return statement<{ value: string }>(db, 'SELECT value FROM meta WHERE key = ?').get(key)?.value
}

export function writeMeta(db: Db, key: string, value: string): void {
  statement(db, 'INSERT INTO meta (key, value) VALUES (?, ?) ON CONFLICT (key) DO UPDATE SET value = excluded.value').run(key, value)
}
