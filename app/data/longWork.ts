import type { Refusal, WorkLine } from '#shared/contracts'
import { OutOfTouch, Refused } from './call'

/**
 * Sends long work to the server and follows its lines. The signal stops it: nothing is written then.
 * @throws Refused with the fields; OutOfTouch where the line breaks off before its end
 */
export async function longWork<Answer>(
  path: string,
  body: string,
  onProgress: (progress: { phase: string; done: number; of: number }) => void,
  signal: AbortSignal,
): Promise<{ answer: Answer; written: boolean }> {
  const response = await fetch(path, { method: 'POST', headers: { 'content-type': 'application/json' }, body, signal })
  if (!response.ok || !response.body) throw new Refused((await response.json()) as Refusal)
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader()
  let rest = ''
  for (let part = await reader.read(); !part.done; part = await reader.read()) {
    const lines = (rest + part.value).split('\n')
    rest = lines.pop()!
    for (const line of lines) {
      const told = JSON.parse(line) as WorkLine<Answer>
      if ('progress' in told) onProgress(told.progress)
      else if ('refused' in told) throw new Refused(told.refused)
      else return told
    }
  }
  throw new OutOfTouch()
}
