import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import type { Page } from '@playwright/test'
import type { AxeResults, RunOptions } from 'axe-core'

// Run in the page itself: a page more for each look, and the elements that pass, take twice the time.
const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')

/** Faults of access of a page as it stands: each rule with the elements that break it. */
export async function faultsOf(page: Page, runOnly: RunOptions['runOnly']): Promise<string[]> {
  await page.evaluate(AXE)
  const violations = await page.evaluate(async only => {
    const { axe } = window as unknown as { axe: { run: (of: { exclude: string[][] }, options: RunOptions) => Promise<AxeResults> } }
    // Of a long list the first dozen: the rest is of the same make.
    const alike = [['li:nth-child(n + 13)'], ['tbody > tr:nth-child(n + 13)'], ['.grid > :nth-child(n + 25)']]
    const found = await axe.run({ exclude: alike }, { runOnly: only, resultTypes: ['violations'] })
    return found.violations.map(({ id, nodes }) => ({ id, targets: nodes.slice(0, 4).map(node => node.target.join(' ')) }))
  }, runOnly)
  return violations.map(({ id, targets }) => `${id}: ${targets.join(' | ')}`)
}
