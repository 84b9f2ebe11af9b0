import { foldBatch } from '#core/batch'
import { inForce, ofKind } from '#core/log'
import { InputError } from '#core/errors'
import { evennessOf, swapsWorthMaking, thermostatOffset, upkeepOf } from '#core/machines'
import { WAYS } from '#core/ways'
import type { MachineAnswer, MachinePageAnswer, UpkeepDone } from '#shared/contracts'
import { outBy } from '#core/planning'
import { dryingViews, type BatchViewRow } from '#server/db/batches'
import { entriesOfBatch, entriesOfRun } from '#server/db/entries'
import { addUpkeep, heatSeenOf, hoursRunOf, trayPacesOf, upkeepDoneOf } from '#server/db/runs'
import { findMachine, listMachines, type MachineRecord } from '#server/db/settings'
import type { Context } from './context'
import { deviceList } from './devices'
import { calibrationOf, HEATS_LEARNED_FROM, hoursLearned, TRAYS_LEARNED_FROM } from './learning'
import { NotFound } from './refusals'
import { MINUTE } from '#core/time'

/** A machine with all that its own runs say of it. */
function withFacts(context: Context, machine: MachineRecord): MachineAnswer {
  const { db } = context
  const pace = hoursLearned(context).effectOf('machine', machine.id)
  const hoursRun = hoursRunOf(db, machine.id)
  return {
    ...machine,
    hoursRun,
    upkeep: upkeepOf(machine.kind, hoursRun, upkeepDoneOf(db, machine.id)),
    thermostat: thermostatOffset(heatSeenOf(db, machine.id, HEATS_LEARNED_FROM)),
    evenness: evennessOf(trayPacesOf(db, machine.id, TRAYS_LEARNED_FROM)),
    ...(pace && { pace }),
  }
}

/** What stands in a machine, and when it is out: an overdue load stays where it is until somebody takes it. */
export function standingIn({ db, now }: Pick<Context, 'db' | 'now'>, machineId: string): Standing[] {
  return dryingViews(db)
    .filter(view => view.machine_id === machineId)
    .map(view => ({
      view,
      places: (JSON.parse(view.trays) as number[]).length,
      out: outBy({ loadedAt: view.loaded_at ?? view.started_at, from: view.finish_from, to: view.finish_to }, now()),
    }))
}
interface Standing {
  view: BatchViewRow
  places: number
  out?: { p50: number; p90: number }
}

export function machineList(context: Context): MachineAnswer[] {
  return listMachines(context.db).map(machine => withFacts(context, machine))
}

/** A machine with what runs in it: the run's own log, and the log of every batch. */
export function machinePage(context: Context, machineId: string): MachinePageAnswer {
  const { db } = context
  const record = findMachine(db, machineId)
  if (!record) throw new NotFound('machineId', 'There is no such machine.')
  const machine = withFacts(context, record)
  const views = dryingViews(db).filter(view => view.machine_id === machineId)
  const runId = views[0]?.run_id
  const devices = deviceList(context).filter(device => device.machineId === machineId)
  const calibration = calibrationOf(context, machineId, record.kind)
  if (!runId) return { machine, devices, swaps: [], calibration }
  const log = entriesOfRun(db, runId)
  const moved = ofKind(inForce(log), 'move').length > 0
  return {
    machine,
    devices,
    calibration,
    run: {
      runId,
      entries: log,
      batches: views.map(view => ({
        batchId: view.batch_id,
        number: view.number,
        title: view.title,
        ...foodAndLog(context, view),
      })),
    },
    // Swapped once, each tray has half of either place: again would undo it.
    swaps: moved
      ? []
      : swapsWorthMaking(
          machine.evenness ?? [],
          views.flatMap(view => JSON.parse(view.trays) as number[]),
        ),
  }
}

/** What lies on a machine's trays, a mix as what it is, with its log. */
function foodAndLog({ db, foods }: Context, { batch_id, food_key }: { batch_id: string; food_key: string }) {
  const entries = entriesOfBatch(db, batch_id)
  const mixed = entries.some(({ body }) => body.kind === 'intake' && body.mix)
  return { entries, food: (mixed && foldBatch(entries, foods.find)?.food) || foods.find(food_key)! }
}

/** Notes that a task of upkeep was done, at the hours run by now. Sent again it changes nothing. */
export function noteUpkeep(context: Context, machineId: string, done: UpkeepDone): MachineAnswer {
  const { db } = context
  return db
    .transaction(() => {
      const machine = findMachine(db, machineId)
      if (!machine) throw new NotFound('machineId', 'There is no such machine.')
      if (!WAYS[machine.kind].upkeep.some(task => task.key === done.task))
        throw new InputError([
          {
            field: 'task',
            code: 'unknown-task',
            message: `“${done.task}” is not a task of this kind of machine: ${WAYS[machine.kind].upkeep.map(task => task.key).join(', ')}.`,
          },
        ])
      if (done.at > context.now() + 5 * MINUTE)
        throw new InputError([{ field: 'at', code: 'in-future', message: 'This is in the future. Give the time when it was done.' }])
      addUpkeep(db, { ...done, machineId, hoursRun: hoursRunOf(db, machineId) })
      return withFacts(context, machine)
    })
    .immediate()
}
