import helmet from 'helmet'
import { createHash } from 'node:crypto'

/**
 * What a page may load: its own files and nothing from elsewhere. `hashes` are of the scripts that stand in the page itself. Styles may
 * stand in elements, since charts and the components place things by them. WebAssembly is for the blend's programme.
 */
export function contentPolicy(hashes: readonly string[] = []): string {
  const self = "'self'"
  const parts: Record<string, readonly string[]> = {
    'default-src': ["'none'"],
    'script-src': [self, "'wasm-unsafe-eval'", ...hashes.map(hash => `'sha256-${hash}'`)],
    'style-src': [self, "'unsafe-inline'"],
    'img-src': [self, 'data:', 'blob:'],
    'font-src': [self],
    'connect-src': [self],
    'worker-src': [self],
    'manifest-src': [self],
    'form-action': [self],
    'base-uri': ["'none'"],
    'frame-ancestors': ["'none'"],
  }
  return Object.entries(parts)
    .map(([name, values]) => `${name} ${values.join(' ')}`)
    .join('; ')
}

/** Hashes of the scripts of a page that are run from within it; data that stands in one is not run. */
export function scriptHashes(html: string): string[] {
  const found: string[] = []
  for (const [, attributes, text] of html.matchAll(/<script\b([^>]*)>([^]*?)<\/script>/g))
    if (text && !/\bsrc=|type="application\/json"/.test(attributes!)) found.push(createHash('sha256').update(text).digest('base64'))
  return found
}

/** Headers of every answer. Without HSTS: it would bind what else this machine offers under its name. */
export const guardHeaders = helmet({
  contentSecurityPolicy: false,
  strictTransportSecurity: false,
  xFrameOptions: { action: 'deny' },
  referrerPolicy: { policy: 'same-origin' },
  crossOriginEmbedderPolicy: false,
})
