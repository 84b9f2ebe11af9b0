import MiniSearch from 'minisearch'
import { plain, wordsOf } from './named'

/** What a food is found by. */
export interface NamedFood {
  key: string
  name: string
  otherNames: readonly string[]
  foundBy: readonly string[]
  groupName: string
  cards: readonly { name: string }[]
}

const phrase = (text: string) => wordsOf(text).join(' ')

/** What food is like when it comes, and no part of its name: "dried lemon" is lemon. */
const STATES: readonly string[] = [
  'dried',
  'dry',
  'fresh',
  'raw',
  'frozen',
  'whole',
  'ground',
  'powdered',
  'powder',
  'flake',
  'chopped',
  'sliced',
]

const SLIPS = (term: string) => (term.length > 4 ? 2 : false)

/**
 * Makes a search among foods: by any of their names, in whatever plural or spelling, with a slip or two forgiven. What is called just so
 * comes first: by its own name, then by another.
 * It stands apart from this folder's index, so that pages that do not search need not carry it.
 */
export function foodSearch<Food extends NamedFood>(foods: readonly Food[]): (words: string) => Food[] {
  const byKey = new Map(foods.map(food => [food.key, food]))
  const index = new MiniSearch<{ id: string; name: string; others: string; found: string; group: string }>({
    fields: ['name', 'others', 'found', 'group'],
    processTerm: term => plain(term) || null,
    searchOptions: {
      boost: { name: 3, others: 2, found: 1.5 },
      prefix: true,
      combineWith: 'AND',
      // The plain food before its kinds: tomato before cherry tomato.
      boostDocument: id => (byKey.get(id as string)!.name.includes(' ') ? 0.6 : 1),
    },
  })
  index.addAll(
    foods.map(food => ({
      id: food.key,
      name: food.name,
      others: food.otherNames.join(' · '),
      found: food.foundBy.join(' · '),
      group: `${food.groupName} ${food.cards.map(card => card.name).join(' ')}`,
    })),
  )
  const called = new Map<string, Set<string>>()
  const call = (name: string, key: string) => called.set(name, (called.get(name) ?? new Set<string>()).add(key))
  for (const food of foods) call(phrase(food.name), food.key)
  for (const food of foods) for (const name of [...food.otherNames, ...food.foundBy]) call(phrase(name), food.key)
  return words => {
    if (words.trim() === '') return [...foods]
    const spelt = phrase(words)
    const bare = wordsOf(words)
      .filter(word => !STATES.includes(word))
      .join(' ')
    const hitsOf = (text: string, slips = false) => index.search(text, slips ? { fuzzy: SLIPS } : {}).map(hit => hit.id as string)
    // As it is said, without what it is like, and with a slip: the first of these that finds anything.
    const asked = [spelt, bare].filter(text => text !== '')
    for (const [text, slips] of [...asked.map(text => [text, false] as const), ...asked.map(text => [text, true] as const)]) {
      const found = [...(called.get(text) ?? []), ...hitsOf(text, slips)]
      if (found.length > 0) return [...new Set(found)].map(key => byKey.get(key)!)
    }
    return []
  }
}
