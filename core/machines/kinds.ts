/** Kinds of machine that food is dried in. */
export const MACHINE_KINDS = ['dehydrator', 'oven', 'smoker', 'freeze-dryer', 'sun', 'air'] as const
export type MachineKind = (typeof MACHINE_KINDS)[number]

/** A line of a list that is gone through by the machine. */
export interface ListItem {
  key: string
  words: string
}

export interface UpkeepTask {
  key: string
  words: string
  /** Hours run after which it is due. */
  everyHours: number
}

export interface MachineKindFacts {
  key: MachineKind
  name: string
  /** The heat that is set on it, or the air that it stands in, °C: the usual range. */
  heat: { lowC: number; highC: number }
  /** Draws no power. */
  free?: boolean
  start: readonly ListItem[]
  end: readonly ListItem[]
  upkeep: readonly UpkeepTask[]
}

const item = (key: string, words: string): ListItem => ({ key, words })
const task = (key: string, words: string, everyHours: number): UpkeepTask => ({ key, words, everyHours })

/**
 * What is gone through before and after a run, and what wear asks for, by kind of machine. All common
 * practice; the machine's manual comes first, also for the hours.
 */
export const KIND_FACTS: Record<MachineKind, MachineKindFacts> = {
  dehydrator: {
    key: 'dehydrator',
    name: 'Dehydrator',
    heat: { lowC: 35, highC: 75 },
    start: [
      item('clear', 'Air in and out are clear'),
      item('warm', 'Fan runs, heat comes'),
      item('spread', 'One layer; a free level above sheets'),
      item('weighed', 'Trays weighed with their food'),
    ],
    end: [
      item('cool', 'A few thick pieces cooled and felt'),
      item('weigh', 'Dry weight taken'),
      item('wash', 'Trays washed and dry'),
      item('off', 'Switched off at the plug'),
    ],
    upkeep: [
      task('filter', 'Clean the air filter or grille', 100),
      task('fan', 'Dust the fan and heater, cold and unplugged', 250),
      task('thermostat', 'Check the thermostat against a thermometer', 300),
    ],
  },
  oven: {
    key: 'oven',
    name: 'Oven',
    heat: { lowC: 50, highC: 120 },
    start: [
      item('thermometer', 'A thermometer stands among the trays'),
      item('ajar', 'Door ajar, small children away; gas only as its manual allows'),
      item('fan', 'Fan on, if it has one'),
    ],
    end: [item('cool', 'A few thick pieces cooled and felt'), item('weigh', 'Dry weight taken'), item('off', 'Oven off, door shut')],
    upkeep: [task('thermostat', 'Check the lowest setting against a thermometer', 100), task('seal', 'Look at the door seal', 300)],
  },
  smoker: {
    key: 'smoker',
    name: 'Smoker',
    heat: { lowC: 60, highC: 120 },
    start: [
      item('outdoors', 'Outdoors, clear of doors and windows: carbon monoxide'),
      item('ash', 'Ash and grease pan empty'),
      item('low', 'Held at its lowest before food goes in'),
    ],
    end: [item('out', 'Fire out, ash cold'), item('move', 'Food into the dryer the same day'), item('weigh', 'Weighed before it goes on')],
    upkeep: [task('grease', 'Clean the grease pan and racks', 20), task('thermostat', 'Check the thermometer in the lid', 60)],
  },
  'freeze-dryer': {
    key: 'freeze-dryer',
    name: 'Freeze dryer',
    heat: { lowC: 20, highC: 65 },
    start: [
      item('chilled', 'Chamber chilled, 15 to 30 minutes'),
      item('drain', 'Drain valve shut'),
      item('seal', 'Door seal wiped, door latched'),
      item('frozen', 'Liquids frozen solid, none unfrozen among them'),
      item('fan', 'A fan on the pump'),
      item('oil', 'Pump oil clear and at its mark'),
    ],
    end: [
      item('cold', 'No tray cool to the hand, none with a cold spot'),
      item('vent', 'Vented until the pressure is equal'),
      item('weigh', 'Trays weighed, twice with two hours between'),
      item('pack', 'Packed or ground at once'),
      item('defrost', 'Defrosted'),
      item('drained', 'Drained, valve left open'),
    ],
    upkeep: [
      task('oil', 'Filter or change the pump oil', 100),
      task('oil-filter', 'Change the oil filter', 400),
      task('seal', 'Wipe and look over the door seal', 100),
      task('thermometer', 'Check the shelf thermometer', 500),
    ],
  },
  sun: {
    key: 'sun',
    name: 'Sun',
    heat: { lowC: 10, highC: 60 },
    free: true,
    start: [
      item('weather', 'Dry days ahead: 30 °C and above, humidity under 60 %'),
      item('net', 'Covered against insects'),
      item('lift', 'Racks off the ground, air below'),
    ],
    end: [
      item('pasteurise', 'Insects killed: −18 °C for 48 h, or 71 °C for 30 min in a thin layer'),
      item('cool', 'A few thick pieces cooled and felt'),
      item('weigh', 'Dry weight taken'),
    ],
    upkeep: [task('net', 'Wash and mend the nets', 200)],
  },
  air: {
    key: 'air',
    name: 'Warm room',
    heat: { lowC: 5, highC: 45 },
    free: true,
    start: [item('shade', 'Shade, moving air, no steam from the stove'), item('apart', 'Nothing touches or overlaps')],
    end: [
      item('cool', 'A few thick pieces felt'),
      item('weigh', 'Dry weight taken'),
      item('pasteurise', 'Insects killed, if it stood open'),
    ],
    upkeep: [task('racks', 'Wash the racks and strings', 300)],
  },
}

/** The item of a list by its key; undefined for one that this kind of machine does not have. */
export function listItem(kind: MachineKind, list: 'start' | 'end', key: string): ListItem | undefined {
  return KIND_FACTS[kind][list].find(entry => entry.key === key)
}
