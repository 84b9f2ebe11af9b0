import type { CautionStep, Trait } from '../foods'
import { INSECTS_WORDS, type Way } from '../ways'

/** `note` is read at its step; `care` is accepted once and written down; `stop` lets nothing be written until its way out is taken. */
export type Severity = 'note' | 'care' | 'stop'

export interface SafetyRule {
  key: string
  severity: Severity
  step: CautionStep
  /** Any of these traits brings it. Without traits and ways it holds for all food. */
  traits?: readonly Trait[]
  /** Any of these families brings it. */
  groups?: readonly string[]
  /** Any of these traits takes it away: milk has no mouldy pieces. */
  not?: readonly Trait[]
  /** Only in ways of drying of which this holds. */
  ways?: (way: Way) => boolean
  text: string
  /** The same for a label, in a few words; missing where it need not stand on one. */
  label?: string
  /** Rare and grave: read before all that is only good to know. */
  grave?: boolean
  /** For what stops: what to do instead. */
  wayOut?: string
  authority: string
}

const USDA = 'USDA Food Safety and Inspection Service, from memory'
const CDC = 'public-health guidance on botulism (CDC, USDA), from memory'
const EXTENSION = 'extension guidance on drying foods, from memory'
const PRACTICE = 'common practice'
const MANUAL = 'the machine’s manual comes first; common practice'

/** What makes safe jerky that was dried raw: 275 °F for ten minutes (extension guidance, from memory). */
export const HEATED_AFTER = { airC: 135, minutes: 10 }

/** Inner heat that makes a food safe before it is dried, by thermometer, in the unit in which it is published: °F (USDA). */
export const SAFE_CORE_F: Partial<Record<Trait, number>> = { 'red-meat': 160, meat: 160, poultry: 165, fish: 145, shellfish: 145, egg: 160 }

/**
 * The cautions of the trade, each at the step where its danger is. Dulse defers to the local food-safety
 * authority, to the machine's manual and to licensed practice.
 */
export const SAFETY_RULES: readonly SafetyRule[] = [
  {
    key: 'wild',
    severity: 'care',
    step: 'intake',
    traits: ['wild'],
    label: 'Gathered wild',
    text: 'Wild plants, mushrooms and seaweeds only if someone competent has identified every one of them, from clean ground or water.',
    authority: PRACTICE,
  },
  {
    key: 'mouldy-pieces',
    severity: 'note',
    step: 'intake',
    not: ['dairy', 'egg'],
    text: 'Mouldy pieces are discarded whole, not trimmed into the batch.',
    authority: USDA,
  },
  {
    key: 'gloves',
    severity: 'care',
    step: 'prep',
    traits: ['hot', 'fumes'],
    text: 'Gloves, and no hands near eyes or nose. Off the skin it comes with cooking oil first, then soap; in the eyes rinse with cool water for a quarter of an hour, and have them seen to if it does not stop.',
    authority: PRACTICE,
  },
  {
    key: 'extreme',
    severity: 'care',
    step: 'prep',
    traits: ['extreme'],
    text: 'Extreme heat: goggles and a mask from the first cut, a board of its own, nobody else in the room, no animals. A crumb on a lip is a burn.',
    authority: PRACTICE,
  },
  {
    key: 'blades',
    severity: 'note',
    step: 'prep',
    not: ['dairy', 'egg'],
    text: 'Mandoline only with its guard or a cut-proof glove.',
    authority: PRACTICE,
  },
  {
    key: 'raw-meat',
    severity: 'stop',
    step: 'load',
    traits: ['red-meat', 'meat', 'poultry', 'fish', 'shellfish', 'egg'],
    ways: way => !way.underVacuum,
    text: 'Raw animal food dried at low heat is not safe: drying does not kill what is in it.',
    wayOut: 'Cook it through, measure the inside with a thermometer, and log that step with its temperature.',
    authority: USDA,
  },
  {
    key: 'raw-frozen',
    severity: 'care',
    step: 'load',
    traits: ['red-meat', 'meat', 'poultry', 'fish', 'shellfish', 'egg'],
    ways: way => way.underVacuum,
    text: 'Freeze drying kills nothing: what goes in raw is raw food when it has its water back, is marked so, and is cooked then.',
    authority: USDA,
  },
  {
    key: 'animal-outdoors',
    severity: 'stop',
    step: 'load',
    traits: ['red-meat', 'meat', 'poultry', 'fish', 'shellfish', 'egg', 'dairy'],
    ways: way => way.unheated,
    text: 'Meat, fish, egg and milk are not dried outdoors or in room air.',
    wayOut: 'Use a dehydrator, an oven or a freeze dryer, after cooking.',
    authority: EXTENSION,
  },
  {
    key: 'perishable-unheated',
    severity: 'stop',
    step: 'load',
    traits: ['perishable'],
    ways: way => way.unheated,
    text: 'Cooked pulses, rice, purée of vegetables and the like are not dried in the sun or in room air: they stand for hours where things grow.',
    wayOut: 'Use a dehydrator at 60 °C or more, an oven or a freeze dryer.',
    authority: USDA,
  },
  {
    key: 'egg-dairy-warm',
    severity: 'care',
    step: 'load',
    traits: ['egg', 'dairy'],
    ways: way => !way.unheated && !way.underVacuum,
    text: 'Extension guidance advises against drying egg and dairy at home by warm air. A freeze dryer, or buying the powder, is the safer way.',
    authority: EXTENSION,
  },
  {
    key: 'perishable',
    severity: 'note',
    step: 'prep',
    traits: ['perishable'],
    text: 'Not between 4 and 60 °C for more than two hours in all, one above 32 °C.',
    authority: USDA,
  },
  {
    key: 'unblanched',
    severity: 'stop',
    step: 'load',
    text: 'Raw it holds poison or needles that drying leaves in.',
    wayOut: 'Boil it soft in much water, pour that away, and log the blanching.',
    authority: 'FAO and WHO codes of practice, from memory',
  },
  {
    key: 'too-warm',
    severity: 'stop',
    step: 'load',
    traits: ['perishable'],
    text: 'Over two hours in all where things grow while it is moist: drying and cooking do not take away the toxins that they leave.',
    wayOut: 'Discard it. If it stood in the cold, log that, with its time.',
    authority: USDA,
  },
  {
    key: 'pasteurised',
    severity: 'note',
    step: 'prep',
    traits: ['dairy'],
    grave: true,
    text: 'Pasteurised milk only, and what was made of it: drying kills nothing. What is made of raw milk is raw food: say so among its choices, and it is marked.',
    authority: USDA,
  },
  {
    key: 'no-canning',
    severity: 'note',
    step: 'prep',
    traits: ['gourd'],
    text: 'Never can pumpkin or squash purée at home, and thicken nothing with powder before it is canned.',
    authority: USDA,
  },
  {
    key: 'outdoors-vegetables',
    severity: 'care',
    step: 'load',
    ways: way => way.outdoors,
    text: 'Outdoors only fruit and chilies, at 30 °C and above and under 60 % humidity, covered, and in at dusk; other vegetables have too little acid and sugar.',
    authority: EXTENSION,
  },
  {
    key: 'insects',
    severity: 'note',
    step: 'rest',
    ways: way => way.unheated,
    text: `What stood open may hold eggs of insects: ${INSECTS_WORDS}.`,
    authority: EXTENSION,
  },
  {
    key: 'left-alone',
    severity: 'care',
    step: 'dry',
    ways: way => way.drawsPower && !way.attended,
    text: 'A machine left alone: on a hard bare surface, a hand clear of walls and curtains, its vents free, its lead whole, a smoke alarm within hearing, and only as its manual allows.',
    authority: MANUAL,
  },
  {
    key: 'oven-ajar',
    severity: 'care',
    step: 'load',
    ways: way => way.doorAjar,
    text: 'An oven ajar: keep small children away, never leave it alone; gas only as its manual allows, with a window open.',
    authority: MANUAL,
  },
  {
    key: 'smoker-outdoors',
    severity: 'care',
    step: 'load',
    ways: way => way.smokes,
    text: 'A smoker stands outdoors, clear of doors and windows: carbon monoxide has no smell.',
    authority: MANUAL,
  },
  {
    key: 'pump-hot',
    severity: 'care',
    step: 'load',
    ways: way => way.underVacuum,
    text: 'The vacuum pump is hot and full of oil: air around it, a fan on it, hands off. Vent fully before the door is opened.',
    authority: MANUAL,
  },
  {
    key: 'liquid-unfrozen',
    severity: 'care',
    step: 'load',
    ways: way => way.underVacuum,
    text: 'Liquids are frozen solid before the vacuum comes on, or they boil over the chamber and into the pump.',
    authority: MANUAL,
  },
  {
    key: 'fumes',
    severity: 'note',
    step: 'dry',
    traits: ['hot', 'fumes', 'extreme'],
    text: 'The air from the machine bites: dry outdoors, or with a window open and the door shut.',
    authority: PRACTICE,
  },
  {
    key: 'mould',
    severity: 'stop',
    step: 'rest',
    text: 'Mould anywhere in a jar: all of it goes, untasted.',
    wayOut: 'Discard it, and log that.',
    authority: USDA,
  },
  {
    key: 'moisture',
    severity: 'note',
    step: 'rest',
    text: 'Moisture without mould: dry it again the same day, and watch.',
    authority: EXTENSION,
  },
  {
    key: 'dust',
    severity: 'note',
    step: 'grind',
    text: 'Before the first burst: a mask on, and a damp cloth at hand. The lid stays shut as long as the plan says, and no face over the cup when it is opened.',
    authority: PRACTICE,
  },
  {
    key: 'chili-dust',
    severity: 'care',
    step: 'grind',
    traits: ['hot', 'extreme', 'fumes'],
    text: 'Chili dust: mask and goggles, window open, nobody else and no animals near. The lid stays shut as long as the plan says.',
    authority: PRACTICE,
  },
  {
    key: 'shards',
    severity: 'note',
    step: 'grind',
    text: 'Shards of brittle sheets are sharp: break them in a cloth.',
    authority: PRACTICE,
  },
  {
    key: 'oil',
    severity: 'stop',
    step: 'pack',
    traits: ['oil', 'hot', 'extreme'],
    text: 'Low-acid food in oil on the shelf: botulism grows where there is no air.',
    wayOut: 'Keep the oil at or below 4 °C and use it within 4 days, freeze it, or follow a tested acidified recipe.',
    authority: CDC,
  },
  {
    key: 'no-oxygen',
    severity: 'stop',
    step: 'pack',
    text: 'Vacuum, foil and oxygen absorbers only for food in which nothing grows (a water activity of 0.85 at most): botulism needs moisture without oxygen.',
    wayOut: 'Dry it further or weigh it so that its water is known, use a plain lined jar, or the freezer.',
    authority: CDC,
  },
  {
    key: 'heat-after',
    severity: 'stop',
    step: 'pack',
    text: 'Jerky that went on the trays raw is not safe by being dry.',
    wayOut: `Heat it through: ${HEATED_AFTER.airC} °C in a hot oven for ${HEATED_AFTER.minutes} minutes, straight from the trays, and log that.`,
    authority: 'extension guidance on jerky, from memory',
  },
  {
    key: 'sachets',
    severity: 'note',
    step: 'pack',
    text: 'Sachets are not eaten. An oxygen absorber is used once; silica gel is dried in the oven and serves again.',
    authority: PRACTICE,
  },
  {
    key: 'nitrate',
    severity: 'note',
    step: 'pack',
    traits: ['nitrate'],
    grave: true,
    label: 'Not for infants: nitrate',
    text: 'Nitrate harms infants, and powder concentrates it: nothing of carrot, squash, green bean, beetroot, spinach and other roots and leaves for babies under half a year. Their oxalate and vitamin K matter to people with kidney disease or on blood thinners: they ask their doctor.',
    authority: 'paediatric guidance on infant methaemoglobinaemia, from memory',
  },
  {
    key: 'mould-toxin',
    severity: 'note',
    step: 'pack',
    traits: ['mouldToxin'],
    grave: true,
    text: 'Stored damp, chilies, spices, figs, grapes, coconut, nuts and seeds can grow mould toxins (aflatoxin, ochratoxin) that neither drying nor cooking takes away: dry to the target, keep dry, and discard what smells musty, untasted.',
    authority: 'FAO and WHO codes of practice, from memory',
  },
  {
    key: 'iodine',
    severity: 'note',
    step: 'pack',
    traits: ['iodine'],
    grave: true,
    label: 'Much iodine: a pinch',
    text: 'Seaweeds hold much iodine, kelp most: a pinch, not a spoon; people with thyroid trouble ask their doctor.',
    authority: PRACTICE,
  },
  {
    key: 'sulphite',
    severity: 'note',
    step: 'pack',
    grave: true,
    text: 'A sulphite dip is an allergen and can set off asthma, in small amounts too: it stands on the label, and whoever is asthmatic is told.',
    authority: PRACTICE,
  },
  {
    key: 'lid',
    severity: 'note',
    step: 'pack',
    text: 'A lid reused for dry goods is marked, so that it never goes on a canning jar.',
    authority: PRACTICE,
  },
  {
    key: 'selling',
    severity: 'note',
    step: 'pack',
    text: 'Selling is another matter: local law on home-made food, a licence, a tested process.',
    authority: PRACTICE,
  },
  {
    key: 'rehydrated',
    severity: 'note',
    step: 'use',
    text: 'With its water back, or kept moist as a paste, it is fresh food: cold, or used within two hours.',
    authority: USDA,
  },
  {
    key: 'reheat',
    severity: 'note',
    step: 'use',
    traits: ['perishable'],
    text: 'A meal that has its water back is brought to 74 °C all through before it is eaten.',
    authority: USDA,
  },
  {
    key: 'eaten-raw',
    severity: 'note',
    step: 'use',
    groups: ['leaf', 'herb'],
    text: 'Drying does not disinfect: leaves that were not blanched are as clean as they were washed. For the very young, the old, the pregnant and the ill: into what is cooked.',
    authority: 'FAO and WHO on microbes in dried herbs and spices, from memory',
  },
  {
    key: 'pets',
    severity: 'note',
    step: 'use',
    groups: ['allium'],
    text: 'Onion, garlic and their kin poison dogs and cats, as powder most.',
    authority: PRACTICE,
  },
  {
    key: 'raw-back',
    severity: 'care',
    step: 'use',
    traits: ['red-meat', 'meat', 'poultry', 'fish', 'shellfish', 'egg', 'dairy'],
    label: 'RAW: cook through',
    text: 'If it was dried raw it is raw: cook it through once it has its water back.',
    authority: USDA,
  },
]

/** The rule with this key, or undefined. */
export function safetyRule(key: string): SafetyRule | undefined {
  return SAFETY_RULES.find(rule => rule.key === key)
}
