import { writeFileSync } from 'node:fs'
import { SAFETY_RULES, type SafetyRule } from '#core/safety'
import { WAYS } from '#core/ways'
import { HELD_AT, WAYS_IN } from './waysIn'

/** Makes `docs/cautions.md` from the rules: `npm run cautions`. A test holds the two together. */
const STEPS: Record<SafetyRule['step'], string> = {
  intake: 'coming in',
  prep: 'preparing',
  load: 'loading',
  dry: 'drying',
  rest: 'resting',
  grind: 'grinding',
  pack: 'packing',
  use: 'using',
}
/** Where the circumstance decides, not the food alone. */
const WHEN: Readonly<Record<string, string>> = {
  'raw-meat': 'no heat inside was logged, or too low',
  'raw-frozen': 'the card is raw, or no heat inside was logged',
  'liquid-unfrozen': 'it flows',
  'left-alone': 'it may run over a night',
  mould: 'mould was seen',
  moisture: 'moisture was seen',
  shards: 'one of its cuts is a sheet',
  oil: 'in oil above 4 °C',
  'no-oxygen': 'it may be above a water activity of 0.85',
  'too-warm': 'over the danger clock',
  unblanched: 'cassava, taro and yam, where no blanching was logged',
  'heat-after': 'raw jerky that was not heated once it was dry',
  sachets: 'an absorber or gel goes in',
  lid: 'sealed by vacuum',
  selling: 'at its label',
  'raw-back': 'it was dried raw',
  sulphite: 'it was dipped in sulphite',
  'outdoors-vegetables': 'neither fruit, chili nor seaweed',
}

export function cautionTable(): string {
  const row = ({ key, severity, step, traits, groups, not, ways, text, wayOut, authority }: SafetyRule) => {
    const of = traits ? traits.join(', ') : groups ? `the family ${groups.join(', ')}` : not ? `all but ${not.join(', ')}` : 'all'
    const where = ways
      ? Object.values(WAYS)
          .filter(ways)
          .map(way => way.name.toLowerCase())
          .join('; ')
      : ''
    const when = [where && `in: ${where}`, WHEN[key]].filter(Boolean).join('; ')
    return `| ${key} | ${severity} | ${STEPS[step]} | ${of} | ${when} | ${text}${wayOut ? ` *Way out:* ${wayOut}` : ''} | ${authority} |`
  }
  return `# Cautions

Made from \`core/safety/rules.ts\` by \`npm run cautions\`. A **note** is read at its step, a **care** is ticked once and written into
the log, a **stop** lets nothing be written until its way out is taken. Local guidance and the machine’s manual come first. Beside these
stand the cautions of single foods (in their files) and the danger clock of what is perishable (\`core/batch/dangerZone.ts\`): two hours
in all between 4 and 60 °C, those above 32 °C counted twice (USDA); vegetables once they are cooked until 52 °C (FDA); it ends at a water
activity of 0.85 (FDA Food Code), and is shown on the batch, on Now and in the verdict.

| rule | weight | step | foods with | where | words | authority |
|---|---|---|---|---|---|---|
${SAFETY_RULES.map(row).join('\n')}

## Where each stop is held

Each cross is a test in \`tests/unit/server/rulesAndWays.test.ts\`. A file that is imported brings what was: it is not refused, but what
comes of it is marked.

| stop | ${WAYS_IN.join(' | ')} |
|---|${WAYS_IN.map(() => '---|').join('')}
${Object.entries(HELD_AT)
  .map(([key, held]) => `| ${key} | ${WAYS_IN.map(way => (held.includes(way) ? '×' : '')).join(' | ')} |`)
  .join('\n')}
`
}

if (process.argv[1]?.endsWith('cautionTable.ts')) writeFileSync('docs/cautions.md', cautionTable())
