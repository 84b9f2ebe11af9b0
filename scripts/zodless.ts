/**
 * The browser checks no shapes: what is written is checked at the server's door, by schemas that stand beside the rules in core/.
 * For its bundles they are built of nothing: each call gives back the same stand-in, and asking it to parse is an error.
 */
const STAND_IN = `
const no = () => { throw new Error('Shapes are checked by the server.') }
const refusing = { parse: no, safeParse: no, parseAsync: no, safeParseAsync: no }
const schema = new Proxy(function () {}, {
  get: (_, key) => (key === 'options' ? [] : key === Symbol.toPrimitive ? () => '' : refusing[key] ?? schema),
  apply: () => schema,
})
`

/** @param names what the schema library exports */
export const zodless = (names: readonly string[]) => ({
  name: 'dulse:zodless',
  enforce: 'pre' as const,
  resolveId: (id: string) => (id === 'zod' ? '\0zodless' : undefined),
  load: (id: string) =>
    id === '\0zodless'
      ? `${STAND_IN}\n${names.map(name => `const at_${name} = schema; export { at_${name} as ${JSON.stringify(name)} }`).join('\n')}`
      : undefined,
  transform(code: string, id: string) {
    // core/ is pure: what a page does not use of it is left out, whatever its modules do when they are read.
    if (!/\/core\/[^?]+\.ts$/.test(id)) return undefined
    const lean = id.includes('/core/log/kinds/') ? code.replace(/^ {2}schema,$/m, '') : code
    return { code: lean, map: null, moduleSideEffects: false }
  },
})

/** Calls of the stand-in do nothing: what only they make is left out. */
export const WITHOUT_SCHEMAS = { treeshake: { manualPureFunctions: ['z'] } }
