import { cpSync, mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { test as base } from '@playwright/test'
import { startDulse, type RunningServer } from './server'

/** The invented household on a server of its own, with the ids of what the tests look at. */
export interface Demo {
  server: RunningServer
  address: string
  /** A batch by its food, of those that are not on the shelf yet; `jar`, `blend`, `dish`, `cabinet`. */
  ids: Record<string, string>
}

/** A copy of the demo that was made once for all tests: a test that writes hurts no other. */
export async function startDemo(): Promise<Demo> {
  const folder = mkdtempSync(join(tmpdir(), 'dulse-demo-'))
  cpSync(process.env.DULSE_E2E_DEMO!, folder, { recursive: true })
  const server = await startDulse(folder)
  const get = async <Answer>(path: string) => (await (await fetch(server.address + path)).json()) as Answer
  const ids: Record<string, string> = {}
  for (const stage of ['drying', 'prep', 'resting', 'grinding']) {
    const { batches } = await get<{ batches: { batchId: string; foodKey: string }[] }>(`/api/batches?stage=${stage}`)
    for (const batch of batches) ids[batch.foodKey] = batch.batchId
  }
  ids.jar = (await get<{ jars: { jarId: string }[] }>('/api/shelf')).jars[0]!.jarId
  const recipes = await get<{ id: string; kind: string }[]>('/api/recipes')
  for (const kind of ['blend', 'dish']) ids[kind] = recipes.find(recipe => recipe.kind === kind)!.id
  ids.cabinet = (await get<{ id: string; name: string }[]>('/api/machines')).find(machine => machine.name === 'Tall cabinet')!.id
  return { server, address: server.address, ids }
}

/** Tests that read the demo only: one server for each worker. */
export const test = base.extend<object, { demo: Demo }>({
  demo: [
    // eslint-disable-next-line no-empty-pattern -- the test runner wants a pattern here
    async ({}, use) => {
      const demo = await startDemo()
      await use(demo)
      await demo.server.stop()
    },
    { scope: 'worker' },
  ],
})
export { expect, type Page } from '@playwright/test'
