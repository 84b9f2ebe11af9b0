import { alarmKey, alarmsDue, TOLD_UNASKED, type TodoKind } from '#core/planning'
import { playTones } from '~/utils/tones'
import { MINUTE } from '#core/time'

/** What this device tells by itself while Dulse is open or installed on it. */
export interface PageAlarms {
  on: boolean
  sound: boolean
  /** Nothing at night, except where food spoils. */
  quiet: boolean
  kinds: TodoKind[]
}

/** The choice of this device, and whether its browser lets notifications through. */
export const usePageAlarms = createSharedComposable(() => {
  const choice = useLocalStorage<PageAlarms>(
    'dulse.alarms',
    { on: false, sound: true, quiet: true, kinds: [...TOLD_UNASKED] },
    { mergeDefaults: true },
  )
  const permission = ref(typeof Notification === 'undefined' ? 'missing' : Notification.permission)
  /** Asks the browser, which only answers where somebody pressed something. */
  async function ask() {
    if (typeof Notification !== 'undefined') permission.value = await Notification.requestPermission()
  }
  return { choice, permission, ask }
})

const TOLD_KEY = 'dulse.alarms.told'
/** So many of what was told are remembered, newest last. */
const MOST_TOLD = 300

/** Tells of what is due, once a device: a notification where the browser lets it, a sound, and words in a live region. */
export function useAlarms() {
  const { choice, permission } = usePageAlarms()
  const { settings } = storeToRefs(useHouseholdStore())
  const { now } = useClock()
  const { answer } = useServer('now', () => (choice.value.on ? {} : undefined))
  /** What was told last, in words. */
  const said = ref('')

  async function look() {
    if (!choice.value.on || !answer.value) return
    const todos = answer.value.todos
    const due = await alone(() => {
      const told = new Map(JSON.parse(localStorage.getItem(TOLD_KEY) ?? '[]') as [string, number][])
      const found = alarmsDue(todos, {
        now: Date.now(),
        household: settings.value,
        kinds: choice.value.kinds,
        quiet: choice.value.quiet,
        told,
      })
      for (const todo of found) {
        told.delete(alarmKey(todo))
        told.set(alarmKey(todo), Date.now())
      }
      if (found.length > 0) localStorage.setItem(TOLD_KEY, JSON.stringify([...told].slice(-MOST_TOLD)))
      return found
    })
    if (due.length === 0) return
    said.value = due.map(todo => `${todo.title}. ${todo.why}`).join(' ')
    if (choice.value.sound) playTones([523, 659, 784])
    for (const todo of due) await show(todo.title, todo.why, `/batches/${todo.batchId}`, alarmKey(todo))
  }

  async function show(title: string, body: string, url: string, tag: string) {
    if (permission.value !== 'granted') return
    const options = { body, tag, icon: '/icons/192.png', data: { url } }
    const worker = await navigator.serviceWorker?.getRegistration().catch(() => undefined)
    if (worker) return worker.showNotification(title, options)
    const notice = new Notification(title, options)
    notice.onclick = () => {
      window.focus()
      void navigateTo(url)
    }
  }
  watch([now, answer], () => void look(), { immediate: true })
  // What is told only to a page that nobody looks at is asked for all the same.
  useIntervalFn(() => void look(), MINUTE)
  return { said }
}

/** Two tabs of one device do not tell the same thing. */
async function alone<Found>(act: () => Found): Promise<Found> {
  return 'locks' in navigator ? navigator.locks.request('dulse-alarms', act) : act()
}
