import { createTransport } from 'nodemailer'
import type { TodoKind } from '#core/planning'
import type { AlarmChoice } from '#shared/contracts'

/** What is sent of one thing to do; the same whatever way it goes. */
export interface AlarmMessage {
  kind: TodoKind | 'trial'
  title: string
  why: string
  /** Number and title of its batch. */
  batch?: number
  food?: string
  from?: string
  to?: string
  url: string
}

/** So long a receiver is waited for, ms. */
const PATIENCE_MS = 10_000

/**
 * Posts it as JSON.
 * @throws Error in words for whoever set it up
 */
export async function postWebhook({ url }: NonNullable<AlarmChoice['webhook']>, message: AlarmMessage): Promise<void> {
  let response: Response
  try {
    response = await fetch(url, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'user-agent': 'Dulse' },
      body: JSON.stringify({ source: 'dulse', ...message }),
      // Where it leads on to, nobody chose.
      redirect: 'manual',
      signal: AbortSignal.timeout(PATIENCE_MS),
    })
  } catch (error) {
    const cause = (error as { cause?: { code?: string } }).cause?.code ?? (error as Error).name
    throw new Error(`Nobody answers at ${url} (${cause}): is it switched on, and is the address right?`)
  }
  await response.body?.cancel()
  if (!response.ok) throw new Error(`${url} answered ${response.status}: it did not take the message.`)
}

/**
 * Sends it by mail, as plain text.
 * @throws Error in words for whoever set it up
 */
export async function sendMail(mail: NonNullable<AlarmChoice['mail']>, message: AlarmMessage): Promise<void> {
  const transport = createTransport({
    host: mail.host,
    port: mail.port,
    secure: mail.secure,
    auth: mail.user ? { user: mail.user, pass: mail.password ?? '' } : undefined,
    connectionTimeout: PATIENCE_MS,
    greetingTimeout: PATIENCE_MS,
    socketTimeout: PATIENCE_MS,
  })
  try {
    await transport.sendMail({
      from: mail.from,
      to: mail.to,
      subject: message.title,
      text: [message.why, '', message.batch === undefined ? '' : `Batch ${message.batch}: ${message.food}`, message.url].join('\n').trim(),
    })
  } catch (error) {
    const { code = '', message: said } = error as { code?: string; message: string }
    if (code === 'EAUTH') throw new Error(`${mail.host} does not know this user with this password.`)
    if (code === 'ECONNECTION' || code === 'ETIMEDOUT' || code === 'EDNS' || code === 'ESOCKET')
      throw new Error(`${mail.host}, port ${mail.port}, cannot be reached (${code}): check host, port and encryption.`)
    throw new Error(`${mail.host} did not take the message: ${said}`)
  } finally {
    transport.close()
  }
}
