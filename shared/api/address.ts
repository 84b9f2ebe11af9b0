import { ROUTES, type RouteName } from './routes'

export type AnyCall = { params?: Record<string, string>; query?: Record<string, unknown>; body?: unknown } | undefined

/** The address of a route with its parameters and query in it. */
export function addressOf(name: RouteName, given?: AnyCall): string {
  const path = ROUTES[name].path.replace(/\{(\w+)\}/g, (_, param: string) => encodeURIComponent(given?.params?.[param] ?? ''))
  const query = Object.entries(given?.query ?? {}).filter(([, value]) => value !== undefined && value !== '')
  return query.length === 0 ? path : `${path}?${new URLSearchParams(query.map(([key, value]): [string, string] => [key, String(value)]))}`
}
