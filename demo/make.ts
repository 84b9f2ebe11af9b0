import { rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { uuidv7 } from 'uuidv7'
import { openLogbook } from '#server/services/logbook'
import { saveHygrometer } from '#server/services/hygrometers'
import { machineList } from '#server/services/machines'
import { changeHousehold, saveMachine } from '#server/services/settings'
import { householdOf, type Context } from '#server/services/context'
import { saveWish } from '#server/services/shelf'
import { saveTool } from '#server/services/tools'
import { HOUSEHOLD, HYGROMETER, MACHINES, TOOLS, WISHES, YEAR, type MachineName } from './story'
import { inTheKitchen, writeRecipes } from './kitchen'
import { atTheShelf } from './shelf'
import { takePictures } from './pictures'
import { planWeek, writeWeek } from './week'
import { tell, type Deed, type Stage } from './write'

/**
 * Makes the invented household's year in a new logbook, relative to `now`, through the services that the
 * interface calls.
 * @returns the number of batches, and what truly lies in the rack that the simulated devices read
 */
export function makeDemo(path: string, now: number): { context: Context; batches: number; rack: Stage['rack'] } {
  for (const ending of ['', '-wal', '-shm']) rmSync(path + ending, { force: true })
  let clock = now
  const context = openLogbook(path, () => clock)
  // The demo is made in one go and can be made again: it need not wait for the disk at every entry.
  context.db.pragma('synchronous = OFF')
  changeHousehold(context, { ...householdOf(context), name: HOUSEHOLD.name })
  saveHygrometer(context, { id: uuidv7(), ...HYGROMETER })
  const tools = TOOLS.map(tool => saveTool(context, { id: uuidv7(), ...tool }))
  for (const wish of WISHES) saveWish(context, wish)
  writeRecipes(context)
  const stage: Stage = {
    context,
    machines: setUpMachines(context),
    grinderId: tools[0]!.id,
    running: {},
    accepted: new Set(),
    shelf: [],
    now,
  }
  let told = 0
  const tellers = [
    ...YEAR.map(chapter => tell(chapter, chapter.seed === undefined ? told++ : chapter.seed, stage)),
    atTheShelf(stage),
    inTheKitchen(stage),
  ]
  const next: (Deed | undefined)[] = tellers.map(teller => teller.next().value as Deed | undefined)
  for (;;) {
    let first = -1
    next.forEach((deed, i) => {
      if (deed && (first < 0 || deed.at < next[first]!.at)) first = i
    })
    if (first < 0) break
    clock = next[first]!.at + 120_000
    next[first]!.act()
    next[first] = tellers[first]!.next().value as Deed | undefined
  }
  clock = now
  writeWeek(context, now)
  takePictures(context, now)
  context.db.pragma('wal_checkpoint(TRUNCATE)')
  context.db.pragma('synchronous = FULL')
  return { context, batches: YEAR.length, rack: stage.rack }
}

/** The machine that a new logbook starts with becomes the cabinet; the others come beside it. */
function setUpMachines(context: Context): Record<MachineName, string> {
  const [given] = machineList(context)
  const ids = Object.fromEntries(Object.keys(MACHINES).map(name => [name, name === 'cabinet' ? given!.id : uuidv7()])) as Record<
    MachineName,
    string
  >
  for (const [name, { pace: _, places: __, dialOffC: ___, ...settings }] of Object.entries(MACHINES) as [
    MachineName,
    (typeof MACHINES)[MachineName],
  ][]) {
    saveMachine(context, { ...settings, trayTares: {}, id: ids[name], version: name === 'cabinet' ? given!.version : undefined })
  }
  return ids
}

if (process.argv[1]?.endsWith('make.ts')) {
  const folder = process.env.DULSE_DATA ?? '.data/demo'
  const { context, batches, rack } = makeDemo(join(folder, 'logbook.sqlite'), Date.now())
  await planWeek(context)
  context.db.close()
  writeFileSync(join(folder, 'simulated-rack.json'), JSON.stringify(rack))
  console.log(`${batches} batches of the invented household are in ${folder}`)
}
