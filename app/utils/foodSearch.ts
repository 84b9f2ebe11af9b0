import MiniSearch from 'minisearch'
import type { FoodSummary } from '#shared/contracts'

/** Finds foods by any of their names, with a slip or two of spelling forgiven. */
export function foodSearch(foods: readonly FoodSummary[]): (words: string) => FoodSummary[] {
  const plain = (text: string) => text.normalize('NFD').replace(/[\u0300-\u036F’']/g, '').toLowerCase()
  const byKey = new Map(foods.map(food => [food.key, food]))
  const index = new MiniSearch<{ id: string, name: string, others: string, group: string }>({
    fields: ['name', 'others', 'group'], processTerm: term => plain(term) || null,
    searchOptions: {
      boost: { name: 3, others: 2 }, prefix: true, fuzzy: term => term.length > 6 ? 0.3 : term.length > 3 ? 0.2 : false, combineWith: 'AND',
      // The plain food before its kinds: tomato before cherry tomato.
      boostDocument: id => byKey.get(id as string)!.name.includes(' ') ? 0.6 : 1,
    },
  })
  index.addAll(foods.map(food => ({ id: food.key, name: food.name, others: food.otherNames.join(' · '), group: `${food.groupName} ${food.cards.map(card => card.name).join(' ')}` })))
  return (words) => {
    if (words.trim() === '') return [...foods]
    return index.search(words).map(hit => byKey.get(hit.id as string)!)
  }
}
