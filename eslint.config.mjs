import ts from 'typescript'
import withNuxt from './.nuxt/eslint.config.mjs'

/**
 * A component's file is read as its script alone, which is what the parser of components hands on. Were it read whole, each of
 * them would count as changed when its turn comes, and all types would be worked out anew for each: 200 s of 320.
 */
const read = ts.sys.readFile
ts.sys.readFile = (path, encoding) => {
  const text = read(path, encoding)
  return path.endsWith('.vue') ? (/<script[^>]*>([^]*?)<\/script>/.exec(text ?? '')?.[1] ?? '') : text
}

/**
 * Arrows between the layers run one way: app → shared → core and server → shared → core.
 * Written as regular expressions, since the glob form takes a leading # for a comment.
 */
function layer(files, regex, why) {
  return { files, rules: { 'no-restricted-imports': ['error', { patterns: [{ regex, message: why }] }] } }
}

const outside =
  '^(vue|vue-router|nuxt|#app|#imports|#components|pinia|element-plus|echarts|better-sqlite3|h3|fs|path|os|child_process)($|/)|^node:'

export default withNuxt(
  { ignores: ['.output/**', '.nuxt/**', 'node_modules/**', 'test-results/**', 'playwright-report/**', 'coverage/**', '.stryker-tmp/**'] },
  layer(
    ['core/**/*.ts'],
    `${outside}|^#(shared|server|migrations|reference)|^~|/(app|server|shared|demo)/`,
    'core/ is pure: it knows neither the app, the server, the contracts nor the outside world.',
  ),
  layer(['shared/**/*.ts'], `${outside}|^#(server|migrations|reference)|^~|/(app|server|demo)/`, 'shared/ may reach core/ only.'),
  layer(
    ['app/**/*.ts', 'app/**/*.vue'],
    '^(better-sqlite3|h3)($|/)|^node:|^#(server|migrations|reference)|/(server|demo)/',
    'The app talks to the server by its contracts in shared/.',
  ),
  layer(['server/**/*.ts'], '^(vue|pinia|element-plus|echarts)($|/)|^~/|/(app|demo)/', 'The server knows nothing of the interface.'),
  {
    files: ['core/**/*.ts'],
    rules: {
      'no-restricted-globals': ['error', 'window', 'document', 'fetch', 'localStorage', 'process', 'setTimeout', 'setInterval'],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'Give core/ the instant.' },
        { object: 'Math', property: 'random', message: 'Use a seeded source: core/stats.' },
      ],
    },
  },
  {
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/unified-signatures': 'off',
      'vue/multi-word-component-names': 'off',
      // How lines are broken is the formatter's: `npm run format`.
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'vue/html-indent': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/first-attribute-linebreak': 'off',
    },
  },
  {
    // What needs the types, in components: promises that nobody waits for. In all other files `oxlint` looks after them (.oxlintrc.json).
    files: ['app/**/*.vue'],
    languageOptions: { parserOptions: { projectService: true, extraFileExtensions: ['.vue'] } },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { arguments: false, attributes: false } }],
      '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
    },
  },
)
