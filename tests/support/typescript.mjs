import { fileURLToPath } from 'node:url'
import { register } from 'tsx/esm/api'

// From here on this thread reads TypeScript, with the aliases of the tests.
process.env.TSX_TSCONFIG_PATH = fileURLToPath(new URL('../tsconfig.json', import.meta.url))
register()
