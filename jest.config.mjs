export default {
  testEnvironment: 'node',
  // A machine that is busy with other work is slow, not wrong.
  testTimeout: 60_000,
  maxWorkers: 2,
  // Handed to each file: looked up in the sandbox's globals they take half of the time of what reckons.
  sandboxInjectedGlobals: ['Math', 'Number', 'Float64Array', 'Array', 'Infinity', 'Object'],
  // Counted by Jest's own counters: the engine's took as long as all tests together.
  coverageProvider: 'babel',
  collectCoverageFrom: ['<rootDir>/core/**/*.ts'],
  setupFiles: ['<rootDir>/tests/support/fixedChance.mjs'],
  roots: ['<rootDir>/tests/unit', '<rootDir>/tests/reference'],
  transform: {
    '^.+\\.(t|j|mj)s$': ['@swc/jest', { jsc: { target: 'es2022', parser: { syntax: 'typescript' } }, module: { type: 'commonjs' } }],
  },
  transformIgnorePatterns: [
    '/node_modules/(?!(simple-statistics|ical\\.js|ical-generator|zod-openapi|convert|pure-rand|uuidv7|temporal-polyfill|temporal-utils|uqr|scrypt-kdf|@stdlib|idb|fake-indexeddb)/)',
  ],
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
