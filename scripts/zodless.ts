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

export const zodless = (names: readonly string[]) => ({
  name: 'dulse:zodless',
  enforce: 'pre' as const,
  resolveId: (id: string) => (id === 'zod' ? '\0zodless' : undefined),
  load: (id: string) =>
    id === '\0zodless'
      ? `${STAND_IN}\n${names.map(name => `const at_${name} = schema; export { at_${name} as ${JSON.stringify(name)} }`).join('\n')}`
      : undefined,
})
