import { clocks } from './clocks'
import { cuts } from './cuts'
import { damage } from './damage'
import { disk } from './disk'
import { floods } from './floods'
import { inputs } from './inputs'
import { kills } from './kills'
import { lives } from './lives'
import { outsiders } from './outsiders'
import { servers } from './servers'
import type { Campaign } from './campaign'

/** Each against a server of its own, seeded: the same hardship each time. Ends with code 1 where one found a fault. */
const CAMPAIGNS: Record<string, { run: Campaign; whole: number; fast: number }> = {
  kills: { run: kills, whole: 1000, fast: 12 },
  inputs: { run: inputs, whole: 10_000, fast: 600 },
  damage: { run: damage, whole: 60, fast: 8 },
  cuts: { run: cuts, whole: 20, fast: 2 },
  disk: { run: disk, whole: 12, fast: 2 },
  servers: { run: servers, whole: 20, fast: 2 },
  clocks: { run: clocks, whole: 200, fast: 20 },
  outsiders: { run: outsiders, whole: 1200, fast: 440 },
  lives: { run: lives, whole: 100_000, fast: 500 },
  floods: { run: floods, whole: 1500, fast: 200 },
}

const asked = process.argv.slice(2)
const fast = asked.includes('--fast')
const names = asked.filter(name => !name.startsWith('--'))
const unknown = names.filter(name => !(name in CAMPAIGNS))
if (unknown.length > 0) {
  console.error(`There is no campaign “${unknown[0]}”: choose of ${Object.keys(CAMPAIGNS).join(', ')}.`)
  process.exit(1)
}
let faults = 0
for (const [name, { run, whole, fast: some }] of Object.entries(CAMPAIGNS)) {
  if (names.length > 0 && !names.includes(name)) continue
  const begun = performance.now()
  const found = await run(fast ? some : whole)
  faults += found.faults.length
  console.log(`${name.padEnd(9)} ${found.figures} (${((performance.now() - begun) / 1000).toFixed(0)} s)`)
  for (const fault of found.faults.slice(0, 20)) console.log(`          FAULT ${fault}`)
  if (found.faults.length > 20) console.log(`          and ${found.faults.length - 20} more`)
}
console.log(faults === 0 ? 'no fault found' : `${faults} faults`)
process.exitCode = faults === 0 ? 0 : 1
