import { execFileSync, spawnSync } from 'node:child_process'
import { X509Certificate } from 'node:crypto'
import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { createServer, get } from 'node:https'
import { request as plainRequest } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { connect } from 'node:tls'
import { isLoopback, isOfHouse, namesOfMachine } from '#server/home/addresses'
import { authorityOf, certificateOf } from '#server/home/authority'
import { Counted, HOUSE_BOUNDS, LOOPBACK_BOUNDS, ReadTime } from '#server/home/bounds'
import { CODE_MS, PairingCodes } from '#server/home/codes'
import { turnedAway } from '#server/home/door'
import { contentPolicy, scriptHashes } from '#server/home/headers'
import { Home } from '#server/home/home'
import { Keyring } from '#server/home/keyring'
import { admit, type Who } from '#server/home/who'
import { enter, pair, setPassphrase } from '#server/services/home'
import { ROUTES, ROUTE_NAMES, routeOf } from '#shared/api'
import { newPassphrase } from '#shared/contracts'
import { DAY, MINUTE } from '#core/time'

const NOW = Date.UTC(2026, 10, 28, 9)
const NAMES = { given: [] as string[], names: ['larder.local', 'larder'], addresses: ['192.168.7.20', 'fd00::20'] }
const folders: string[] = []
const folder = () => {
  const made = mkdtempSync(join(tmpdir(), 'dulse-home-'))
  folders.push(made)
  return made
}
afterAll(() => folders.forEach(made => rmSync(made, { recursive: true, force: true })))

describe('names of a house', () => {
  it('are of networks that are not of the world (RFC 1918, 4193, 6598)', () => {
    for (const address of ['10.1.2.3', '172.31.255.1', '192.168.0.9', '100.127.0.1', '169.254.3.3', 'fd12::1', 'fe80::9'])
      expect([address, isOfHouse(address)]).toEqual([address, true])
    for (const address of ['172.32.0.1', '192.169.0.1', '100.128.0.1', '8.8.8.8', '2001:db8::1'])
      expect([address, isOfHouse(address)]).toEqual([address, false])
  })
  it('are not taken for the machine itself', () => {
    expect(['127.0.0.1', '127.8.0.1', '::1', '::ffff:127.0.0.1'].every(isLoopback)).toBe(true)
    expect(['192.168.0.1', '::2', '128.0.0.1', '::ffff:10.0.0.1'].some(isLoopback)).toBe(false)
  })
  it('of this machine hold only what a certificate may', () => {
    process.env.DULSE_NAMES = 'dulse.home.arpa, what ever, <b>'
    const { given, names, addresses } = namesOfMachine()
    delete process.env.DULSE_NAMES
    expect(given).toEqual(['dulse.home.arpa'])
    expect(names[0]).toBe('dulse.home.arpa')
    expect(names.every(name => /^[a-z0-9.-]+$/.test(name))).toBe(true)
    expect(addresses.every(isOfHouse)).toBe(true)
  })
})

/** How a client that trusts an authority takes a server's certificate. */
async function handshake(sealed: { cert: string; key: string }, ca: string, servername: string): Promise<string> {
  const server = createServer(sealed).listen(0)
  const { port } = server.address() as { port: number }
  const found = await new Promise<string>(resolve => {
    const socket = connect({ port, ca, servername }, () => resolve('trusted'))
    socket.once('error', error => resolve(error.message)).once('close', () => server.close())
    socket.setTimeout(2000, () => socket.destroy())
  })
  server.close()
  return found
}

describe('the household’s own authority', () => {
  it('is made once, kept where nobody else reads, and holds for a house alone', async () => {
    const home = folder()
    const made = await authorityOf(home, NOW, NAMES)
    expect(await authorityOf(home, NOW + DAY, NAMES)).toEqual(made)
    const cert = new X509Certificate(made.cert)
    expect(cert.ca).toBe(true)
    expect(statSync(join(home, 'home/authority.key')).mode & 0o077).toBe(0)
    expect(statSync(join(home, 'home')).mode & 0o077).toBe(0)
  })
  // The reference is OpenSSL's own reading of what was written.
  const hasOpenSsl = spawnSync('openssl', ['version']).status === 0
  ;(hasOpenSsl ? it : it.skip)('is read by OpenSSL as it was meant', async () => {
    const home = folder()
    await authorityOf(home, NOW, NAMES)
    const text = execFileSync('openssl', ['x509', '-noout', '-text', '-in', join(home, 'home/authority.crt')], { encoding: 'utf8' })
    expect(text).toMatch(/Name Constraints: critical\s+Permitted:\s+DNS:local\s/)
    for (const line of [
      'DNS:larder',
      'IP:192.168.0.0/255.255.0.0',
      'IP:172.16.0.0/255.240.0.0',
      'IP:FC00:0:0:0:0:0:0:0/FE00:0:0:0:0:0:0:0',
    ])
      expect(text).toContain(line)
    expect(text).toMatch(/Basic Constraints: critical\s+CA:TRUE, pathlen:0/)
  })
  it('vouches for the server, and for no name of the world', async () => {
    const home = folder()
    const authority = await authorityOf(home, Date.now(), NAMES)
    expect(await handshake(await certificateOf(home, authority, NAMES, Date.now()), authority.cert, 'larder.local')).toBe('trusted')
    // Signed with the same key for a bank: whoever trusts the authority is told no, as RFC 5280 wants it.
    const bank = await certificateOf(home, authority, { given: [], names: ['bank.example.com'], addresses: [] }, Date.now())
    expect(await handshake(bank, authority.cert, 'bank.example.com')).toBe('permitted subtree violation')
  })
  it('renews what ends within a month or lacks a name, and nothing else', async () => {
    const home = folder()
    const authority = await authorityOf(home, NOW, NAMES)
    const first = await certificateOf(home, authority, NAMES, NOW)
    expect(await certificateOf(home, authority, NAMES, NOW + 50 * DAY)).toEqual(first)
    const later = await certificateOf(home, authority, NAMES, NOW + 61 * DAY)
    expect(later.cert).not.toBe(first.cert)
    const moved = await certificateOf(home, authority, { ...NAMES, addresses: ['192.168.7.99'] }, NOW + 61 * DAY)
    expect(new X509Certificate(moved.cert).checkIP('192.168.7.99')).toBe('192.168.7.99')
    // A clock that went back holds a certificate for not yet good.
    expect((await certificateOf(home, authority, NAMES, NOW)).cert).not.toBe(moved.cert)
  })
  it('is not thrown away where its file cannot be read; the server’s own is made anew', async () => {
    const home = folder()
    const authority = await authorityOf(home, NOW, NAMES)
    const first = await certificateOf(home, authority, NAMES, NOW)
    writeFileSync(join(home, 'home/server.crt'), 'what is this')
    expect((await certificateOf(home, authority, NAMES, NOW)).cert).not.toBe(first.cert)
    writeFileSync(join(home, 'home/authority.crt'), 'what is this')
    await expect(authorityOf(home, NOW, NAMES)).rejects.toThrow(/authority\.crt or its key cannot be read: put them back from a copy/)
  })
})

describe('the door', () => {
  const asked = (headers: Record<string, string>, more: { method?: string; fromHouse?: boolean } = {}) =>
    turnedAway({ method: more.method ?? 'GET', fromHouse: more.fromHouse ?? false, headers }, NAMES)?.statusCode

  it('answers to what it is called and to nothing that a page can make up', () => {
    for (const host of ['127.0.0.1:4170', 'localhost:4170', '[::1]:4170', 'LOCALHOST:1'])
      expect([host, asked({ host })]).toEqual([host, undefined])
    for (const host of [
      'evil.example:4170',
      '192.168.7.20:4170',
      'larder.local',
      '127.0.0.1.evil.example',
      'localhost.evil.example',
      '0.0.0.0',
      '2130706433.evil',
      'a b',
      '',
    ])
      expect([host, asked({ host })]).toEqual([host, 421])
    for (const host of ['192.168.7.20:4443', 'larder.local:4443', 'larder:4443', '[fd00::20]:4443', 'localhost:4443'])
      expect([host, asked({ host }, { fromHouse: true })]).toEqual([host, undefined])
    expect(asked({ host: '192.168.7.21:4443' }, { fromHouse: true })).toBe(421)
  })
  it('refuses pages of other origins: another host, port or scheme, and none', () => {
    const host = 'larder.local:4443'
    expect(asked({ host, origin: 'https://larder.local:4443' }, { fromHouse: true, method: 'POST' })).toBeUndefined()
    for (const origin of ['http://larder.local:4443', 'https://larder.local', 'https://larder.local:4444', 'https://evil.example', 'null'])
      expect([origin, asked({ host, origin }, { fromHouse: true })]).toEqual([origin, 403])
  })
  it('lets another site open a page by a link, and do nothing else (fetch metadata)', () => {
    const from = (site: string, more: Record<string, string> = {}, method = 'GET') =>
      asked({ host: 'localhost:4170', 'sec-fetch-site': site, ...more }, { method })
    expect(from('same-origin', {}, 'POST')).toBeUndefined()
    expect(from('none')).toBeUndefined()
    for (const site of ['cross-site', 'same-site']) {
      expect(from(site)).toBe(403)
      expect(from(site, {}, 'POST')).toBe(403)
      expect(from(site, { 'sec-fetch-mode': 'navigate', 'sec-fetch-dest': 'document' })).toBeUndefined()
      expect(from(site, { 'sec-fetch-mode': 'navigate', 'sec-fetch-dest': 'document' }, 'POST')).toBe(403)
      expect(from(site, { 'sec-fetch-mode': 'navigate', 'sec-fetch-dest': 'iframe' })).toBe(403)
      expect(from(site, { 'sec-fetch-mode': 'no-cors', 'sec-fetch-dest': 'image' })).toBe(403)
    }
  })
  it('says by hash which scripts of a page run', () => {
    const html = '<script>go()</script><script type="application/json">{"a":1}</script><script src="/a.js"></script>'
    expect(scriptHashes(html)).toHaveLength(1)
    expect(contentPolicy(scriptHashes(html))).toMatch(/script-src 'self' 'wasm-unsafe-eval' 'sha256-[\w+/]{43}='/)
    expect(contentPolicy()).not.toMatch(/script-src[^;]*unsafe-inline/)
  })
})

describe('who may what', () => {
  const device = (role: 'cook' | 'keeper'): Who => ({
    kind: 'device',
    device: { id: 'd', name: 'Phone', role, cameBy: 'code', addedAt: 0, seenAt: 0 },
  })
  const may = (who: Who) =>
    ROUTE_NAMES.filter(name => {
      try {
        admit(who, routeOf(name))
        return true
      } catch {
        return false
      }
    })
  it('this machine and a keeper may everything, a cook logs and reads, a key does one thing, others knock', () => {
    expect(may({ kind: 'here' })).toEqual(ROUTE_NAMES)
    expect(may(device('keeper'))).toEqual(ROUTE_NAMES)
    const cook = may(device('cook'))
    expect(cook).toEqual(
      expect.arrayContaining(['now', 'logOnBatch', 'startBatch', 'logOnJar', 'logOnRun', 'logTogether', 'batch', 'shelf']),
    )
    for (const kept of [
      'saveHousehold',
      'restore',
      'restoreCopy',
      'importLogbook',
      'importTable',
      'backup',
      'logbookJson',
      'home',
      'makeCode',
      'setPassphrase',
      'makeToken',
    ] as const)
      expect(cook).not.toContain(kept)
    expect(may({ kind: 'token', use: 'readings', deviceId: 'd' })).toEqual(['takeReadings', 'whoAmI', 'enter', 'pair', 'leave'])
    expect(may({ kind: 'token', use: 'calendar' })).toEqual(['calendar', 'whoAmI', 'enter', 'pair', 'leave'])
    expect(may({ kind: 'unknown' })).toEqual(['whoAmI', 'enter', 'pair', 'leave'])
  })
  it('whatever takes the whole logbook out or in, or changes settings, is a keeper’s', () => {
    const open = ROUTE_NAMES.filter(name => routeOf(name).who !== 'keeper')
    expect(
      open.filter(name => /export|import|backup|restore|cop(?:y|ies)|household$/i.test(`${routeOf(name).method} ${routeOf(name).path}`)),
    ).toEqual(['household'])
    expect(ROUTES.household.method).toBe('GET')
  })
})

describe('keys', () => {
  it('of a device are known by their hash alone, and end when it is taken off', () => {
    const keys = new Keyring(':memory:')
    const { id, key } = keys.addDevice({ name: 'Phone', role: 'cook', cameBy: 'code' }, NOW)
    expect(keys.device(id, key, NOW)).toMatchObject({ name: 'Phone', role: 'cook', seenAt: NOW })
    expect(keys.device(id, `${key.slice(0, -1)}_`, NOW)).toBeUndefined()
    keys.device(id, key, NOW + 2 * MINUTE)
    expect(keys.devices()[0]!.seenAt).toBe(NOW + 2 * MINUTE)
    expect(keys.removeDevice(id)).toBe(true)
    expect(keys.device(id, key, NOW)).toBeUndefined()
    expect(keys.removeDevice(id)).toBe(false)
  })
  it('stay out of the file in the clear', async () => {
    const home = folder()
    const keys = new Keyring(home)
    await keys.setPassphrase('kettle willow barn ink')
    const { key } = keys.addDevice({ name: 'Phone', role: 'cook', cameBy: 'code' }, NOW)
    const token = keys.addToken({ name: 'Scale', use: 'readings', deviceId: 'x' }, NOW)
    keys.close()
    const path = join(home, 'home/keys.sqlite')
    const bytes = readFileSync(path)
    for (const secret of ['kettle willow barn ink', key, token.key]) expect(bytes.includes(secret)).toBe(false)
    expect(statSync(path).mode & 0o077).toBe(0)
    const again = new Keyring(home)
    expect(await again.isPassphrase('kettle willow barn ink')).toBe(true)
    expect(await again.isPassphrase('kettle willow barn inc')).toBe(false)
    again.close()
  })
  it('a passphrase is the same however a keyboard writes its accents (NFKC)', async () => {
    const keys = new Keyring(':memory:')
    expect(await keys.isPassphrase('anything at all')).toBe(false)
    await keys.setPassphrase('cre\u0301me fraîche & jam')
    expect(await keys.isPassphrase('cr\u00e9me fraîche & jam')).toBe(true)
  })
  it.each([
    ['short', false],
    ['password1234', false],
    ['Passphrase 2026!', false],
    ['123456789012', false],
    ['qwertyuiop12', false],
    ['aaaaaaaaaaaab', false],
    ['kettle willow barn ink', true],
    ['Ein Glas voll Nebel', true],
    ['梨と林檎と葡萄と杏と桃と柿', true],
  ])('“%s” is one: %s', (typed, good) => expect(newPassphrase.safeParse(typed).success).toBe(good))
})

describe('codes', () => {
  it('let one device in, once, for two minutes, however they are typed', () => {
    const codes = new PairingCodes()
    const { code, until } = codes.make('cook', NOW)
    expect(until - NOW).toBe(CODE_MS)
    expect(codes.use(`${code.slice(0, 4)} ${code.slice(4).toLowerCase()}`, NOW + 1000)).toBe('cook')
    expect(codes.use(code, NOW + 1000)).toBeUndefined()
    const late = codes.make('keeper', NOW)
    expect(codes.use(late.code, NOW + CODE_MS)).toBeUndefined()
    expect(codes.use('', NOW)).toBeUndefined()
  })
})

describe('bounds', () => {
  it('count by address and by all, and let go once', () => {
    const counted = new Counted()
    const ends = [counted.take('a', 2, 3), counted.take('a', 2, 3)]
    expect(counted.take('a', 2, 3)).toBeUndefined()
    expect(counted.take('b', 2, 3)).toBeDefined()
    expect(counted.take('c', 2, 3)).toBeUndefined()
    ends[0]!()
    ends[0]!()
    expect(counted.take('c', 2, 3)).toBeDefined()
    expect(counted.take('d', 2, 3)).toBeUndefined()
  })
  it('reading ebbs away within seconds', () => {
    const time = new ReadTime()
    for (let i = 0; i < 10; i++) time.add('a', 50, NOW)
    expect(time.isOver('a', 0.4, NOW)).toBe(true)
    expect(time.isOver('b', 0.4, NOW)).toBe(false)
    expect(time.isOver('a', 0.4, NOW + 1000)).toBe(false)
  })
})

describe('a home that is open', () => {
  const opened = async (passphrase = true) => {
    const home = new Home(folder(), (_, answer) => answer.end('the logbook'), {
      ports: { tls: 0, plain: 0 },
      names: () => ({ given: [], names: ['localhost'], addresses: [] }),
    })
    if (passphrase) await home.keys.setPassphrase('kettle willow barn ink')
    return home
  }
  it('opens to nobody without a passphrase', async () => {
    const home = await opened(false)
    await expect(home.open()).rejects.toThrow(/Choose the household’s passphrase first/)
    expect(home.listening).toBeUndefined()
    await home.end()
  })
  it('speaks TLS 1.2 and newer; without TLS it shows the way and gives the certificate away, whatever is asked', async () => {
    const home = await opened()
    await home.open()
    const { tls, plain } = home.listening!
    const plainly = (path: string, method = 'GET') =>
      new Promise<{ status: number; text: string }>(resolve =>
        plainRequest({ port: plain, path, method }, answer => {
          let text = ''
          answer.on('data', (chunk: Buffer) => (text += chunk.toString())).on('end', () => resolve({ status: answer.statusCode!, text }))
        }).end(),
      )
    const cert = (await plainly('/dulse-at-home.crt')).text
    expect(new X509Certificate(cert).ca).toBe(true)
    for (const [path, method] of [
      ['/', 'GET'],
      ['/api/now', 'GET'],
      ['/api/batches', 'POST'],
    ] as const) {
      const { text } = await plainly(path, method)
      expect(text).toContain(`https://localhost:${tls}`)
      expect(text).not.toContain('the logbook')
    }
    const text = await new Promise<string>((resolve, reject) =>
      get({ host: 'localhost', port: tls, ca: cert }, answer => answer.on('data', (chunk: Buffer) => resolve(chunk.toString()))).on(
        'error',
        reject,
      ),
    )
    expect(text).toBe('the logbook')
    const old = await new Promise<string>(resolve =>
      connect({ host: 'localhost', port: tls, ca: cert, maxVersion: 'TLSv1.1', minVersion: 'TLSv1' }, () => resolve('spoken')).on(
        'error',
        error => resolve(error.message),
      ),
    )
    expect(old).not.toBe('spoken')
    await home.end()
  })
  it('says that a port is taken', async () => {
    const first = await opened()
    await first.open()
    const second = new Home(folder(), () => undefined, { ports: { tls: first.listening!.tls, plain: 0 } })
    await second.keys.setPassphrase('kettle willow barn ink')
    await expect(second.open()).rejects.toThrow(/is taken by another program/)
    await Promise.all([first.end(), second.end()])
  })
  it('lets a passphrase and a code be tried five times, from one address, and forgets after a right one', async () => {
    const home = await opened()
    const tried = (passphrase: string, from = 'a') =>
      enter(home, from, { passphrase, name: 'Phone', role: 'keeper' }).then(
        () => 'in',
        (error: Error) => error.message.replace('passphrase: ', ''),
      )
    for (let i = 0; i < 4; i++) expect(await tried('wrong')).toBe('That is not the passphrase.')
    expect(await tried('kettle willow barn ink')).toBe('in')
    for (let i = 0; i < 5; i++) await tried('wrong')
    expect(await tried('kettle willow barn ink')).toMatch(/Too many tries: wait 15 minutes/)
    expect(await tried('kettle willow barn ink', 'b')).toBe('in')
    const { code } = home.codes.make('cook', Date.now())
    // Who tried passphrases has tries left for a code.
    await expect(pair(home, 'a', { code, name: 'Phone' })).resolves.toMatchObject({ id: expect.any(String) })
    for (let i = 0; i < 5; i++) await expect(pair(home, 'd', { code: 'WRONGWRONG', name: 'Phone' })).rejects.toThrow(/This code is wrong/)
    const { code: again } = home.codes.make('cook', Date.now())
    await expect(pair(home, 'd', { code: again, name: 'Phone' })).rejects.toThrow(/Too many tries/)
    await expect(pair(home, 'c', { code: again, name: 'Phone' })).resolves.toMatchObject({ id: expect.any(String) })
    await home.end()
  })
  it('two hundred wrong codes from all over the house lock out neither an honest phone nor this machine', async () => {
    const home = new Home(folder(), () => undefined, { slowMs: 20 })
    await home.keys.setPassphrase('kettle willow barn ink')
    for (let i = 0; i < 200; i++) await pair(home, `192.168.${i % 250}.${i}`, { code: 'WRONGWRONG', name: 'Nobody' }).catch(() => undefined)
    const { code } = home.codes.make('cook', Date.now())
    await expect(pair(home, '192.168.7.99', { code, name: 'Phone' })).resolves.toMatchObject({ id: expect.any(String) })
    const keeper = { passphrase: 'kettle willow barn ink', name: 'Desk', role: 'keeper' as const }
    await expect(enter(home, '127.0.0.1', keeper)).resolves.toMatchObject({ id: expect.any(String) })
    // Another address of the same network of the new kind is the same guesser.
    for (let i = 0; i < 5; i++) await pair(home, `fd00:1:2:3::${i + 1}`, { code: 'WRONGWRONG', name: 'Nobody' }).catch(() => undefined)
    await expect(pair(home, 'fd00:1:2:3::99', { code: 'WRONGWRONG', name: 'Nobody' })).rejects.toThrow(/Too many tries/)
    // However short the network is written: of its first four groups some may be zero and left out.
    for (const net of ['fe80::', 'fd12:3456:789a::', '2001:db8::']) {
      for (let i = 0; i < 5; i++)
        await pair(home, `${net}${i + 1}:2:3:4%eth0`, { code: 'WRONGWRONG', name: 'Nobody' }).catch(() => undefined)
      for (const host of ['99', 'a:b:c:d'])
        await expect(pair(home, net + host, { code: 'WRONGWRONG', name: 'Nobody' })).rejects.toThrow(/Too many tries/)
    }
    await home.end()
  })
  it('a device that is taken off hears nothing more, at once; others go on', async () => {
    const home = await opened()
    const [mine, lost, third] = ['Mine', 'Lost', 'Third'].map(name =>
      home.keys.addDevice({ name, role: 'cook', cameBy: 'code' }, NOW),
    ) as unknown as [{ id: string }, { id: string }, { id: string }]
    const cut: string[] = []
    for (const [name, { id }] of Object.entries({ mine, lost, third })) home.keepLine(id, () => void cut.push(name))
    const forget = home.keepLine(third.id, () => void cut.push('closed before'))
    forget()
    home.keys.removeDevice(lost.id)
    expect(cut).toEqual(['lost'])
    home.keys.removeOtherDevices(mine.id)
    expect(cut).toEqual(['lost', 'third'])
    await home.end()
  })
  it('what the house uses up leaves this machine its own', () => {
    const home = new Home(folder(), () => undefined)
    for (let i = 0; i < HOUSE_BOUNDS.allConnections; i++)
      home.house.connections.take(`192.168.0.${i % 7}`, 1e6, HOUSE_BOUNDS.allConnections)
    expect(home.house.connections.take('192.168.0.8', 96, HOUSE_BOUNDS.allConnections)).toBeUndefined()
    expect(home.here.connections.take('here', LOOPBACK_BOUNDS.connections, LOOPBACK_BOUNDS.allConnections)).toBeDefined()
    expect(home.here.streams.take('here', LOOPBACK_BOUNDS.streams, LOOPBACK_BOUNDS.allStreams)).toBeDefined()
  })
  it('changes its passphrase for whoever knows the one until now, and signs others out where that is wished', async () => {
    const home = await opened()
    const own = home.keys.addDevice({ name: 'Mine', role: 'keeper', cameBy: 'passphrase' }, NOW)
    home.keys.addDevice({ name: 'Lost', role: 'keeper', cameBy: 'passphrase' }, NOW)
    const who: Who = { kind: 'device', device: home.keys.device(own.id, own.key, NOW)! }
    const change = { passphrase: 'nettle harbour coat ten', signOut: true }
    await expect(setPassphrase(home, who, 'a', change)).rejects.toThrow(/not the passphrase until now/)
    await expect(setPassphrase(home, who, 'a', { ...change, before: 'wrong' })).rejects.toThrow(/not the passphrase until now/)
    await setPassphrase(home, who, 'a', { ...change, before: 'kettle willow barn ink' })
    expect(home.keys.devices().map(device => device.name)).toEqual(['Mine'])
    expect(await home.keys.isPassphrase('nettle harbour coat ten')).toBe(true)
    await home.end()
  })
})
