import { X509Certificate } from 'node:crypto'
import { join } from 'node:path'

/** A certificate with its key, as PEM. */
export interface Sealed {
  cert: string
  key: string
}

/** The folder beside the logbook that holds keys; nobody else on the machine may read it. */
export const keyFolder = (folder: string) => join(folder, 'home')

/** What two people compare by eye: SHA-256 of the certificate. */
export const fingerprintOf = (cert: string) => new X509Certificate(cert).fingerprint256
