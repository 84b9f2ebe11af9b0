import type { HeatSeen, PlacePace } from '#core/machines'
import type { Db } from './open'
import { statement } from './statement'

/** What follows from a run for its machine: hours of heat, and how far its dial is off. */
export function putRunView(db: Db, row: { runId: string; machineId: string; heatHours: number; heatSeen: readonly HeatSeen[] }): void {
  statement(
    db,
    `
    INSERT INTO run_view (run_id, machine_id, heat_hours, heat_seen) VALUES (?, ?, ?, ?)
    ON CONFLICT (run_id) DO UPDATE SET machine_id = excluded.machine_id, heat_hours = excluded.heat_hours, heat_seen = excluded.heat_seen`,
  ).run(row.runId, row.machineId, row.heatHours, JSON.stringify(row.heatSeen))
}

export function allRunIds(db: Db): string[] {
  return statement<{ id: string }>(db, 'SELECT id FROM run')
    .all()
    .map(row => row.id)
}

/** Hours that a machine has run with the heat on; of a run that is on, up to its last entry. */
export function hoursRunOf(db: Db, machineId: string): number {
  return statement<{ hours: number }>(db, 'SELECT coalesce(sum(heat_hours), 0) AS hours FROM run_view WHERE machine_id = ?').get(machineId)!
    .hours
}

/** Set and measured temperatures of a machine's newest runs. */
export function heatSeenOf(db: Db, machineId: string, runs: number): HeatSeen[] {
  return statement<{ heat_seen: string }>(
    db,
    `
    SELECT v.heat_seen FROM run_view v JOIN run r ON r.id = v.run_id WHERE v.machine_id = ? AND v.heat_seen <> '[]' ORDER BY r.created_at DESC LIMIT ?`,
  )
    .all(machineId, runs)
    .flatMap(row => JSON.parse(row.heat_seen) as HeatSeen[])
}

/** The paces of a finished batch's trays; an empty list takes them away. */
export function replaceTrayPaces(db: Db, batchId: string, machineId: string | undefined, paces: readonly PlacePace[]): void {
  statement(db, 'DELETE FROM tray_pace WHERE batch_id = ?').run(batchId)
  for (const { place, lnPace, sd } of paces) {
    statement(db, 'INSERT INTO tray_pace (batch_id, machine_id, place, ln_pace, sd) VALUES (?, ?, ?, ?, ?)').run(
      batchId,
      machineId,
      place,
      lnPace,
      sd,
    )
  }
}

/** Paces of a machine's newest trays: what it was like years ago says little of its fan today. */
export function trayPacesOf(db: Db, machineId: string, limit: number): PlacePace[] {
  return statement<{ place: number; ln_pace: number; sd: number }>(
    db,
    'SELECT place, ln_pace, sd FROM tray_pace WHERE machine_id = ? ORDER BY batch_id DESC LIMIT ?',
  )
    .all(machineId, limit)
    .map(row => ({ place: row.place, lnPace: row.ln_pace, sd: row.sd }))
}

export function addUpkeep(db: Db, row: { id: string; machineId: string; task: string; at: number; hoursRun: number }): boolean {
  return (
    statement(db, 'INSERT INTO upkeep (id, machine_id, task, at, hours_run) VALUES (?, ?, ?, ?, ?) ON CONFLICT DO NOTHING').run(
      row.id,
      row.machineId,
      row.task,
      row.at,
      row.hoursRun,
    ).changes > 0
  )
}

export function upkeepDoneOf(db: Db, machineId: string): { task: string; at: number; hoursRun: number }[] {
  return statement<{ task: string; at: number; hours_run: number }>(
    db,
    'SELECT task, at, hours_run FROM upkeep WHERE machine_id = ? ORDER BY at',
  )
    .all(machineId)
    .map(row => ({ task: row.task, at: row.at, hoursRun: row.hours_run }))
}
