import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

/** The demo is made once; who needs it copies it. */
export default function setup(): () => void {
  const folder = mkdtempSync(join(tmpdir(), 'dulse-demo-made-'))
  execFileSync('npx', ['tsx', '--tsconfig', 'tsconfig.tools.json', 'demo/make.ts'], { env: { ...process.env, DULSE_DATA: folder } })
  process.env.DULSE_E2E_DEMO = folder
  return () => rmSync(folder, { recursive: true, force: true })
}
