import { useQueryCache } from '@pinia/colada'
import { FIRST_ANSWERS_ID, type FirstAnswers } from '#shared/api'
import { keyOf, noteTurn } from './touched'

/** What came with the page itself; nothing in development or where a page was kept from before. */
export function firstAnswers(): FirstAnswers | undefined {
  const text = document.getElementById(FIRST_ANSWERS_ID)?.textContent
  return text ? (JSON.parse(text) as FirstAnswers) : undefined
}

/** Takes it as answered, so that nothing that is known is waited for. */
export function takeFirstAnswers(): void {
  const cache = useQueryCache()
  const { turn, answers } = firstAnswers() ?? { turn: 0, answers: [] }
  for (const { name, address, answer } of answers) {
    noteTurn(address, turn)
    cache.setQueryData(keyOf(name, address), answer)
  }
}
