import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { parse } from 'yaml'
import type { FoodSource, ReferenceSource } from '#core/foods'

/** The files of the reference as the build carries them, read from their folder: for tests, the demo and the bench. */
const folder = join(process.cwd(), 'core/foods/data')
const APART = ['families', 'forms', 'schools', 'goods', 'names', 'measures'] as const
const read = (name: string) => parse(readFileSync(join(folder, `${name}.yaml`), 'utf8')) as unknown

export const reference: ReferenceSource = {
  families: read('families') as ReferenceSource['families'],
  forms: read('forms') as ReferenceSource['forms'],
  schools: read('schools') as ReferenceSource['schools'],
  goods: read('goods') as ReferenceSource['goods'],
  measures: read('measures') as ReferenceSource['measures'],
  names: read('names') as ReferenceSource['names'],
  foods: readdirSync(folder)
    .map(name => name.replace('.yaml', ''))
    .filter(name => !APART.some(other => other === name))
    .flatMap(name => read(name) as FoodSource[]),
}
