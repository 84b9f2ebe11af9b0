import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { SMTPServer } from 'smtp-server'

/** Stand-ins for whoever is told: a mailbox, and an address of the web. They take what comes and show it. */
export interface Receiver<Message> {
  port: number
  messages: Message[]
  close: () => Promise<void>
}

/** Larger than any message of Dulse. */
const MOST_BYTES = 64 * 1024

async function textOf(stream: AsyncIterable<Buffer | string>): Promise<string> {
  const parts: Buffer[] = []
  let size = 0
  for await (const part of stream) {
    const bytes = Buffer.from(part as Buffer)
    size += bytes.length
    if (size <= MOST_BYTES) parts.push(bytes)
  }
  return Buffer.concat(parts).toString('utf8')
}

/**
 * An address of the web that takes messages.
 * @param port 0 for any that is free
 * @param hear is told of each as it comes
 */
export async function openHook(port: number, hear: (message: unknown) => void = () => {}): Promise<Receiver<unknown>> {
  const messages: unknown[] = []
  const server = createServer((request, response) => {
    void textOf(request).then(text => {
      try {
        const message: unknown = JSON.parse(text)
        messages.push(message)
        hear(message)
        response.writeHead(204).end()
      } catch {
        response.writeHead(400).end('Send JSON.')
      }
    })
  })
  await new Promise<void>((resolve, reject) => server.once('error', reject).listen(port, '127.0.0.1', resolve))
  return {
    port: (server.address() as AddressInfo).port,
    messages,
    close: () => new Promise(resolve => void server.close(() => resolve())),
  }
}

/**
 * A mailbox that takes letters by SMTP, without encryption: on this machine alone.
 * @param user who may send, with the password; anybody where it is left out
 */
export async function openMailbox(
  port: number,
  hear: (letter: string) => void = () => {},
  user?: { name: string; password: string },
): Promise<Receiver<string>> {
  const messages: string[] = []
  const server = new SMTPServer({
    disabledCommands: user ? ['STARTTLS'] : ['STARTTLS', 'AUTH'],
    authOptional: user === undefined,
    allowInsecureAuth: true,
    size: MOST_BYTES,
    onAuth: (auth, _, done) =>
      auth.username === user?.name && auth.password === user?.password
        ? done(null, { user: user?.name })
        : done(new Error('Not known here')),
    onData: (stream, _, done) => {
      void textOf(stream).then(letter => {
        messages.push(letter)
        hear(letter)
        done()
      })
    },
  })
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject)
    server.listen(port, '127.0.0.1', resolve)
  })
  return {
    port: (server.server.address() as AddressInfo).port,
    messages,
    close: () => new Promise(resolve => server.close(() => resolve())),
  }
}
