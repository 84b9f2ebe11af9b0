import { relative } from 'node:path'

/** What a build knows of one of its files. */
interface Chunk {
  type: string
  fileName: string
  imports?: string[]
  moduleIds?: string[]
  isEntry?: boolean
  viteMetadata?: { importedCss: Set<string> }
}

/**
 * Tags by which a page's scripts and styles are fetched while the first is read, for each page and layout of a build.
 * @param bundle the browser's part, file by file
 * @param app folder in which their files stand under `pages/` and `layouts/`
 */
export function pageParts(bundle: Record<string, Chunk>, app: string): Record<string, string> {
  const withImports = (file: string, seen = new Set<string>()): Set<string> => {
    if (seen.has(file) || !bundle[file]) return seen
    seen.add(file)
    for (const other of bundle[file].imports ?? []) withImports(other, seen)
    return seen
  }
  const tags = (file: string) => {
    const files = [...withImports(file)]
    return [
      ...files
        .flatMap(name => [...(bundle[name]!.viteMetadata?.importedCss ?? [])])
        .map(css => `<link rel="stylesheet" crossorigin href="/${css}">`),
      ...files.map(name => `<link rel="modulepreload" as="script" crossorigin href="/${name}">`),
    ]
  }
  const chunks = Object.values(bundle)
  // Those that every page has stand in it already.
  const common = new Set(chunks.filter(chunk => chunk.isEntry).flatMap(chunk => tags(chunk.fileName)))
  return Object.fromEntries(
    chunks.flatMap(chunk =>
      (chunk.moduleIds ?? [])
        .map(id => relative(app, id))
        .filter(id => /^(pages|layouts)\/.*\.vue$/.test(id))
        .map(page => [
          page,
          tags(chunk.fileName)
            .filter(tag => !common.has(tag))
            .join(''),
        ]),
    ),
  )
}
