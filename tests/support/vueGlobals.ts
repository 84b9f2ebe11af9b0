import * as vue from 'vue'
import { createPinia, defineStore, setActivePinia, storeToRefs } from 'pinia'

/**
 * What Nuxt imports by itself in the app, for tests of stores and composables outside of a browser: Vue,
 * Pinia, a memory in place of local storage.
 */
export function bringVueGlobals(more: Record<string, unknown> = {}): Map<string, string> {
  const memory = new Map<string, string>()
  const localStorage = new Proxy({
    getItem: (key: string) => memory.get(key) ?? null,
    setItem: (key: string, value: string) => void memory.set(key, value),
    removeItem: (key: string) => void memory.delete(key),
  }, { ownKeys: () => [...memory.keys()], getOwnPropertyDescriptor: () => ({ enumerable: true, configurable: true }) })
  Object.assign(globalThis, vue, { defineStore, storeToRefs, localStorage }, more)
  setActivePinia(createPinia())
  return memory
}

/** A new start of the page: stores forget, the memory stays. */
export function reopenPage(): void {
  setActivePinia(createPinia())
}
