import * as z from 'zod'
import { pageParts } from '#pageParts'
import { roleOf } from '#server/home/who'
import { FIRST_ANSWERS_ID, firstAsked, type FirstAnswers } from '#shared/api'
import { HANDLERS } from '../handlers'
import type { Handler } from '../utils/route'
import { useLogbook } from '../utils/useLogbook'

/**
 * A page that is opened comes with what it would ask for first, and its scripts are fetched while the first is read: nothing
 * is drawn on the server, but nothing is waited for twice either.
 */
export default defineNitroPlugin(nitro => {
  nitro.hooks.hook('render:html', async (html, { event }) => {
    const { file, asked } = firstAsked(event.path.split('?')[0]!)
    // Whoever has to sign in first gets the page without what it would show; so does the browser that keeps it as a shell.
    const known = event.path !== '/shell' && roleOf(event.context.who) !== null
    const context = useLogbook()
    const first: FirstAnswers = { turn: context.live.turn, answers: [] }
    for (const { name, params, address } of known ? asked : []) {
      // An id that is none is told of by the page itself.
      if (Object.values(params).some(id => !z.uuid().safeParse(id).success)) continue
      try {
        const call = { context, event, params, query: {}, body: undefined } as never
        first.answers.push({ name, address, answer: await (HANDLERS[name] as Handler<typeof name>)(call) })
      } catch {
        // What is refused here is asked for again by the page, which shows why.
      }
    }
    // Within a script "<" could end it.
    html.bodyAppend.unshift(
      `<script type="application/json" id="${FIRST_ANSWERS_ID}">${JSON.stringify(first).replaceAll('<', '\\u003c')}</script>`,
    )
    if (file) html.head.push(pageParts['layouts/default.vue']!, pageParts[file]!)
  })
})
