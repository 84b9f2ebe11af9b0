import type { ChildProcess } from 'node:child_process'

/** What the benchmark and the screenshots use of `steps.mjs`. */
export function build(): void
export function install(): Promise<void>
export const BROWSER_ARGS: string[]
export function findChromium(): string | undefined
export function freePort(from: number): Promise<number>
export function startServer(
  folder: string,
  options?: { port?: number; quiet?: boolean; home?: boolean },
): Promise<{ server: ChildProcess; address: string }>
