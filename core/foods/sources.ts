/** Sources named beside the figures. "From memory" marks those that were not open on the desk when written down. */
export const USDA = 'USDA FoodData Central, water content, from memory'
export const PRACTICE = 'common practice'
export const EXTENSION = 'extension guidance on drying foods, from memory'

/** Targets of crispness: powders 5–6 %, brittle vegetable pieces up to 10 %, pliable fruit 15–20 %. */
export const TARGETS = {
  vegetable: { pieces: 0.08, flakes: 0.07, powder: 0.06 },
  fruit: { pieces: 0.18, flakes: 0.06, powder: 0.05 },
  leaf: { pieces: 0.08, flakes: 0.07, powder: 0.06 },
} as const

/** Months at 20 °C in a lined screw jar. Pieces outlast powder; bright powders fade first. */
export const KEEPS = {
  vegetable: { pieces: { low: 6, high: 12 }, flakes: { low: 6, high: 12 }, powder: { low: 6, high: 9 } },
  bright: { pieces: { low: 6, high: 12 }, flakes: { low: 6, high: 9 }, powder: { low: 5, high: 7 } },
  chili: { pieces: { low: 9, high: 12 }, flakes: { low: 9, high: 12 }, powder: { low: 6, high: 12 } },
  fruit: { pieces: { low: 4, high: 12 }, flakes: { low: 6, high: 10 }, powder: { low: 4, high: 8 } },
} as const

export const REASONS = {
  vegetables57: 'Warm enough that wet food is not warm for long, mild enough to spare colour and taste.',
  fruit57: 'Sugary food hardens outside over a wet core when it starts hotter.',
  leaves41: 'Scent and green colour leave with heat; thin leaves dry quickly all the same.',
  alliums57: 'Above 60 °C the sugars brown and the powder turns bitter.',
} as const

/** The schools of how a run starts. The default is the steady one. */
export const START_SCHOOLS = [
  { key: 'steady', name: 'Steady', reason: 'The default: one heat throughout asks for no hand, and nothing can harden outside over a wet core.' },
  { key: 'hot', name: 'Hot first', reason: 'Ten degrees more for the first hour and a half, while the water itself keeps the food cool, then down to the card’s: sooner dry, and warm for a shorter time. Forgotten, it hardens the outside over a wet core.' },
] as const

/** The schools of temperature for vegetables, side by side. The default is the middle one. */
export const TEMPERATURE_SCHOOLS = [
  { celsius: 52, name: 'low', reason: 'Keeps colour and more of what heat destroys; takes about a fifth longer.' },
  { celsius: 57, name: 'middle', reason: 'The default: dry in a day or a night, with little loss of colour.' },
  { celsius: 60, name: 'extension', reason: 'What extension guidance gives for vegetables: wet food is warm for the shortest time.' },
] as const
