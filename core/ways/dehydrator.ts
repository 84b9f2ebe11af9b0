import { HEATED, item, task, type WayOf } from './define'

export const dehydrator: WayOf<'dehydrator'> = {
  ...HEATED,
  key: 'dehydrator',
  name: 'Dehydrator',
  machine: 'Dehydrator',
  heat: { lowC: 35, highC: 75 },
  hours: { from: 'said' },
  reason: '',
  hotStart: true,
  otherHeats: 'schools',
  asks: ['drying', 'lowering', 'swapping'],
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
  words: {
    verb: 'Heat',
    ask: 'Heat',
    hours: 'of heat',
    on: 'heat on, {t}',
    off: 'heat off',
    wait: 'stays off',
    form: {
      label: 'Heat',
      on: 'On',
      off: 'Off',
      set: 'Set to',
      then: 'The drying clock stops. Food in a switched-off machine takes water back from the room.',
    },
    airOf: 'Room',
  },
}
