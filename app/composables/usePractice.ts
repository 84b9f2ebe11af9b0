import { calibrationOf, type Said } from '#core/practice'
import type { Step } from '~/workers/practice.worker'
import type { LessonAnswer } from '#shared/contracts'

/** A lesson that was played to its end, in what it cost against the best. */
export interface PlayedLesson {
  key: string
  title: string
  seed: number
  at: number
  cost: number
  best?: number
  spoiledShare: number
}
/** A lesson that was begun and left: its acts are all there is to it. */
export interface OpenLesson {
  key: string
  seed: number
  begunAt: number
  steps: Step[]
  log: unknown[]
}
/** A drill that was answered. */
export interface AnsweredDrill {
  kind: string
  at: number
  right: boolean
  off: number
}

/** So much is kept in the browser; the oldest goes first. */
const MOST = { said: 600, played: 200, drills: 400 }

/**
 * All that practice leaves behind: in this browser alone, never in the logbook. What was said and how it came, lessons played, one that
 * is open, drills, and lessons that somebody brought.
 */
export const usePracticeStore = defineStore('practice', () => {
  const said = useLocalStorage<Said[]>('dulse.practice.said', [])
  const played = useLocalStorage<PlayedLesson[]>('dulse.practice.played', [])
  const drills = useLocalStorage<AnsweredDrill[]>('dulse.practice.drills', [])
  const open = useLocalStorage<Record<string, OpenLesson>>('dulse.practice.open', {})
  /** Texts of lessons that were brought in, by key. */
  const own = useLocalStorage<Record<string, string>>('dulse.practice.lessons', {})
  const calibration = computed(() => calibrationOf(said.value))

  const lastOf = (key: string) => played.value.findLast(item => item.key === key)
  function keepSaid(items: readonly Said[]) {
    said.value = [...said.value, ...items].slice(-MOST.said)
  }
  function keepPlayed(item: PlayedLesson) {
    // The same end again is a page that was opened once more.
    const same = (other: PlayedLesson) => other.key === item.key && other.seed === item.seed && other.cost === item.cost
    played.value = [...played.value.filter(other => !same(other)), item].slice(-MOST.played)
  }
  function keepDrill(item: AnsweredDrill) {
    drills.value = [...drills.value, item].slice(-MOST.drills)
  }
  function keepOpen(item: OpenLesson) {
    open.value = { ...open.value, [item.key]: item }
  }
  function close(key: string) {
    open.value = Object.fromEntries(Object.entries(open.value).filter(([other]) => other !== key))
  }
  function forget() {
    said.value = []
    played.value = []
    drills.value = []
    open.value = {}
  }
  return { said, played, drills, open, own, calibration, lastOf, keepSaid, keepPlayed, keepDrill, keepOpen, close, forget }
})

/** Points beyond the best from which a lesson is worth another kitchen. */
const MISSED = 12

/** The lessons that ship and those that were brought in, and the one that is next by what one misses. */
export function useLessonShelf() {
  const practice = usePracticeStore()
  const { answer, problem, ready } = useServer('lessons')
  const brought = shallowRef<LessonAnswer[]>([])
  const lost = ref('')
  watch(
    () => practice.own,
    async own => {
      const read = await Promise.all(
        Object.values(own).map(text => call('readLesson', { body: { text } }).catch((error: Error) => void (lost.value = error.message))),
      )
      brought.value = read.filter((lesson): lesson is LessonAnswer => lesson !== undefined)
    },
    { immediate: true, deep: true },
  )
  const lessons = computed(() => [
    ...(answer.value ?? []),
    ...brought.value.filter(item => !answer.value?.some(other => other.lesson.key === item.lesson.key)),
  ])
  const next = computed(() => {
    const missed = lessons.value.find(({ lesson }) => {
      const last = practice.lastOf(lesson.key)
      return last?.best !== undefined && last.cost - last.best > MISSED
    })
    return missed ?? lessons.value.find(({ lesson }) => !practice.lastOf(lesson.key)) ?? lessons.value[0]
  })
  /** Reads a lesson and keeps it in this browser. @throws Refused with field and line */
  async function bring(text: string): Promise<LessonAnswer> {
    const read = await call('readLesson', { body: { text } })
    if (answer.value?.some(({ lesson }) => lesson.key === read.lesson.key))
      throw new Error(`A lesson that ships is called ${read.lesson.key}: give yours another key.`)
    practice.own = { ...practice.own, [read.lesson.key]: text }
    return read
  }
  return { lessons, next, problem, ready, bring, lost, isOwn: (key: string) => key in practice.own }
}
