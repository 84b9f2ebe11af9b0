import { uuidv7 } from 'uuidv7'
import type { PlanBook } from '#shared/contracts'

type Line<List extends 'harvests' | 'wishes'> = PlanBook[List][number]

/** A list of the plan's book: its form, what is wrong with it, and the saving of each line by itself. */
export function usePlanLines<List extends 'harvests' | 'wishes'>(
  store: ReturnType<typeof usePlanBook>,
  list: List,
  empty: Partial<Line<List>>,
) {
  const form = ref<Partial<Line<List>> & { id: string }>()
  const problems = ref<Record<string, string>>({})
  const checkFields = useFieldChecks()
  const lines = computed(() => (store.book?.[list] ?? []) as Line<List>[])

  function edit(line?: Partial<Line<List>>) {
    problems.value = {}
    form.value = { ...empty, ...line, id: line?.id ?? uuidv7() } as typeof form.value
  }
  const leave = () => (form.value = undefined)
  async function save() {
    if (!form.value || checkFields() !== undefined) return
    const line = toRaw(form.value) as Line<List>
    const at = lines.value.findIndex(item => item.id === line.id)
    const next = at < 0 ? [...lines.value, line] : lines.value.map(item => (item.id === line.id ? line : item))
    const found = await store.save({ [list]: next } as Partial<PlanBook>)
    problems.value = store.ofLine(found, list, at < 0 ? lines.value.length : at)
    if (Object.keys(found).length === 0) leave()
  }
  async function remove(line: Line<List>) {
    problems.value = await store.save({ [list]: lines.value.filter(item => item.id !== line.id) } as Partial<PlanBook>)
  }
  return { form, problems, lines, edit, leave, save, remove }
}
