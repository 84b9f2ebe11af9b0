import { join } from 'node:path'
import { must, root } from './steps.mjs'

/** `npm run types`: what stands in components by the compiler that reads them, all else by the native one, which takes a tenth of the time. */
must('npx', ['nuxt', 'prepare'])
const native = join(root, 'node_modules/typescript-native/bin/tsc')
for (const project of ['.nuxt/tsconfig.server.json', '.nuxt/tsconfig.shared.json', '.nuxt/tsconfig.node.json', 'tests/tsconfig.json'])
  must(process.execPath, [native, '--noEmit', '--project', project])
must('npx', ['vue-tsc', '--noEmit', '--project', '.nuxt/tsconfig.app.json'])
