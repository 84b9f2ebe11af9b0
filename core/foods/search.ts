import MiniSearch from 'minisearch'

/** What a food is found by. */
export interface NamedFood {
  key: string
  name: string
  otherNames: readonly string[]
  groupName: string
  cards: readonly { name: string }[]
}

/**
 * Makes a search among foods: by any of their names, with a slip or two of spelling forgiven.
 * It stands apart from this folder's index, so that pages that do not search need not carry it.
 */
export function foodSearch<Food extends NamedFood>(foods: readonly Food[]): (words: string) => Food[] {
  const plain = (text: string) =>
    text
      .normalize('NFD')
      .replace(/[\u0300-\u036F’']/g, '')
      .toLowerCase()
  const byKey = new Map(foods.map(food => [food.key, food]))
  const index = new MiniSearch<{ id: string; name: string; others: string; group: string }>({
    fields: ['name', 'others', 'group'],
    processTerm: term => plain(term) || null,
    searchOptions: {
      boost: { name: 3, others: 2 },
      prefix: true,
      fuzzy: term => (term.length > 4 ? 2 : term.length > 3 ? 1 : false),
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
      group: `${food.groupName} ${food.cards.map(card => card.name).join(' ')}`,
    })),
  )
  return words => {
    if (words.trim() === '') return [...foods]
    return index.search(words).map(hit => byKey.get(hit.id as string)!)
  }
}
