import { HEATED, INSECTS_WORDS, item, task, type WayOf } from './define'

/** Hours of useful sun in a day (common practice: from nine to dusk, less its edges). */
export const SUN_HOURS = 8

export const sun: WayOf<'sun'> = {
  ...HEATED,
  key: 'sun',
  name: 'Sun',
  machine: 'Sun',
  heat: { lowC: 10, highC: 60 },
  celsius: { value: 35 },
  hours: { from: 'factor', factor: 2.2 },
  reason:
    'Hours in the sun only: 30 °C and above, under 60 % humidity. It costs colour and vitamins; in at dusk, and a last half hour at 60 °C.',
  outdoors: true,
  unheated: true,
  drawsPower: false,
  nightsCount: false,
  mayRunOvernight: false,
  plainHeat: false,
  otherHeats: [],
  toldInDays: { hoursADay: SUN_HOURS, beyondHours: 0 },
  asks: ['weather', 'drying'],
  start: [
    item('weather', 'Dry days ahead: 30 °C and above, humidity under 60 %'),
    item('net', 'Covered against insects'),
    item('lift', 'Racks off the ground, air below'),
  ],
  end: [
    item('pasteurise', `Insects killed: ${INSECTS_WORDS}`),
    item('cool', 'A few thick pieces cooled and felt'),
    item('weigh', 'Dry weight taken'),
    item('wash', 'Racks and nets washed and dry'),
  ],
  upkeep: [task('net', 'Wash and mend the nets', 200)],
  words: {
    verb: 'In or out',
    ask: 'Now',
    hours: 'of sun',
    on: 'out in the sun, about {t}',
    off: 'brought in',
    choose: 'Out in the sun',
    wait: 'kept indoors',
    form: {
      label: 'It is',
      on: 'Out in the sun',
      off: 'Brought in',
      set: 'Air outdoors',
      then: 'The drying clock stops until it is out again. Covered indoors it takes a little back.',
    },
    airOf: 'Outdoors',
  },
}
