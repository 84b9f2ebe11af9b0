import type { Who } from './who'

declare module 'h3' {
  interface H3EventContext {
    /** Who asks: the door has seen. */
    who: Who
  }
}
