import { expect, test } from '@playwright/test'
import { clocks } from '../../scripts/hardship/clocks'
import { cuts } from '../../scripts/hardship/cuts'
import { damage } from '../../scripts/hardship/damage'
import { disk } from '../../scripts/hardship/disk'
import { floods } from '../../scripts/hardship/floods'
import { inputs } from '../../scripts/hardship/inputs'
import { kills } from '../../scripts/hardship/kills'
import { outsiders } from '../../scripts/hardship/outsiders'
import { servers } from '../../scripts/hardship/servers'

/** A fast share of `npm run hardship`. */
for (const [words, campaign, size] of [
  ['killing the server while it writes loses nothing that it acknowledged', kills, 5],
  ['bodies, queries and paths made wrong are refused in words, or taken', inputs, 600],
  ['files that a disk or a program damaged are neither written on nor copied', damage, 5],
  ['a damaged picture, and a restore that is cut off, lose nothing else', cuts, 2],
  ['somebody who is not let in shuts nobody out', outsiders, 440],
  ['three servers at once on one folder: one stands', servers, 2],
  ['a clock that jumps dates nothing anew', clocks, 20],
] as const)
  test(words, async () => {
    const { faults } = await campaign(size)
    expect(faults).toEqual([])
  })

test('a disk that is full is said, and nothing of what was acknowledged is lost', async () => {
  const { figures, faults } = await disk(2)
  test.skip(figures.startsWith('SKIPPED'), figures)
  expect(faults).toEqual([])
})

test('a flood from one address of the house is bounded, and another’s writes are taken meanwhile', async () => {
  const { faults } = await floods(150)
  // How fast they are is measured by the campaign: a busy machine is late without anything being wrong.
  expect(faults.filter(fault => !/ms at p95$/.test(fault))).toEqual([])
})
