import type { KitchenJar } from '#shared/contracts'

/** A jar with less than this is a rest: another one is offered first. */
const REST_G = 60

/** The jar that a page of the kitchen is about; it stands in the address, so that a jar's page can lead here. */
export function useChosenJar(fits: (jar: KitchenJar) => boolean) {
  const store = useKitchen()
  const route = useRoute()
  const router = useRouter()
  const choices = computed(() => store.jars.filter(fits).sort((a, b) => a.foodName.localeCompare(b.foodName) || a.bestTo - b.bestTo))
  const jarId = computed({
    get: () =>
      choices.value.find(jar => jar.jarId === route.query.jar)?.jarId ??
      (choices.value.find(jar => jar.purpose === 'powder' && jar.leftG >= REST_G) ?? choices.value[0])?.jarId,
    set: id => {
      void router.replace({ query: { ...route.query, jar: id } })
    },
  })
  const jar = computed(() => choices.value.find(item => item.jarId === jarId.value))
  return { choices, jarId, jar }
}
