import { takeFirstAnswers } from '~/data/firstAnswers'

/** Before the first page is set up. */
export default defineNuxtPlugin({ name: 'first-answers', dependsOn: ['pinia'], setup: takeFirstAnswers })
