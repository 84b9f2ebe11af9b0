export const TODO_KINDS = [
  'load',
  'prepare',
  'heat',
  'lower',
  'rotate',
  'weigh',
  'test',
  'takeOut',
  'dry',
  'rest',
  'look',
  'redry',
  'grind',
  'pack',
  'discard',
  'held',
  'danger',
  'bringIn',
  'takeOutside',
  'turn',
  'flip',
  'endSmoke',
  'round',
  'lookJar',
  'settle',
] as const
export type TodoKind = (typeof TODO_KINDS)[number]

/** One thing that needs hands, or will happen. */
export interface Todo {
  kind: TodoKind
  /** When, as an instant; with `to` a window. */
  from: number
  to?: number
  title: string
  /** Why now, in a sentence. */
  why: string
}
