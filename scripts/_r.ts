import { openLogbook } from '#server/services/logbook'
import { logbookJson } from '#server/export/logbook'
import { logbookFile } from '#shared/contracts'
import { writeFileSync } from 'node:fs'
const context = openLogbook('/tmp/big/logbook.sqlite')
let t = performance.now()
const text = [...logbookJson(context)].join('')
console.log('export', Math.round(performance.now() - t), text.length)
writeFileSync('/tmp/big.json', text)
t = performance.now(); const file = JSON.parse(text); console.log('parse', Math.round(performance.now() - t))
t = performance.now(); logbookFile.parse(file); console.log('contract', Math.round(performance.now() - t))
