import { benchPractice, benchTry } from './scripts/bench/practice'
const row = (n: string, f: string, a = '') => console.log(n.padEnd(44), f.padEnd(40), a)
benchPractice(row)
