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
    // What is spelt so comes first and alone; slips are forgiven where nothing is, and not in a short word.
    const asSpelt = index.search(words)
    const found = (asSpelt.length > 0 ? asSpelt : index.search(words, { fuzzy: SLIPS })).map(hit => hit.id as string)
    return [...new Set([...(called.get(phrase(words)) ?? []), ...found])].map(key => byKey.get(key)!)
  }
}
