import type { EntryBody } from '#core/log'
import { formatLength, formatTemperature, formatWeight } from '#core/units'
import { logWords, positions } from '../../../app/utils/logWords'
import { isPlaceOf, PLACES } from '../../../app/utils/places'
import { recentAir } from '../../../app/utils/recentAir'
import { RAMP, rampColour } from '../../../app/utils/ramp'
import { minuteOfDay } from '../../../app/utils/clockText'
import { heatState } from '#core/ways'
import { countWord, paceWords, plural, foodWords, personWords } from '../../../app/utils/words'

const metric = {
  weight: (g: number) => formatWeight(g, 'g'),
  temperature: (c: number) => formatTemperature(c, 'C'),
  length: (mm: number) => formatLength(mm, 'g'),
  volume: (ml: number) => `${ml} mL`,
  sentence: (text: string) => text,
}
const pounds = {
  weight: (g: number) => formatWeight(g, 'oz'),
  temperature: (c: number) => formatTemperature(c, 'F'),
  length: (mm: number) => formatLength(mm, 'oz'),
  volume: (ml: number) => `${ml} mL`,
  sentence: (text: string) => text,
}
const plain = (text: string) => text.replaceAll('\u00A0', ' ')
const id = '0199b000-0000-7000-8000-000000000001'

describe('a line of the log', () => {
  it.each<[EntryBody, string]>([
    [
      { kind: 'intake', foodKey: 'beetroot', source: 'Own garden', weightG: 3420, purpose: 'powder', cardKey: 'slices-3' },
      'came in, 3.42 kg, Own garden',
    ],
    [{ kind: 'prep', step: 'trim', effect: 'waste', weightG: 300 }, 'trim, 300 g off'],
    [{ kind: 'prep', step: 'roast', effect: 'water', weightG: 450, note: 'Covered' }, 'roast, 450 g of water gone. Covered'],
    [{ kind: 'prep', step: 'season', effect: 'added', added: { saltG: 10, oilG: 5 } }, 'season, 15 g added'],
    [{ kind: 'prep', step: 'cut', effect: 'none', cutName: '3 mm slices' }, 'cut: 3 mm slices'],
    [{ kind: 'load', runId: id, machineId: id, positions: [5, 1, 2, 3], totalG: 1700 }, 'loaded 1.70 kg on trays 1–3, 5'],
    [{ kind: 'load', runId: id, machineId: id, positions: [4], totalG: 170 }, 'loaded 170 g on tray 4'],
    [{ kind: 'heat', runId: id, setC: 57 }, 'heat on, 57 °C'],
    [{ kind: 'heat', runId: id, setC: null }, 'heat off'],
    [{ kind: 'air', runId: id, roomC: 21, roomHumidity: 0.58, chamberC: 55 }, 'room 21 °C, 58 % humidity; 55 °C measured in the machine'],
    [{ kind: 'air', runId: id, chamberC: 55 }, '55 °C measured in the machine'],
    [{ kind: 'jarAir', shown: 0.34, closedHours: 12, calibration: { offset: 0, gain: 1, sd: 0.02 } }, 'jar air at 34 % after 12 h'],
    [
      { kind: 'stock', jarId: id, foodKey: 'cumin', purpose: 'powder', netG: 45, packageKey: 'bag', place: 'Drawer', source: 'Market' },
      'came in, 45 g, Market, Drawer',
    ],
    [
      {
        kind: 'fill',
        jarId: id,
        from: [
          { jarId: 'a', weightG: 40 },
          { jarId: 'b', weightG: 20, toastedG: 19 },
        ],
        packageKey: 'bag',
        place: 'Drawer',
        blend: { name: 'Rub', sifted: { openingUm: 500, overG: 2 } },
      },
      'blended from 2 jars, 60 g, toasted, sifted at 500 µm',
    ],
    [{ kind: 'weigh', totalG: 700 }, 'weighed 700 g'],
    [{ kind: 'weigh', trays: [{ position: 2, weightG: 93 }] }, 'tray 2 weighed 93 g'],
    [
      { kind: 'feel', check: { form: 'pieces', answers: { bend: 'snaps', middle: 'even' }, cooled: false, places: 1 } },
      'felt: snaps clean, as dry as the rim (warm)',
    ],
    [{ kind: 'unload', weightG: 224 }, 'taken out, 224 g'],
    [{ kind: 'rest', container: '1.5 L jar' }, 'rest began, 1.5 L jar'],
    [{ kind: 'look', saw: 'clumps', note: 'At the bottom' }, 'looked: sticking or clumps. At the bottom'],
    [{ kind: 'restEnd' }, 'rest ended'],
    [{ kind: 'grind', dryInG: 224, powderOutG: 212 }, 'ground 224 g to 212 g'],
    [{ kind: 'pack', jarId: id, netG: 112, packageKey: 'foil-bag', place: 'Cellar' }, 'packed 112 g, foil-laminate bag, Cellar'],
    [{ kind: 'take', jarId: id, weightG: 15, use: 'Soup' }, 'took 15 g for soup'],
    [{ kind: 'smell', jarId: id, smell: 'crushed' }, 'smell: only when crushed'],
    [{ kind: 'look', saw: 'hung', jar: 2 }, 'jar 2 looked at: packed only, it fell when knocked'],
    [{ kind: 'restOut', jar: 2, weightG: 90, cause: 'Mould' }, 'jar 2 thrown away, 90 g: Mould'],
    [{ kind: 'review', again: 'changed', text: 'Thinner' }, 'next time: again, but changed. Thinner'],
    [
      {
        kind: 'grind',
        dryInG: 100,
        powderOutG: 104,
        rounds: [{ inG: 50 }, { inG: 50 }],
        seed: { jarId: id, weightG: 10 },
        passes: [{ openingUm: 600, throughG: 90, overG: 10 }],
      },
      'ground 100 g to 104 g in 2 rounds, seeded with 10 g, sifted 1×',
    ],
    [{ kind: 'lookJar', jarId: id, saw: 'packed' }, 'looked: packed: a spoon breaks it'],
    [{ kind: 'measure', jarId: id, ml: 15, weightG: 8 }, '15 mL weighs 8 g'],
    [
      { kind: 'pack', jarId: id, netG: 60, packageKey: 'screw-jar', place: 'Top', topUp: true },
      'topped up with 60 g, screw jar, lined lid, Top',
    ],
    [{ kind: 'note', text: 'Muddy' }, 'Muddy'],
    [{ kind: 'finish', reason: 'eaten' }, 'finished: eaten'],
    [{ kind: 'void', target: id }, 'voided an entry'],
  ])('%j', (body, words) => expect(plain(logWords(body, metric))).toBe(words))

  it('follows the household’s units', () => {
    expect(plain(logWords({ kind: 'weigh', totalG: 1474.2 }, pounds))).toBe('weighed 3 lb 4 oz')
    expect(plain(logWords({ kind: 'heat', runId: id, setC: 57.2 }, pounds))).toBe('heat on, 135 °F')
  })
})

describe('small words', () => {
  it('trays are joined to spans', () => {
    expect(positions([3, 1, 2, 7, 9, 8])).toBe('1–3, 7–9')
    expect(positions([4])).toBe('4')
    expect(positions([])).toBe('')
  })
  it('counts read as words up to twelve', () => {
    expect([0, 1, 7, 12, 13].map(countWord)).toEqual(['Nothing', 'One', 'Seven', 'Twelve', '13'])
    expect([plural(1, 'jar'), plural(0, 'jar'), plural(2, 'batch', 'batches')]).toEqual(['1 jar', '0 jars', '2 batches'])
  })
})

describe('the pace of a machine', () => {
  it.each([
    [{ p10: 1.1, p50: 1.2, p90: 1.3 }, 6, 'Cabinet runs 20 % slower than the cards, from 6 runs.'],
    [{ p10: 0.8, p50: 0.88, p90: 0.97 }, 1, 'Cabinet runs 12 % faster than the cards, from 1 run.'],
    [{ p10: 0.95, p50: 1.1, p90: 1.3 }, 2, 'Cabinet runs about as the cards say, from 2 runs.'],
    [{ p10: 1.005, p50: 1.02, p90: 1.04 }, 30, 'Cabinet runs about as the cards say, from 30 runs.'],
  ])('%j from %i', (hours, runs, words) => expect(paceWords('Cabinet', { factor: hours, runs })).toBe(words))
  it('a food is told where it differs, a person always', () => {
    const hours = { p10: 1.04, p50: 1.1, p90: 1.2 }
    const even = { p10: 0.9, p50: 1.02, p90: 1.1 }
    expect(foodWords('Leek', { factor: hours, runs: 4 })).toBe('Leek takes 10 % longer than its card in any machine, from 4 runs.')
    expect(foodWords('Leek', { factor: even, runs: 4 })).toBeUndefined()
    expect(personWords('Wren', { factor: hours, runs: 1 })).toBe('What Wren cuts takes 10 % longer, from 1 run.')
    expect(personWords('Wren', { factor: even, runs: 3 })).toBe('What Wren cuts takes as long as the rest, from 3 runs.')
  })
})

describe('the ramp', () => {
  it('runs from brine, wet, to husk, dry, and never leaves it', () => {
    expect(rampColour(1)).toContain(`var(--${RAMP[0]}) 100%`)
    expect(rampColour(0)).toContain(`0%, var(--${RAMP[4]})`)
    expect(rampColour(5)).toBe(rampColour(1))
    expect(rampColour(-1)).toBe(rampColour(0))
    expect(rampColour(0.5)).toContain('var(--straw) 100%')
    expect(rampColour(0.875)).toBe('color-mix(in oklab, var(--brine) 50%, var(--sea-glass))')
  })
})

describe('places', () => {
  it('each page belongs to one place of the rail', () => {
    const placesOf = (path: string) => PLACES.filter(place => isPlaceOf(place.to, path)).map(place => place.name)
    expect(placesOf('/')).toEqual(['Now'])
    expect(placesOf('/intake')).toEqual(['Batches'])
    expect(placesOf('/batches/x')).toEqual(['Batches'])
    expect(placesOf('/jars/x/label')).toEqual(['Shelf'])
    expect(placesOf('/workshop')).toEqual(['Set-up'])
    expect(placesOf('/shelfish')).toEqual([])
  })
})

describe('room air measured before', () => {
  it('stands in for a new reading for six hours, then no longer', () => {
    const air = { at: 0, roomC: 20 }
    expect(recentAir(air, 5 * 3_600_000)).toBe(air)
    expect(recentAir(air, 7 * 3_600_000)).toBeUndefined()
    expect(recentAir(undefined, 0)).toBeUndefined()
  })
})

describe('words of a way', () => {
  it.each([
    ['sun', 34, 'out in the sun, about 34\u00A0°C'],
    ['sun', null, 'brought in'],
    ['air', 22, 'hung in the air, 22\u00A0°C'],
    ['freeze-dryer', 50, 'cycle running, shelves to 50\u00A0°C'],
    ['freeze-dryer', null, 'cycle stopped'],
    ['smoker', 85, 'in the smoke, 85\u00A0°C'],
    ['smoker', null, 'fire out'],
    ['oven', 75, 'heat on, 75\u00A0°C'],
    [undefined, null, 'heat off'],
  ] as const)('%s at %s', (way, setC, words) => {
    expect(heatState(way ?? 'dehydrator', setC, metric.temperature)).toBe(words)
    expect(logWords({ kind: 'heat', runId: '', setC }, { ...metric, way })).toBe(words)
  })
  it.each<[EntryBody, string]>([
    [{ kind: 'prep', step: 'cook', effect: 'water', weightG: 120, coreC: 75 }, 'cook, 75\u00A0°C inside, 120\u00A0g of water gone'],
    [{ kind: 'prep', step: 'puree', effect: 'none' }, 'purée'],
    [{ kind: 'split', weightG: 900, to: 'x', what: 'for soup' }, '900\u00A0g became a batch of its own: for soup'],
    [{ kind: 'hold', place: 'refrigerator' }, 'kept in the refrigerator'],
    [{ kind: 'hold', place: null }, 'taken up again'],
    [{ kind: 'cycleHours', runId: '', hours: 8, why: 'until we are up' }, '8\u00A0h added to the cycle: until we are up'],
    [{ kind: 'cycleHours', runId: '', hours: -3 }, '3\u00A0h taken off the cycle'],
    [
      { kind: 'powderDry', how: 'oven-off', minutes: 15, afterG: 60 },
      'powder dried in an oven heated and switched off, 15 min, 60\u00A0g after',
    ],
    [{ kind: 'outlook', runId: '', duskMinute: 1080 }, 'comes in at dusk'],
    [{ kind: 'caution', rule: 'gloves' }, 'read and accepted: gloves'],
    [{ kind: 'moveJar', jarId: 'x', place: 'Cellar' }, 'moved to Cellar'],
    [{ kind: 'discard', jarId: 'x', cause: 'Mould' }, 'discarded: Mould'],
  ])('%j', (body, words) => {
    expect(logWords(body, metric)).toBe(words)
  })
  it('dusk, rain and a caution have their words where they are known', () => {
    expect(
      logWords(
        { kind: 'outlook', runId: '', duskMinute: 1080, rainAt: 5 },
        { ...metric, clock: () => '18:00', dayTime: () => 'Thu 15:00' },
      ),
    ).toBe('comes in at 18:00; rain expected Thu 15:00')
    expect(logWords({ kind: 'caution', rule: 'gloves' }, { ...metric, caution: () => 'Gloves.' })).toBe('read and accepted: Gloves.')
  })
})

describe('a time as typed', () => {
  it.each([
    ['18:30', 1110],
    [' 7.05 ', 425],
    ['24:00', undefined],
    ['12:60', undefined],
    ['noon', 720],
    ['6:30 pm', 1110],
    ['6.30 PM', 1110],
    ['6 p.m.', 1080],
    ['12 am', 0],
    ['12:15 pm', 735],
    ['1830', 1110],
    ['6:30\u202FPM', 1110],
    // Which half of the day?
    ['6', undefined],
    ['18 pm', undefined],
    ['0 am', undefined],
    ['half past six', undefined],
    ['', undefined],
  ])('%j', (text, minute) => {
    expect(minuteOfDay(text)).toBe(minute)
  })
})

describe('a jar’s own log', () => {
  const from = { jarId: 'a', weightG: 25 }
  it.each<[EntryBody, string, string]>([
    [{ kind: 'fill', jarId: 'b', from: [from], packageKey: 'bag', place: 'Door' }, 'a', '25\u00A0g went into a new jar, Door'],
    [
      { kind: 'fill', jarId: 'b', from: [from, { jarId: 'c', weightG: 5 }], packageKey: 'bag', place: 'Door' },
      'b',
      'filled from 2 jars, 30\u00A0g',
    ],
    [{ kind: 'pour', jarId: 'b', from }, 'a', '25\u00A0g poured onto another jar'],
    [{ kind: 'pour', jarId: 'b', from }, 'b', '25\u00A0g poured in from another jar'],
    [{ kind: 'grind', dryInG: 50, powderOutG: 70, seed: from }, 'a', '25\u00A0g seeded a grinding'],
  ])('%j as jar %s has it', (body, jarId, words) => {
    expect(logWords(body, { ...metric, jarId })).toBe(words)
  })
})
