import type { Entry } from '#core/log'
import type { Parcel } from '~/data/parcel'

/**
 * Opens what was set aside in the form of its kind: the address names it (`?aside=`), from the banner on whatever page.
 * @param open gets the entry as it was meant
 */
export function usePutRight(open: (entry: Entry, parcel: Parcel) => void): void {
  const route = useRoute()
  const router = useRouter()
  const outbox = useOutboxStore()
  onMounted(() =>
    watch(
      () => route.query.aside,
      async id => {
        if (typeof id !== 'string') return
        await outbox.opened
        const parcel = outbox.aside.find(item => item.id === id)
        const [item] = parcel?.items ?? []
        await router.replace({ query: {} })
        if (parcel && item && 'entry' in item) open({ ...item.entry, recordedAt: item.entry.at, seq: Number.MAX_SAFE_INTEGER }, parcel)
      },
      { immediate: true },
    ),
  )
}
