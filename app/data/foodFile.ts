import type { ImportAnswer, Refusal } from '#shared/contracts'

/**
 * Sends a file of foods as it is.
 * @throws Refused with field and line of each problem; OutOfTouch
 */
export async function sendFoodFile(text: string): Promise<ImportAnswer> {
  const response = await fetch('/api/foods/import', { method: 'POST', headers: { 'content-type': 'application/yaml' }, body: text }).catch(
    () => undefined,
  )
  const answer = (await response?.json().catch(() => undefined)) as ImportAnswer | Refusal | undefined
  if (!response || !answer || response.status >= 500) throw new OutOfTouch()
  if (!response.ok) throw new Refused(answer as Refusal)
  return answer as ImportAnswer
}
