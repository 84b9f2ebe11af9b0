import { foodBook } from '#core/foods'
import { reference } from '#reference'
import { tryLoad, usualKnobs, type TryLoad } from '#core/tries'
import { benchTry } from '../scripts/bench/practice'
const ms = (v: number[]) => {
  v.sort((a, b) => a - b)
  return `mid ${v[v.length >> 1]!.toFixed(1)} p95 ${v[Math.floor(v.length * 0.95)]!.toFixed(1)} max ${v.at(-1)!.toFixed(1)}`
}
benchTry((n, f) => console.log(n, f), ms)
benchTry((n, f) => console.log(n, f), ms)
