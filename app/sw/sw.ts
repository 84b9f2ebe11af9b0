/// <reference lib="webworker" />
import { ExpirationPlugin } from 'workbox-expiration'
import { cleanupOutdatedCaches, matchPrecache, precacheAndRoute } from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'
import { NetworkFirst } from 'workbox-strategies'
import { KEPT_ANSWERS, KEPT_HEADER, isKept } from '~/data/kept'

declare const self: ServiceWorkerGlobalScope

/**
 * Lets Dulse open while its server is out of reach: the application itself is kept, and of each question the last answer, marked with
 * when it was given. What is written goes past here, into the page's own outbox.
 */
precacheAndRoute(self.__WB_MANIFEST)
cleanupOutdatedCaches()

/** So long the server is waited for where there is something to show instead, s. */
const PATIENCE_S = 4

// A page comes from the server, with what it asks for first; without it, as the empty shell.
registerRoute(
  new NavigationRoute(
    async ({ request }) => {
      try {
        return await fetch(request, { signal: AbortSignal.timeout(PATIENCE_S * 1000) })
      } catch {
        return (await matchPrecache('/shell')) ?? Response.error()
      }
    },
    { denylist: [/^\/api\//] },
  ),
)

/** Answers that are kept, those that were asked for last: every page that a household looks at in weeks. */
const MOST_KEPT = 400

const answers = new NetworkFirst({
  cacheName: KEPT_ANSWERS,
  networkTimeoutSeconds: PATIENCE_S,
  plugins: [
    new ExpirationPlugin({ maxEntries: MOST_KEPT, purgeOnQuotaError: true }),
    {
      // Dated, since nobody else does: an old answer must be known as old.
      cacheWillUpdate: ({ response }) => Promise.resolve(response.status === 200 ? dated(response) : null),
      // Whoever has to sign in first keeps nothing of the house.
      fetchDidSucceed: async ({ response }) => {
        if (response.status === 401) await caches.delete(KEPT_ANSWERS)
        return response
      },
    },
  ],
})
registerRoute(({ url, request, sameOrigin }) => sameOrigin && request.method === 'GET' && isKept(url.pathname), answers)

function dated(response: Response): Response {
  const headers = new Headers(response.headers)
  headers.set(KEPT_HEADER, String(Date.now()))
  return new Response(response.clone().body, { status: response.status, headers })
}

// A new version waits until the page says that the moment is quiet.
self.addEventListener('message', event => {
  if ((event.data as { type?: string } | undefined)?.type === 'SKIP_WAITING') void self.skipWaiting()
})

// A notification leads to what it is about: in a page that is open, or in a new one.
self.addEventListener('notificationclick', event => {
  event.notification.close()
  const { url = '/' } = (event.notification.data ?? {}) as { url?: string }
  event.waitUntil(
    self.clients.matchAll({ type: 'window', includeUncontrolled: true }).then(async ([page]) => {
      if (!page) return void (await self.clients.openWindow(url))
      await page.focus()
      page.postMessage({ type: 'OPEN', url })
    }),
  )
})
