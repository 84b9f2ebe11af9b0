import type { PlanBook } from '#shared/contracts'

/** What the household says for planning: one document, saved as it is changed. */
export function usePlanBook() {
  const { answer, problem: lost, ready, load } = useServer('planBook')
  const desk = usePlanDesk()
  const book = computed(() => answer.value?.book)

  /** Writes a change. @returns what is wrong by field, nothing where it was taken */
  async function save(change: Partial<PlanBook>): Promise<Record<string, string>> {
    try {
      await call('savePlanBook', { body: { ...book.value!, ...change, version: answer.value!.version } })
      await Promise.all([load(), desk.load()])
      return {}
    } catch (error) {
      return fieldsOf(error)
    }
  }
  /** Of the words for a list those for one line of it: `harvests.3.to` is `to`. */
  const ofLine = (problems: Record<string, string>, list: string, index: number) =>
    Object.fromEntries(
      Object.entries(problems).map(([field, words]) => [field.startsWith(`${list}.${index}.`) ? field.split('.').at(-1)! : field, words]),
    )
  return reactive({ answer, lost, ready, load, book, save, ofLine })
}
