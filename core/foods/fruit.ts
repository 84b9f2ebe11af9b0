import type { Food } from './types'
import { EXTENSION, KEEPS, PRACTICE, REASONS, TARGETS, USDA } from './sources'

const CHILI_CAUTIONS: Food['cautions'] = [
  { step: 'prep', text: 'Gloves, and no hands near eyes or nose; soap takes chili oil off badly.' },
  { step: 'dry', text: 'The air from the machine bites: dry outdoors or with a window open.' },
  { step: 'grind', text: 'Mask and goggles, no animals near. Let the dust settle before the cup is opened, and never put your face over it.' },
  { step: 'pack', text: 'Never in oil at room temperature: botulism. Keep chili oil at or below 4 °C and use it within 4 days, or freeze it.' },
]

export const tomato: Food = {
  key: 'tomato', name: 'Tomato', group: 'wateryFruit', target: { pieces: 0.1, flakes: 0.07, powder: 0.06 }, targetSource: EXTENSION,
  rawMoisture: { value: { mean: 0.945, sd: 0.01 }, source: USDA },
  trimShare: { value: { mean: 0.08, sd: 0.05 }, source: PRACTICE },
  freshDays: { value: 4, source: PRACTICE },
  cards: [
    { key: 'slices-12', name: '12 mm slices', feelForm: 'pieces', thicknessMm: 12, usualHours: { value: { low: 12, high: 18 }, source: PRACTICE }, temperatureC: 57, temperatureReason: REASONS.fruit57, trayLoadKgM2: { mean: 7, sd: 1 } },
    { key: 'slices-6', name: '6 mm slices', feelForm: 'pieces', thicknessMm: 6, usualHours: { value: { low: 8, high: 13 }, source: PRACTICE }, temperatureC: 57, temperatureReason: REASONS.fruit57, trayLoadKgM2: { mean: 4.5, sd: 0.7 } },
    { key: 'skins', name: 'Skins', feelForm: 'leaves', usualHours: { value: { low: 4, high: 8 }, source: PRACTICE }, temperatureC: 57, temperatureReason: REASONS.fruit57, trayLoadKgM2: { mean: 2, sd: 0.5 } },
  ],
  drynessTest: { value: 'For powder every slice snaps, skin and seed side alike; leathery is not yet.', source: PRACTICE },
  powderColour: '#B9362A', powderDensity: { value: { mean: 0.6, sd: 0.12 }, source: PRACTICE },
  keepsMonths: KEEPS.bright, keepsReason: 'Sugar and acid draw water: it cakes before it fades.', keepsSource: PRACTICE,
  allergens: [], cautions: [{ step: 'pack', text: 'Dried tomato in oil at room temperature: botulism. Keep it at or below 4 °C and use it within 4 days.' }],
}

export const sweetPepper: Food = {
  key: 'sweet-pepper', name: 'Sweet red pepper', group: 'chili', target: TARGETS.vegetable, targetSource: EXTENSION,
  rawMoisture: { value: { mean: 0.922, sd: 0.01 }, source: USDA },
  trimShare: { value: { mean: 0.18, sd: 0.05 }, source: PRACTICE },
  freshDays: { value: 10, source: PRACTICE },
  cards: [
    { key: 'pieces-25', name: '25 mm pieces', feelForm: 'pieces', thicknessMm: 6, usualHours: { value: { low: 10, high: 16 }, source: PRACTICE }, temperatureC: 57, temperatureReason: REASONS.vegetables57, trayLoadKgM2: { mean: 4.5, sd: 0.7 } },
  ],
  drynessTest: { value: 'Pieces are brittle, and the thick shoulder snaps too.', source: EXTENSION },
  powderColour: '#B3401C', powderDensity: { value: { mean: 0.5, sd: 0.08 }, source: PRACTICE },
  keepsMonths: KEEPS.bright, keepsReason: 'Bright red powders are at their best for about half a year.', keepsSource: PRACTICE,
  allergens: [], cautions: [],
}

export const hotChili: Food = {
  key: 'hot-chili', name: 'Hot red chili', group: 'chili', target: { pieces: 0.08, flakes: 0.07, powder: 0.06 }, targetSource: EXTENSION,
  rawMoisture: { value: { mean: 0.88, sd: 0.015 }, source: USDA },
  trimShare: { value: { mean: 0.1, sd: 0.05 }, source: PRACTICE },
  freshDays: { value: 10, source: PRACTICE },
  cards: [
    { key: 'pieces-25', name: '25 mm pieces', feelForm: 'pieces', thicknessMm: 4, usualHours: { value: { low: 9, high: 13 }, source: PRACTICE }, temperatureC: 57, temperatureReason: 'Hotter browns the red and drives more fumes into the room.', trayLoadKgM2: { mean: 3.5, sd: 0.6 } },
    { key: 'halves', name: 'Halves, cut side up', feelForm: 'pieces', thicknessMm: 8, usualHours: { value: { low: 14, high: 24 }, source: PRACTICE }, temperatureC: 57, temperatureReason: 'Hotter browns the red and drives more fumes into the room.', trayLoadKgM2: { mean: 4, sd: 0.7 } },
  ],
  drynessTest: { value: 'Pieces crackle when squeezed and shatter; a bending shoulder is not yet.', source: PRACTICE },
  powderColour: '#9E2A17', powderDensity: { value: { mean: 0.48, sd: 0.08 }, source: PRACTICE },
  keepsMonths: KEEPS.chili, keepsReason: 'Heat stays for two years; colour and fruit fade within one.', keepsSource: PRACTICE,
  allergens: [], cautions: CHILI_CAUTIONS,
}

export const strawberry: Food = {
  key: 'strawberry', name: 'Strawberry', group: 'berry', target: TARGETS.fruit, targetSource: EXTENSION,
  rawMoisture: { value: { mean: 0.91, sd: 0.012 }, source: USDA },
  trimShare: { value: { mean: 0.07, sd: 0.03 }, source: PRACTICE },
  freshDays: { value: 2, source: PRACTICE },
  cards: [
    { key: 'slices-6', name: '6 mm slices', feelForm: 'pieces', thicknessMm: 6, usualHours: { value: { low: 9, high: 15 }, source: PRACTICE }, temperatureC: 57, temperatureReason: REASONS.fruit57, trayLoadKgM2: { mean: 4.5, sd: 0.7 } },
  ],
  drynessTest: { value: 'For pieces pliable with no bead of juice when squeezed; for powder brittle when cold.', source: EXTENSION },
  powderColour: '#B23A4C', powderDensity: { value: { mean: 0.55, sd: 0.1 }, source: PRACTICE },
  keepsMonths: KEEPS.fruit, keepsReason: 'Sugar draws water: it cakes in a warm pantry.', keepsSource: PRACTICE,
  allergens: [], cautions: [],
}

export const apple: Food = {
  key: 'apple', name: 'Apple', group: 'orchard', target: TARGETS.fruit, targetSource: EXTENSION,
  rawMoisture: { value: { mean: 0.856, sd: 0.012 }, source: USDA },
  trimShare: { value: { mean: 0.15, sd: 0.06 }, source: PRACTICE },
  freshDays: { value: 45, source: PRACTICE },
  cards: [
    { key: 'rings-5', name: '5 mm rings', feelForm: 'pieces', thicknessMm: 5, usualHours: { value: { low: 7, high: 12 }, source: PRACTICE }, temperatureC: 57, temperatureReason: REASONS.fruit57, trayLoadKgM2: { mean: 4, sd: 0.7 } },
  ],
  drynessTest: { value: 'For pieces leathery with no wet middle when torn; for powder it snaps when cold.', source: EXTENSION },
  powderColour: '#CBA767', powderDensity: { value: { mean: 0.55, sd: 0.1 }, source: PRACTICE },
  keepsMonths: KEEPS.fruit, keepsReason: 'Sugar draws water: it cakes in a warm pantry.', keepsSource: PRACTICE,
  allergens: [], cautions: [{ step: 'prep', text: 'A dip in citric or ascorbic acid keeps the rings pale; sulphite is an allergen and would have to stand on the label.' }],
}

export const parsley: Food = {
  key: 'parsley', name: 'Parsley', group: 'herb', target: TARGETS.leaf, targetSource: EXTENSION,
  rawMoisture: { value: { mean: 0.877, sd: 0.015 }, source: USDA },
  trimShare: { value: { mean: 0.35, sd: 0.1 }, source: PRACTICE },
  freshDays: { value: 3, source: PRACTICE },
  cards: [
    { key: 'leaves', name: 'Leaves off the stalk', feelForm: 'leaves', usualHours: { value: { low: 4, high: 9 }, source: PRACTICE }, temperatureC: 41, temperatureReason: REASONS.leaves41, trayLoadKgM2: { mean: 0.9, sd: 0.25 } },
  ],
  drynessTest: { value: 'Leaves crumble and the thin stems snap.', source: EXTENSION },
  powderColour: '#56753A', powderDensity: { value: { mean: 0.28, sd: 0.06 }, source: PRACTICE },
  keepsMonths: KEEPS.bright, keepsReason: 'Scent is the whole of it, and it goes within the year.', keepsSource: PRACTICE,
  allergens: [], cautions: [{ step: 'pack', text: 'Herbs in oil at room temperature: botulism. Keep such oil at or below 4 °C and use it within 4 days.' }],
}
