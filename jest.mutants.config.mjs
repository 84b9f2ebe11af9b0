import config from './jest.config.mjs'

/** For `npm run mutants`: the tests of core, which a changed line of core must make fail. Long simulations would take days. */
export default {
  ...config,
  testPathIgnorePatterns: [
    '/tests/unit/(app|demo|shared)/',
    '/tests/unit/server/(data|formats|label|migrations|readings)\\.',
    '/tests/unit/core/(estimateBar|offTheCard|trays|worth|learning)\\.',
  ],
}
