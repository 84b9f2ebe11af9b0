/** Where the tests of both kinds are, and what they begin with. */
const common = {
  testEnvironment: 'node',
  setupFiles: ['<rootDir>/tests/support/fixedChance.mjs'],
}

const APART = ['app/outbox.test.ts', 'server/keptWhole.test.ts']

/** In a sandbox of its own each: what puts other clocks, storage and requests in the place of the browser's, and mutants. */
export const sandboxed = {
  ...common,
  displayName: 'apart',
  testMatch: APART.map(path => `<rootDir>/tests/unit/${path}`),
  transform: {
    '^.+\\.(t|j|mj)s$': ['@swc/jest', { jsc: { target: 'es2022', parser: { syntax: 'typescript' } }, module: { type: 'commonjs' } }],
  },
  transformIgnorePatterns: [
    '/node_modules/(?!(simple-statistics|ical\\.js|ical-generator|zod-openapi|convert|pure-rand|uuidv7|temporal-polyfill|temporal-utils|uqr|scrypt-kdf|@stdlib|idb|fake-indexeddb)/)',
  ],
  // Handed to each file: looked up in the sandbox's globals they take half of the time of what reckons.
  sandboxInjectedGlobals: ['Math', 'Number', 'Float64Array', 'Array', 'Infinity', 'Object'],
  moduleNameMapper: {
    '^#core/(.*)$': '<rootDir>/core/$1',
    '^#shared/(.*)$': '<rootDir>/shared/$1',
    '^#server/(.*)$': '<rootDir>/server/$1',
    // This package exports itself to `import` only, which Jest's own loader does not take.
    '^convert$': '<rootDir>/node_modules/convert/dist/index.js',
    '^#answers$': '<rootDir>/server/openapi/answersFromTypes',
    '^#lessons$': '<rootDir>/server/practice/lessonsFromDisk',
    '^#migrations$': '<rootDir>/server/db/migrationsFromDisk',
    '^#reference$': '<rootDir>/server/foods/referenceFromDisk',
  },
}

/** In threads as they are: modules are read once for all tests of one, and nothing slows what reckons. */
const plain = {
  ...common,
  setupFiles: ['<rootDir>/tests/support/typescript.mjs', ...common.setupFiles],
  displayName: 'plain',
  runner: 'jest-light-runner',
  transform: {},
  extensionsToTreatAsEsm: ['.ts'],
  roots: ['<rootDir>/tests/unit', '<rootDir>/tests/reference'],
  testPathIgnorePatterns: ['/node_modules/', ...APART],
}

export default {
  // A machine that is busy with other work is slow, not wrong.
  testTimeout: 60_000,
  maxWorkers: 2,
  projects: [plain, sandboxed],
}
