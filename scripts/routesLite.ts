import { ROUTES, type RouteOf } from '#shared/api'

/** What the browser needs of the routes: where they are and how they are asked. Printed for the build. */
console.log(
  JSON.stringify(
    Object.fromEntries(
      Object.entries(ROUTES).map(([name, { method, path, tag, apart }]: [string, RouteOf]) => [name, { method, path, tag, apart }]),
    ),
  ),
)
