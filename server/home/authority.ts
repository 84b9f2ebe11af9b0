import 'reflect-metadata'
import { randomBytes, webcrypto, X509Certificate as NodeCertificate } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { isIP } from 'node:net'
import { join } from 'node:path'
import { AsnConvert } from '@peculiar/asn1-schema'
import { GeneralName, GeneralSubtree, GeneralSubtrees, id_ce_nameConstraints, NameConstraints } from '@peculiar/asn1-x509'
import * as x509 from '@peculiar/x509'
import { DAY } from '#core/time'
import { CannotOpen } from '../db/opening'
import { HOUSE_ENDINGS, HOUSE_NETWORKS, type Names } from './addresses'
import { keyFolder, type Sealed } from './certificates'

x509.cryptoProvider.set(webcrypto as Crypto)
const KEY = { name: 'ECDSA', namedCurve: 'P-256', hash: 'SHA-256' }

/** So long the household's own authority holds: a phone is asked to trust it once. */
const AUTHORITY_DAYS = 3650
/** So long a certificate of the server holds, and so long before its end it is renewed. */
const SERVER_DAYS = 90
const RENEW_DAYS = 30

/**
 * The household's own authority: made on first use, kept with its key where only this user reads. It is named and narrowed: it can vouch
 * for names of a house and addresses of a house and for nothing else, so that whoever took its key could not play the household's bank.
 * @throws CannotOpen where its files are there and cannot be read
 */
export async function authorityOf(folder: string, now: number, names: Names): Promise<Sealed> {
  const known = readSealed(folder, 'authority')
  if (known) return known
  const keys = await webcrypto.subtle.generateKey(KEY, true, ['sign', 'verify'])
  const cert = await x509.X509CertificateGenerator.createSelfSigned(
    {
      serialNumber: serial(),
      name: `CN=Dulse at home ${randomBytes(2).toString('hex')}`,
      notBefore: new Date(now - DAY),
      notAfter: new Date(now + AUTHORITY_DAYS * DAY),
      signingAlgorithm: KEY,
      keys,
      extensions: [
        new x509.BasicConstraintsExtension(true, 0, true),
        new x509.KeyUsagesExtension(x509.KeyUsageFlags.keyCertSign | x509.KeyUsageFlags.cRLSign, true),
        await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
        houseOnly(names),
      ],
    },
    webcrypto as Crypto,
  )
  return keep(folder, 'authority', { cert: cert.toString('pem'), key: await pemOf(keys.privateKey) })
}

/**
 * The server's certificate: the one that is kept, or a new one where that ends within a month, or lacks a name that this machine has
 * now.
 */
export async function certificateOf(folder: string, authority: Sealed, names: Names, now: number): Promise<Sealed> {
  const known = readSealed(folder, 'server')
  if (known && stillGood(known.cert, authority.cert, names, now)) return known
  const issuer = new x509.X509Certificate(authority.cert)
  const signingKey = await webcrypto.subtle.importKey('pkcs8', x509.PemConverter.decodeFirst(authority.key), KEY, false, ['sign'])
  const keys = await webcrypto.subtle.generateKey(KEY, true, ['sign', 'verify'])
  const cert = await x509.X509CertificateGenerator.create(
    {
      serialNumber: serial(),
      subject: 'CN=Dulse',
      issuer: issuer.subject,
      notBefore: new Date(now - DAY),
      notAfter: new Date(now + SERVER_DAYS * DAY),
      signingAlgorithm: KEY,
      signingKey,
      publicKey: keys.publicKey,
      extensions: [
        new x509.BasicConstraintsExtension(false, undefined, true),
        new x509.KeyUsagesExtension(x509.KeyUsageFlags.digitalSignature, true),
        new x509.ExtendedKeyUsageExtension([x509.ExtendedKeyUsage.serverAuth]),
        new x509.SubjectAlternativeNameExtension([
          { type: 'dns', value: 'localhost' },
          ...names.names.map(value => ({ type: 'dns' as const, value })),
          { type: 'ip', value: '127.0.0.1' },
          ...names.addresses.map(value => ({ type: 'ip' as const, value })),
        ]),
        await x509.AuthorityKeyIdentifierExtension.create(issuer.publicKey),
        await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
      ],
    },
    webcrypto as Crypto,
  )
  return keep(folder, 'server', { cert: cert.toString('pem'), key: await pemOf(keys.privateKey) })
}

function stillGood(cert: string, authority: string, names: Names, now: number): boolean {
  const known = new NodeCertificate(cert)
  return (
    Date.parse(known.validTo) - now > RENEW_DAYS * DAY &&
    Date.parse(known.validFrom) <= now &&
    known.verify(new NodeCertificate(authority).publicKey) &&
    [...names.names, ...names.addresses].every(name => (isIP(name) ? known.checkIP(name) : known.checkHost(name)) !== undefined)
  )
}

/** Name constraints (RFC 5280, 4.2.1.10): names and addresses of a house, and what this machine is called. */
function houseOnly({ names }: Names): x509.Extension {
  const bare = names.filter(name => !HOUSE_ENDINGS.some(ending => name.endsWith(`.${ending}`)))
  const permitted = [
    ...[...HOUSE_ENDINGS, ...bare].map(dNSName => new GeneralName({ dNSName })),
    ...HOUSE_NETWORKS.map(([address, prefix]) => new GeneralName({ iPAddress: `${address}/${prefix}` })),
  ]
  const constraints = new NameConstraints({ permittedSubtrees: new GeneralSubtrees(permitted.map(base => new GeneralSubtree({ base }))) })
  return new x509.Extension(id_ce_nameConstraints, true, AsnConvert.serialize(constraints))
}

/** A positive number of 127 bits. */
const serial = () => `4${randomBytes(16).toString('hex').slice(1)}`

async function pemOf(key: webcrypto.CryptoKey): Promise<string> {
  return x509.PemConverter.encode(await webcrypto.subtle.exportKey('pkcs8', key), 'PRIVATE KEY')
}

const pathsOf = (folder: string, name: string) => ({
  certPath: join(keyFolder(folder), `${name}.crt`),
  keyPath: join(keyFolder(folder), `${name}.key`),
})

function readSealed(folder: string, name: string): Sealed | undefined {
  const { certPath, keyPath } = pathsOf(folder, name)
  const [hasCert, hasKey] = [existsSync(certPath), existsSync(keyPath)]
  // Both are gone, or were never there: it begins. One without the other was lost, and that is said.
  if (name === 'server' ? !hasCert || !hasKey : !hasCert && !hasKey) return undefined
  try {
    const found = { cert: readFileSync(certPath, 'utf8'), key: readFileSync(keyPath, 'utf8') }
    new NodeCertificate(found.cert)
    x509.PemConverter.decodeFirst(found.key)
    return found
  } catch {
    // What the server has for itself is made anew; what phones trust is not thrown away unasked.
    if (name === 'server') return undefined
    throw new CannotOpen(
      `${certPath} or its key cannot be read: put them back from a copy, or remove both so that Dulse makes new ones, which every phone has to trust anew.`,
    )
  }
}

function keep(folder: string, name: string, sealed: Sealed): Sealed {
  mkdirSync(keyFolder(folder), { recursive: true, mode: 0o700 })
  const { certPath, keyPath } = pathsOf(folder, name)
  for (const [path, text, mode] of [
    [keyPath, sealed.key, 0o600],
    [certPath, sealed.cert, 0o644],
  ] as const) {
    writeFileSync(`${path}.new`, text, { mode })
    renameSync(`${path}.new`, path)
  }
  return sealed
}
