/** Reckoning with dates: the browser's own, or the package where a browser has none yet. Set before anything reckons. */
// eslint-disable-next-line import/no-mutable-exports -- what imports it sees the package as soon as it is there
export let Temporal = (globalThis as { Temporal?: unknown }).Temporal

/** Fetches the package where it is needed. */
export async function haveTemporal(): Promise<void> {
  Temporal ??= (await import('temporal-polyfill/implementation')).Temporal
}
