import { haveTemporal } from '~/utils/temporal'

export default defineNuxtPlugin({ name: 'temporal', setup: haveTemporal })
