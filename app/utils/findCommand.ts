import { parseWeight } from '#core/units'

/** What was typed into the finder, where it is a deed or a number rather than words to look for. */
export type FindCommand =
  | { do: 'open'; kind: 'batch' | 'jar'; number: number }
  | { do: 'act'; act: 'weigh' | 'feel' | 'load' | 'unload' | 'look' | 'grind' | 'pack'; number: number }
  | { do: 'log'; grams: number; tray?: number; number: number }
  | { do: 'take'; grams: number; number: number }

const ACTS: Record<string, Extract<FindCommand, { do: 'act' }>['act']> = {
  weigh: 'weigh',
  feel: 'feel',
  load: 'load',
  'take out': 'unload',
  look: 'look',
  grind: 'grind',
  pack: 'pack',
}

/**
 * "batch 39", "jar 104", "weigh 40", "640 g tray 3 batch 40", "take 20 g jar 62"; undefined for anything else.
 * @param unit of a weight without one
 */
export function findCommand(text: string, unit: 'g' | 'oz'): FindCommand | undefined {
  const typed = text.trim().toLowerCase().replaceAll(/\s+/g, ' ')
  const opened = /^(batch|jar) #?(\d+)$/.exec(typed)
  if (opened) return { do: 'open', kind: opened[1] as 'batch' | 'jar', number: Number(opened[2]) }
  const act = /^(weigh|feel|load|take out|look|grind|pack)(?: batch)? #?(\d+)$/.exec(typed)
  if (act) return { do: 'act', act: ACTS[act[1]!]!, number: Number(act[2]) }
  const taken = /^take (.+?) (?:from )?jar #?(\d+)$/.exec(typed)
  if (taken) return weighed(taken[1]!, unit, grams => ({ do: 'take', grams, number: Number(taken[2]) }))
  const logged = /^(.+?)(?: tray (\d+))? batch #?(\d+)$/.exec(typed)
  if (logged)
    return weighed(logged[1]!, unit, grams => ({
      do: 'log',
      grams,
      tray: logged[2] === undefined ? undefined : Number(logged[2]),
      number: Number(logged[3]),
    }))
  return undefined
}

function weighed(words: string, unit: 'g' | 'oz', make: (grams: number) => FindCommand): FindCommand | undefined {
  if (!/\d/.test(words)) return undefined
  const grams = parseWeight(words, unit).value
  return grams !== undefined && grams > 0 ? make(grams) : undefined
}

/** Places and settings, by the words that people look for them with. */
export const FOUND_BY: readonly { title: string; detail: string; to: string; words: readonly string[] }[] = [
  {
    title: 'Units, clock and nights',
    detail: 'Set-up, household',
    to: '/workshop/household',
    words: [
      'settings',
      'units',
      '°f',
      '°c',
      'fahrenheit',
      'celsius',
      'ounces',
      'grams',
      'sleep',
      'night',
      'clock',
      'language',
      'money',
      'time zone',
    ],
  },
  {
    title: 'Backup and copies',
    detail: 'Data',
    to: '/data',
    words: ['backup', 'copy', 'restore', 'export', 'import', 'csv', 'json', 'file'],
  },
  { title: 'Machines', detail: 'Set-up', to: '/workshop', words: ['machine', 'dryer', 'dehydrator', 'oven', 'trays', 'tare'] },
  { title: 'Devices and scales', detail: 'Set-up', to: '/workshop/devices', words: ['scale', 'probe', 'hygrometer', 'device', 'sensor'] },
  { title: 'Tools and hygrometers', detail: 'Set-up', to: '/workshop/tools', words: ['grinder', 'sieve', 'mesh', 'salt test', 'tools'] },
  { title: 'Places', detail: 'Set-up', to: '/workshop/places', words: ['pantry', 'place', 'humidity', 'jar size'] },
  {
    title: 'Alarms',
    detail: 'Set-up',
    to: '/workshop/alarms',
    words: ['alarm', 'notification', 'mail', 'webhook', 'sound', 'bell', 'remind'],
  },
  {
    title: 'Home network',
    detail: 'Phones and tablets',
    to: '/home',
    words: ['phone', 'tablet', 'network', 'passphrase', 'code', 'sign in'],
  },
  {
    title: 'Harvests and days',
    detail: 'Plan',
    to: '/plan/garden',
    words: ['harvest', 'wish', 'away', 'garden', 'tariff', 'price of power'],
  },
  { title: 'The counter display', detail: 'For a tablet in the kitchen', to: '/counter', words: ['counter', 'display', 'tablet', 'wall'] },
  { title: 'Scan a jar', detail: 'By the camera', to: '/scan', words: ['scan', 'camera', 'code', 'label', 'qr'] },
  { title: 'Runs side by side', detail: 'Batches', to: '/compare', words: ['compare', 'side by side', 'beside'] },
  { title: 'The day on paper', detail: 'Print', to: '/print/day', words: ['print', 'paper', 'list', 'day'] },
  { title: 'The shelf on paper', detail: 'Print', to: '/print/shelf', words: ['print', 'paper', 'inventory', 'stock'] },
  { title: 'Count the shelf', detail: 'Shelf', to: '/count', words: ['count', 'inventory', 'stocktaking'] },
  { title: 'What it taught', detail: 'Insight', to: '/insight', words: ['insight', 'yield', 'cost', 'learned'] },
]

/** Of those, the ones that what was typed begins, or names in full. */
export const foundBy = (typed: string) => {
  const wanted = typed.trim().toLowerCase()
  if (wanted.length < 2) return []
  return FOUND_BY.filter(item => item.words.some(word => word.startsWith(wanted) || wanted.split(' ').includes(word)))
}
