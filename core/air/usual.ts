import type { Air } from './humidity'

/** A room that nobody measured (common practice). */
export const USUAL_ROOM: Air = { celsius: 20, humidity: 0.55 }
