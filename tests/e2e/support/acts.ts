import type { Locator } from '@playwright/test'

/** Presses what a page offers to do; what stands behind “More” is opened first. */
export async function pressAct(scope: Locator, name: string | RegExp): Promise<void> {
  const button = scope.getByRole('button', { name }).first()
  const more = scope.locator('summary', { hasText: 'More' }).first()
  await button.or(more).first().waitFor()
  if (!(await button.isVisible())) await more.click()
  await button.click()
}
