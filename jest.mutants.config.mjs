import { sandboxed } from './jest.config.mjs'

const own = { ...sandboxed }
delete own.testMatch
delete own.displayName

/** For `npm run mutants`: the tests of core, which a changed line of core must make fail. Long simulations would take days. */
export default {
  ...own,
  roots: ['<rootDir>/tests/unit', '<rootDir>/tests/reference'],
  testTimeout: 60_000,
  testPathIgnorePatterns: [
    '/tests/unit/(app|demo|shared)/',
    '/tests/unit/server/(label|migrations|readings|pictures)\\.',
    '\\.long\\.test',
  ],
}
