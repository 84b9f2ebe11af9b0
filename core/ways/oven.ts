import { HEATED, item, task, type WayOf } from './define'

export const oven: WayOf<'oven'> = {
  ...HEATED,
  key: 'oven',
  name: 'Oven, door ajar',
  machine: 'Oven',
  heat: { lowC: 50, highC: 120 },
  celsius: { value: 75, least: true },
  hours: { from: 'factor', factor: 0.6 },
  reason: 'The lowest that most ovens hold, with the door ajar. It cooks a little: look after an hour, then hourly, and turn.',
  doorAjar: true,
  otherHeats: [65, 85],
  asks: ['drying', 'turning'],
  start: [
    item('thermometer', 'A thermometer stands among the trays'),
    item('ajar', 'Door ajar, small children away; gas only as its manual allows'),
    item('fan', 'Fan on, if it has one'),
  ],
  end: [item('cool', 'A few thick pieces cooled and felt'), item('weigh', 'Dry weight taken'), item('off', 'Oven off, door shut')],
  upkeep: [task('thermostat', 'Check the lowest setting against a thermometer', 100), task('seal', 'Look at the door seal', 300)],
  words: {
    verb: 'Heat',
    ask: 'Heat',
    hours: 'of heat',
    on: 'heat on, {t}',
    off: 'heat off',
    wait: 'stays off',
    form: {
      label: 'Oven',
      on: 'On',
      off: 'Off',
      set: 'Set to',
      then: 'The drying clock stops. With the door shut it stays warm a while, and damp.',
    },
    airOf: 'Room',
  },
}
