import { wrap, type Remote } from 'comlink'
import { mixOf, mostOf, scaled, type Ingredient, type Mix, type Share } from '#core/blends'
import { gramsOf, spoonedG, volumeOf } from '#core/using'
import type { BlendRecipe, KitchenJar } from '#shared/contracts'
import type { Blender } from '~/workers/blend.worker'

/** A line of a blend on the table, and what is wrong with what was typed in it. */
export interface BlendLine {
  jarId: string
  grams: number | undefined
  fixed: boolean
  toastedG?: number
  fault?: string
}

/** A line that cannot be read is not left out in silence. */
export const FAULTY_LINES = 'Put the marked lines right first, or take them out.'

const toIngredient = (jar: KitchenJar): Ingredient => ({
  key: jar.jarId,
  name: jar.foodName,
  leftG: jar.leftG,
  moisture: jar.moisture,
  densityGMl: jar.densityGMl,
  heat: jar.heat,
  saltShare: jar.saltShare,
  allergens: jar.allergens,
  costPerG: jar.costPerG,
  oldestAt: jar.oldestAt,
  bestTo: jar.bestTo,
  sievedUm: jar.sievedUm,
  purpose: jar.purpose,
})

/** Below so much a spoon is taken in eighths; from there in halves. */
const SMALL_SPOONS = 1

/** A blend on the table: its lines, what they make together, and a solver for a wanted heat. */
export function useBlend() {
  const store = useKitchen()
  const { settings } = storeToRefs(useHouseholdStore())
  const lines = ref<BlendLine[]>([])
  const problem = ref('')
  const busy = ref(false)
  let worker: Worker | undefined
  let blender: Remote<Blender> | undefined
  onBeforeUnmount(() => worker?.terminate())

  const shares = computed(() =>
    lines.value.flatMap(({ jarId, grams, toastedG }): Share[] => {
      const jar = store.jarOf(jarId)
      return jar && grams !== undefined && grams > 0
        ? [{ ingredient: toIngredient(jar), grams, ...(toastedG !== undefined && { toastedG: Math.min(toastedG, grams) }) }]
        : []
    }),
  )
  const mix = computed((): Mix | undefined => (shares.value.length > 0 ? mixOf(shares.value) : undefined))
  /** What the shelf allows of it in these proportions. */
  const most = computed(() => (shares.value.length > 0 ? mostOf(shares.value) : undefined))

  function scaleTo(totalG: number) {
    const now = mix.value
    if (!now) return
    // So much of it before anything is toasted: what that takes shows only on the scale.
    setGrams(
      scaled(
        shares.value.map(({ ingredient, grams }) => ({ ingredient, grams })),
        totalG,
      ),
    )
  }

  /** Weights that were worked out take the place of what was typed, toasted or not. */
  function setGrams(worked: readonly Share[]) {
    const grams = new Map(worked.map(share => [share.ingredient.key, share.grams]))
    lines.value = lines.value.map(line =>
      grams.has(line.jarId) ? { ...line, toastedG: undefined, fault: undefined, grams: grams.get(line.jarId) } : line,
    )
  }

  /** Weights for a wanted heat, nearest to what is on the table. */
  async function solve(wish: { totalG: number; heat?: { low: number; high: number }; saltMost?: number; spoons: boolean }) {
    problem.value = lines.value.some(line => line.fault) ? FAULTY_LINES : ''
    if (problem.value) return
    busy.value = true
    if (!worker) {
      worker = new Worker(new URL('../workers/blend.worker.ts', import.meta.url), { type: 'module' })
      blender = wrap<Blender>(worker)
    }
    try {
      const tea = volumeOf(1, 'teaspoon', settings.value.measures)
      const wishes = lines.value.flatMap(({ jarId, grams, fixed }) => {
        const jar = store.jarOf(jarId)
        if (!jar || !grams) return []
        const spoonG = spoonedG(jar, tea)
        return [
          {
            ingredient: toIngredient(jar),
            share: grams,
            fixed,
            ...(wish.spoons && { stepG: grams < SMALL_SPOONS * spoonG ? spoonG / 8 : spoonG / 2 }),
          },
        ]
      })
      const answer = await blender!.solve(
        JSON.parse(JSON.stringify({ wishes, totalG: wish.totalG, heat: wish.heat, saltMost: wish.saltMost })),
      )
      if ('problem' in answer) {
        problem.value = answer.problem
        return
      }
      setGrams(wishes.map(({ ingredient }, i) => ({ ingredient, grams: answer.grams[i]! })))
    } finally {
      busy.value = false
    }
  }

  /** Puts a recipe on the table, of each food the jar that ends first. @returns foods of which there is no jar */
  function take(recipe: BlendRecipe): string[] {
    const missing: string[] = []
    lines.value = recipe.parts.flatMap(({ foodKey, amount, fixed }): BlendLine[] => {
      const asked =
        amount.by === 'vessel'
          ? { by: 'vessel' as const, count: amount.count, ml: volumeOf(1, amount.vessel, settings.value.measures) }
          : amount
      const [jar] = store.jarsFor(foodKey, item => gramsOf(asked, item))
      if (!jar) {
        missing.push(store.answer?.goods.find(item => item.key === foodKey)?.name ?? foodKey.replaceAll('-', ' '))
        return []
      }
      return [{ jarId: jar.jarId, grams: gramsOf(asked, jar), fixed: fixed ?? false }]
    })
    return missing
  }

  return { lines, mix, most, problem, busy, scaleTo, solve, take }
}
