import type { Food } from './types'
import { EXTENSION, KEEPS, PRACTICE, REASONS, TARGETS, USDA } from './sources'

const NITRATE = 'Root and leaf powders concentrate nitrate and oxalate: not for infants, and people on blood thinners or with kidney disease ask their doctor.'
const vegetableTarget = { target: TARGETS.vegetable, targetSource: EXTENSION }

export const beetroot: Food = {
  key: 'beetroot', name: 'Beetroot', group: 'root', ...vegetableTarget,
  rawMoisture: { value: { mean: 0.876, sd: 0.012 }, source: USDA },
  trimShare: { value: { mean: 0.16, sd: 0.06 }, source: PRACTICE },
  freshDays: { value: 14, source: PRACTICE },
  cards: [
    { key: 'slices-3', name: '3 mm slices', feelForm: 'pieces', thicknessMm: 3, usualHours: { value: { low: 8, high: 13 }, source: PRACTICE }, temperatureC: 57, temperatureReason: REASONS.vegetables57, trayLoadKgM2: { mean: 4.2, sd: 0.6 } },
    { key: 'slices-6', name: '6 mm slices', feelForm: 'pieces', thicknessMm: 6, usualHours: { value: { low: 12, high: 20 }, source: PRACTICE }, temperatureC: 57, temperatureReason: REASONS.vegetables57, trayLoadKgM2: { mean: 6.5, sd: 0.8 } },
    { key: 'shreds', name: 'Shreds', feelForm: 'shreds', thicknessMm: 2, usualHours: { value: { low: 6, high: 10 }, source: PRACTICE }, temperatureC: 57, temperatureReason: REASONS.vegetables57, trayLoadKgM2: { mean: 4, sd: 0.8 } },
  ],
  drynessTest: { value: 'Slices snap clean and the middle is as dark and dull as the rim.', source: EXTENSION },
  powderColour: '#8A1C3B', powderDensity: { value: { mean: 0.6, sd: 0.08 }, source: PRACTICE },
  keepsMonths: KEEPS.vegetable, keepsReason: 'Colour fades before taste does.', keepsSource: PRACTICE,
  allergens: [], cautions: [{ step: 'pack', text: NITRATE }],
}

export const carrot: Food = {
  key: 'carrot', name: 'Carrot', group: 'root', ...vegetableTarget,
  rawMoisture: { value: { mean: 0.883, sd: 0.01 }, source: USDA },
  trimShare: { value: { mean: 0.14, sd: 0.05 }, source: PRACTICE },
  freshDays: { value: 21, source: PRACTICE },
  cards: [
    { key: 'slices-3', name: '3 mm slices', feelForm: 'pieces', thicknessMm: 3, usualHours: { value: { low: 7, high: 12 }, source: PRACTICE }, temperatureC: 57, temperatureReason: REASONS.vegetables57, trayLoadKgM2: { mean: 4, sd: 0.6 } },
    { key: 'shreds', name: 'Shreds', feelForm: 'shreds', thicknessMm: 2, usualHours: { value: { low: 6, high: 10 }, source: PRACTICE }, temperatureC: 57, temperatureReason: REASONS.vegetables57, trayLoadKgM2: { mean: 4, sd: 0.8 } },
  ],
  drynessTest: { value: 'Pieces snap; shreds crunch and fall off the bent mesh.', source: EXTENSION },
  powderColour: '#D8862C', powderDensity: { value: { mean: 0.58, sd: 0.08 }, source: PRACTICE },
  keepsMonths: KEEPS.bright, keepsReason: 'Its orange bleaches in air and light.', keepsSource: PRACTICE,
  allergens: [], cautions: [{ step: 'pack', text: NITRATE }],
}

export const celery: Food = {
  key: 'celery', name: 'Celery', group: 'stalk', ...vegetableTarget,
  rawMoisture: { value: { mean: 0.954, sd: 0.008 }, source: USDA },
  trimShare: { value: { mean: 0.15, sd: 0.06 }, source: PRACTICE },
  freshDays: { value: 10, source: PRACTICE },
  cards: [
    { key: 'slices-6', name: '6 mm slices', feelForm: 'pieces', thicknessMm: 6, usualHours: { value: { low: 9, high: 15 }, source: PRACTICE }, temperatureC: 57, temperatureReason: REASONS.vegetables57, trayLoadKgM2: { mean: 4.5, sd: 0.7 } },
  ],
  drynessTest: { value: 'Pieces are hard and snap; nothing bends at the thick end.', source: EXTENSION },
  powderColour: '#9DA55F', powderDensity: { value: { mean: 0.45, sd: 0.08 }, source: PRACTICE },
  keepsMonths: KEEPS.vegetable, keepsReason: 'Scent goes first.', keepsSource: PRACTICE,
  allergens: ['celery'], cautions: [],
}

export const kale: Food = {
  key: 'kale', name: 'Kale', group: 'leaf', target: TARGETS.leaf, targetSource: EXTENSION,
  rawMoisture: { value: { mean: 0.86, sd: 0.025 }, source: `${USDA}; its older and newer entries differ, 84 and 89.6 %` },
  trimShare: { value: { mean: 0.3, sd: 0.08 }, source: PRACTICE },
  freshDays: { value: 5, source: PRACTICE },
  cards: [
    { key: 'leaves', name: 'Leaves off the stalk', feelForm: 'leaves', usualHours: { value: { low: 4, high: 8 }, source: PRACTICE }, temperatureC: 52, temperatureReason: 'Leaves brown above this; stalks would take far longer, so they go elsewhere.', trayLoadKgM2: { mean: 1.3, sd: 0.3 } },
  ],
  drynessTest: { value: 'Leaves crumble between the fingers and stems snap.', source: EXTENSION },
  powderColour: '#4A6630', powderDensity: { value: { mean: 0.32, sd: 0.06 }, source: PRACTICE },
  keepsMonths: KEEPS.vegetable, keepsReason: 'Green turns to olive in light.', keepsSource: PRACTICE,
  allergens: [], cautions: [{ step: 'pack', text: NITRATE }],
}

export const pumpkin: Food = {
  key: 'pumpkin', name: 'Pumpkin', group: 'gourd', ...vegetableTarget,
  rawMoisture: { value: { mean: 0.916, sd: 0.015 }, source: USDA },
  trimShare: { value: { mean: 0.28, sd: 0.08 }, source: PRACTICE },
  freshDays: { value: 60, source: PRACTICE },
  cards: [
    { key: 'sheet', name: 'Purée on sheets', feelForm: 'sheet', thicknessMm: 5, usualHours: { value: { low: 8, high: 14 }, source: PRACTICE }, temperatureC: 57, temperatureReason: REASONS.vegetables57, trayLoadKgM2: { mean: 4, sd: 0.7 } },
    { key: 'shreds', name: 'Shreds', feelForm: 'shreds', thicknessMm: 3, usualHours: { value: { low: 6, high: 12 }, source: PRACTICE }, temperatureC: 57, temperatureReason: REASONS.vegetables57, trayLoadKgM2: { mean: 4.2, sd: 0.8 } },
  ],
  drynessTest: { value: 'The sheet peels off whole and breaks; no tacky or darker patch in the middle.', source: PRACTICE },
  powderColour: '#D07A22', powderDensity: { value: { mean: 0.55, sd: 0.1 }, source: PRACTICE },
  keepsMonths: { ...KEEPS.vegetable, powder: { low: 6, high: 12 } }, keepsReason: 'Starch keeps; the orange fades.', keepsSource: PRACTICE,
  allergens: [], cautions: [
    { step: 'prep', text: 'Never can pumpkin or squash purée at home, thickened with powder or not.' },
    { step: 'prep', text: 'Roasted flesh goes cold within two hours (one above 32 °C) if it is not dried at once.' },
  ],
}

export const zucchini: Food = {
  key: 'zucchini', name: 'Zucchini', group: 'gourd', ...vegetableTarget,
  rawMoisture: { value: { mean: 0.948, sd: 0.008 }, source: USDA },
  trimShare: { value: { mean: 0.08, sd: 0.04 }, source: PRACTICE },
  freshDays: { value: 5, source: PRACTICE },
  cards: [
    { key: 'slices-6', name: '6 mm slices', feelForm: 'pieces', thicknessMm: 6, usualHours: { value: { low: 8, high: 13 }, source: PRACTICE }, temperatureC: 57, temperatureReason: REASONS.vegetables57, trayLoadKgM2: { mean: 5, sd: 0.7 } },
    { key: 'shreds', name: 'Shreds', feelForm: 'shreds', thicknessMm: 3, usualHours: { value: { low: 6, high: 11 }, source: PRACTICE }, temperatureC: 57, temperatureReason: REASONS.vegetables57, trayLoadKgM2: { mean: 4.5, sd: 0.8 } },
  ],
  drynessTest: { value: 'Slices are brittle like thin bark; shreds crunch.', source: EXTENSION },
  powderColour: '#8C9A55', powderDensity: { value: { mean: 0.42, sd: 0.08 }, source: PRACTICE },
  keepsMonths: KEEPS.vegetable, keepsReason: 'Taste is faint to begin with; its body lasts.', keepsSource: PRACTICE,
  allergens: [], cautions: [],
}

export const onion: Food = {
  key: 'onion', name: 'Onion', group: 'allium', target: { pieces: 0.07, flakes: 0.06, powder: 0.05 }, targetSource: EXTENSION,
  rawMoisture: { value: { mean: 0.891, sd: 0.012 }, source: USDA },
  trimShare: { value: { mean: 0.11, sd: 0.04 }, source: PRACTICE },
  freshDays: { value: 30, source: PRACTICE },
  cards: [
    { key: 'rings-5', name: '5 mm rings', feelForm: 'pieces', thicknessMm: 5, usualHours: { value: { low: 7, high: 12 }, source: PRACTICE }, temperatureC: 57, temperatureReason: REASONS.alliums57, trayLoadKgM2: { mean: 4, sd: 0.7 } },
  ],
  drynessTest: { value: 'Rings are papery and break; cold ones do not bend.', source: EXTENSION },
  powderColour: '#CDB27A', powderDensity: { value: { mean: 0.5, sd: 0.08 }, source: PRACTICE },
  keepsMonths: KEEPS.vegetable, keepsReason: 'Takes up water readily and sets hard when it does.', keepsSource: PRACTICE,
  allergens: [], cautions: [{ step: 'load', text: 'Its smell goes into whatever shares the load; many give it a run of its own.' }],
}

export const garlic: Food = {
  key: 'garlic', name: 'Garlic', group: 'allium', target: { pieces: 0.06, flakes: 0.06, powder: 0.05 }, targetSource: EXTENSION,
  rawMoisture: { value: { mean: 0.586, sd: 0.025 }, source: USDA },
  trimShare: { value: { mean: 0.15, sd: 0.05 }, source: PRACTICE },
  freshDays: { value: 60, source: PRACTICE },
  cards: [
    { key: 'slices-3', name: '3 mm slices', feelForm: 'pieces', thicknessMm: 3, usualHours: { value: { low: 6, high: 11 }, source: PRACTICE }, temperatureC: 57, temperatureReason: REASONS.alliums57, trayLoadKgM2: { mean: 3.5, sd: 0.6 } },
  ],
  drynessTest: { value: 'Slices snap like thin glass.', source: EXTENSION },
  powderColour: '#D9C89B', powderDensity: { value: { mean: 0.6, sd: 0.08 }, source: PRACTICE },
  keepsMonths: KEEPS.vegetable, keepsReason: 'Takes up water readily and sets hard when it does.', keepsSource: PRACTICE,
  allergens: [], cautions: [{ step: 'pack', text: 'Never in oil at room temperature: botulism. Keep garlic oil at or below 4 °C and use it within 4 days, freeze it, or follow a tested acidified recipe.' }],
}

export const mushroom: Food = {
  key: 'mushroom', name: 'White mushroom', group: 'mushroom', ...vegetableTarget,
  rawMoisture: { value: { mean: 0.925, sd: 0.01 }, source: USDA },
  trimShare: { value: { mean: 0.05, sd: 0.03 }, source: PRACTICE },
  freshDays: { value: 4, source: PRACTICE },
  cards: [
    { key: 'slices-6', name: '6 mm slices', feelForm: 'pieces', thicknessMm: 6, usualHours: { value: { low: 6, high: 10 }, source: PRACTICE }, temperatureC: 52, temperatureReason: 'Scent is what they are dried for, and it leaves with heat.', trayLoadKgM2: { mean: 3.5, sd: 0.6 } },
  ],
  drynessTest: { value: 'Slices snap like a biscuit; thick stems too.', source: EXTENSION },
  powderColour: '#A48D6B', powderDensity: { value: { mean: 0.35, sd: 0.07 }, source: PRACTICE },
  keepsMonths: KEEPS.vegetable, keepsReason: 'Scent goes first.', keepsSource: PRACTICE,
  allergens: [], cautions: [
    { step: 'intake', text: 'Wild mushrooms only if someone competent has identified every one of them.' },
    { step: 'prep', text: 'Wipe with a damp cloth: soaked in plain water they dry grey.' },
  ],
}
