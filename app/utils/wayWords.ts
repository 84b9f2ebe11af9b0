import type { MachineKind } from '#core/machines'

/** What on and off are called where no dial is turned. */
export function heatWords(way: MachineKind | undefined, setC: number | null, temperature: (celsius: number) => string): string {
  switch (way) {
    case 'sun':
      return setC === null ? 'brought in' : `out in the sun, about ${temperature(setC)}`
    case 'air':
      return setC === null ? 'taken down' : `hung in the air, ${temperature(setC)}`
    case 'freeze-dryer':
      return setC === null ? 'cycle stopped' : `cycle running, shelves to ${temperature(setC)}`
    case 'smoker':
      return setC === null ? 'fire out' : `in the smoke, ${temperature(setC)}`
    default:
      return setC === null ? 'heat off' : `heat on, ${temperature(setC)}`
  }
}
