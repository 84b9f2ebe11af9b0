import { patternOf, ROUTE_NAMES, routeOf } from '#shared/api'
import { NotFound } from '#server/services/refusals'
import { HANDLERS } from '../handlers'

const router = createRouter()
for (const name of ROUTE_NAMES) {
  const route = routeOf(name)
  const method = route.method.toLowerCase() as Lowercase<typeof route.method>
  router[method](
    patternOf(route.path),
    defineEventHandler(event => serve(event, route, HANDLERS[name])),
  )
}
// Addresses and verbs that are not there are refused in the same words as the rest, not with a page.
router.use(
  '/**',
  defineEventHandler(event =>
    serve(event, { method: 'GET', path: '/**', tag: 'pages', summary: '' }, () => {
      throw new NotFound('path', `${event.method} ${event.path.split('?')[0]} is not an address of Dulse.`)
    }),
  ),
)

/** All routes of `shared/api`, by one door. */
export default router.handler
