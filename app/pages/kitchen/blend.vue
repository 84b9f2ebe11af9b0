<script setup lang="ts">
import { uuidv7 } from 'uuidv7'
import { heatBand, heatCautions, heatFigures, heatWord, heatWords, jarFullOf, middleHeat, saltIn } from '#core/blends'
import { toastingFault } from '#core/log'
import { parseVolume, spoonedG, volumeOf, volumesOf } from '#core/using'
import { formatWeight, parseWeight } from '#core/units'
import type { BlendRecipe, KitchenJar, Recipe } from '#shared/contracts'

/** A blend on the table: from jars, by weight, with what it becomes beside it, and a solver for a wanted heat. */
const store = useKitchen()
const format = useFormat()
const route = useRoute()
const { settings } = storeToRefs(useHouseholdStore())
const { lines, mix, most, problem, busy, scaleTo, solve, take } = useBlend()
const missing = ref<string[]>([])
const told = ref('')
const totalG = ref<number>()
const heat = ref<'' | 'mild' | 'warm' | 'hot' | 'very hot' | 'own'>('')
const ownHeat = ref<number | undefined>(3000)
const spoons = ref(false)
const saltMost = ref<number>()
const saveName = ref('')
const HEATS = [
  { value: '', words: 'As it comes' },
  { value: 'mild', words: 'Mild' },
  { value: 'warm', words: 'Warm' },
  { value: 'hot', words: 'Hot' },
  { value: 'very hot', words: 'Very hot' },
  { value: 'own', words: 'A figure' },
] as const
/** Spoons are coarse: a figure is met within so much of itself. */
const SPOON_SLACK = 0.15

const jars = computed(() => store.jars.filter(jar => !jar.raw).sort((a, b) => a.foodName.localeCompare(b.foodName) || a.bestTo - b.bestTo))
const recipes = computed(() =>
  (store.answer?.recipes ?? []).filter((recipe): recipe is BlendRecipe & { version: number } => recipe.kind === 'blend'),
)
const recipeId = computed(() => (typeof route.query.recipe === 'string' ? route.query.recipe : undefined))
const recipe = computed(() => recipes.value.find(item => item.id === recipeId.value))
watch(
  recipe,
  chosen => {
    if (!chosen) return
    missing.value = take(chosen)
    saveName.value = chosen.name
    totalG.value = mix.value?.totalG
    if (chosen.heat) {
      heat.value = 'own'
      ownHeat.value = Math.round(middleHeat(chosen.heat))
    }
  },
  { immediate: true },
)
if (!recipe.value && lines.value.length === 0) {
  const asked = store.jarOf(String(route.query.jar ?? ''))
  if (asked) lines.value = [{ jarId: asked.jarId, grams: Math.min(10, asked.leftG), fixed: false }]
}

const jarOf = (jarId: string) => store.jarOf(jarId)
const add = () => {
  const free = jars.value.find(jar => !lines.value.some(line => line.jarId === jar.jarId))
  if (free) lines.value = [...lines.value, { jarId: free.jarId, grams: Math.min(10, free.leftG), fixed: false }]
}
const remove = (i: number) => {
  lines.value = lines.value.filter((_, at) => at !== i)
}
function typed(i: number, key: 'grams' | 'toastedG', text: string) {
  const clean = text.trim()
  const jar = jarOf(lines.value[i]!.jarId)
  const volume = key === 'grams' && jar ? parseVolume(clean, settings.value.measures) : undefined
  const parsed = volume
    ? volume.value === undefined
      ? volume
      : { value: spoonedG(jar!, volume.value), problem: undefined }
    : clean === ''
      ? { value: undefined, problem: key === 'grams' ? 'Weigh it, or take the line out.' : undefined }
      : parseWeight(clean, settings.value.weightUnit)
  const line = { ...lines.value[i]!, [key]: parsed.value }
  const toasting =
    line.toastedG !== undefined && line.grams !== undefined && jar ? toastingFault(line.grams, line.toastedG, jar.moisture) : undefined
  lines.value = lines.value.map((other, at) =>
    at === i ? { ...line, fault: parsed.problem ?? (toasting && format.told(toasting)) } : other,
  )
}
const weightText = (grams: number | undefined) =>
  grams === undefined ? '' : formatWeight(grams, settings.value.weightUnit).replaceAll('\u00A0', ' ')
const spoonsOf = (jar: KitchenJar | undefined, grams: number | undefined) =>
  jar && grams ? volumesOf(grams, jar.densityGMl, settings.value.measures).powder.words : ''
const shareOf = (grams: number | undefined) => (grams && mix.value ? format.share(grams / mix.value.totalG) : '')
const cautions = computed(() => heatCautions(mix.value?.hottest ?? 0))
const saltTea = computed(() =>
  mix.value && mix.value.saltShare > 0.005 ? saltIn(mix.value, volumeOf(1, 'teaspoon', settings.value.measures)) : undefined,
)
const band = computed(() =>
  heat.value === ''
    ? undefined
    : heat.value === 'own'
      ? ownHeat.value === undefined
        ? undefined
        : around(ownHeat.value)
      : heatBand(heat.value),
)
const around = (units: number) => ({
  low: units * (1 - (spoons.value ? SPOON_SLACK : 0)),
  high: units * (1 + (spoons.value ? SPOON_SLACK : 0)),
})
const ask = () =>
  solve({
    totalG: totalG.value ?? mix.value?.totalG ?? 0,
    heat: band.value,
    saltMost: saltMost.value === undefined ? undefined : saltMost.value / 100,
    spoons: spoons.value,
  })

async function keepRecipe() {
  told.value = ''
  problem.value = ''
  if (saveName.value.trim() === '') {
    problem.value = 'Give the recipe a name.'
    return
  }
  if (lines.value.some(line => line.fault)) {
    problem.value = FAULTY_LINES
    return
  }
  const body: Recipe = {
    id: recipe.value?.id ?? uuidv7(),
    kind: 'blend',
    name: saveName.value.trim(),
    ...(recipe.value && { version: recipe.value.version, note: recipe.value.note, siftUm: recipe.value.siftUm }),
    parts: lines.value.flatMap(line =>
      jarOf(line.jarId) && line.grams
        ? [
            {
              foodKey: jarOf(line.jarId)!.foodKey,
              amount: { by: 'weight' as const, grams: Math.round(line.grams * 100) / 100 },
              ...(line.fixed && { fixed: true }),
              ...(line.toastedG !== undefined && { toasted: true }),
            },
          ]
        : [],
    ),
    ...(band.value && heat.value !== '' && { heat: { low: Math.round(band.value.low), high: Math.round(band.value.high) } }),
  }
  try {
    await call('saveRecipe', { body })
    await store.load()
    told.value = 'Kept among the recipes.'
    if (!recipe.value) await navigateTo({ path: '/kitchen/blend', query: { recipe: body.id } }, { replace: true })
  } catch (error) {
    problem.value = (error as Error).message
  }
}
</script>

<template>
  <div class="stack">
    <div v-if="recipes.length" class="row">
      <span class="quiet">Begin with</span
      ><NuxtLink
        v-for="item in recipes"
        :key="item.id"
        :to="{ path: '/kitchen/blend', query: { recipe: item.id } }"
        class="chip"
        :class="{ on: item.id === recipeId }"
        >{{ item.name }}</NuxtLink
      >
    </div>
    <p v-if="missing.length" class="caution">
      Not on the shelf: {{ missing.join(', ').toLowerCase() }}. Put in what was bought on the shelf’s page, or take another jar.
    </p>
    <div class="two">
      <div class="stack">
        <section class="card" aria-label="What goes in">
          <h2>What goes in</h2>
          <p v-if="lines.length === 0" class="quiet">
            Nothing yet. Take two jars or more; bought-in spices count once they are on the shelf.
          </p>
          <table v-else class="lines">
            <thead>
              <tr>
                <th>Jar</th>
                <th>Weight</th>
                <th class="n">Share</th>
                <th>Held fast</th>
                <th class="wide">Toasted to</th>
                <th><span class="visually-hidden">Take out</span></th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(line, i) in lines" :key="`${i} ${line.jarId}`">
                <td class="pick">
                  <JarPicker v-model="line.jarId" :label="`Jar ${i + 1}`" hide-label :jars="jars" />
                  <p v-if="jarOf(line.jarId)?.heat" class="quiet small">
                    {{ heatWords(jarOf(line.jarId)!.heat) }}, {{ heatFigures(jarOf(line.jarId)!.heat!) }} SHU
                  </p>
                  <p v-if="line.fault" class="problem">{{ line.fault }}</p>
                  <p v-else-if="line.grams && jarOf(line.jarId) && line.grams > jarOf(line.jarId)!.leftG + 0.5" class="problem">
                    Only {{ format.weight(jarOf(line.jarId)!.leftG) }} are left.
                  </p>
                </td>
                <td>
                  <input
                    class="cell"
                    :aria-label="`Weight ${i + 1}`"
                    :value="weightText(line.grams)"
                    inputmode="text"
                    placeholder="12 g, 1 tbsp"
                    @change="event => typed(i, 'grams', (event.target as HTMLInputElement).value)"
                  />
                  <p class="quiet small">{{ spoonsOf(jarOf(line.jarId), line.grams) }}</p>
                </td>
                <td class="n">{{ shareOf(Math.min(line.toastedG ?? Infinity, line.grams ?? 0)) }}</td>
                <td>
                  <ElCheckbox v-model="line.fixed" size="large" :aria-label="`Hold line ${i + 1} fast`" /><span
                    class="narrow quiet small"
                    aria-hidden="true"
                    >held fast</span
                  >
                </td>
                <td class="wide">
                  <input
                    class="cell"
                    :aria-label="`Toasted to ${i + 1}`"
                    :value="weightText(line.toastedG)"
                    placeholder="not"
                    @change="event => typed(i, 'toastedG', (event.target as HTMLInputElement).value)"
                  />
                </td>
                <td>
                  <button type="button" class="out" :aria-label="`Take line ${i + 1} out`" @click="remove(i)">
                    <IconX :size="20" aria-hidden="true" />
                  </button>
                </td>
              </tr>
            </tbody>
          </table>
          <div class="row">
            <ElButton @click="add">Another jar</ElButton
            ><template v-if="mix && most"
              ><ElButton @click="scaleTo(most.totalG)">As much as the shelf has: {{ format.weight(most.totalG) }}</ElButton
              ><ElButton @click="scaleTo(jarFullOf(mix, settings.jarMl))">A jar of {{ format.volume(settings.jarMl) }} full</ElButton
              ><span class="quiet small">{{ most.by }} runs out first.</span></template
            >
          </div>
        </section>
        <section v-if="mix" class="card form" aria-label="Solve for it">
          <h2>Solve for it</h2>
          <div class="pair">
            <WeightField
              :key="recipeId"
              v-model="totalG"
              label="So much of it"
              :hint="`now ${format.weight(mix.totalG)}`"
              required
            /><NumberField
              v-model="saltMost"
              label="Salt at most, percent"
              hint="empty where it does not matter"
              :least="0"
              :most="100"
              bare
            />
          </div>
          <ChoiceField v-model="heat" label="Heat" :choices="HEATS" />
          <NumberField v-if="heat === 'own'" v-model="ownHeat" label="Scoville units" :least="0" :most="5000000" :decimals="0" bare />
          <ElCheckbox v-model="spoons" size="large">Whole spoons only, halves and eighths</ElCheckbox>
          <div class="row">
            <ElButton :loading="busy" @click="ask">Find the weights</ElButton
            ><span class="quiet small"
              >Nearest to the proportions on the table; lines held fast stay. By
              {{ spoons ? 'integer programming' : 'bounded least squares' }}.</span
            >
          </div>
          <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
        </section>
      </div>
      <div v-if="mix" class="stack">
        <section class="card" aria-live="polite" aria-label="What it becomes">
          <h2>{{ format.weight(mix.totalG) }}, about {{ format.vessels(mix.ml.p50) }}</h2>
          <dl class="facts">
            <dt>Heat</dt>
            <dd>
              <strong>{{ heatWords(mix.heat) }}</strong><template v-if="mix.heat"
                >, {{ heatFigures(mix.heat) }} SHU; {{ heatWord(middleHeat(mix.heat)) }} in the middle</template
              >
            </dd>
            <dt>Salt</dt>
            <dd>
              <template v-if="saltTea">{{ format.share(mix.saltShare) }}: {{ format.weight(saltTea) }} in a teaspoon</template
              ><template v-else>none: salt the dish</template>
            </dd>
            <dt>Allergens</dt>
            <dd>{{ mix.allergens.length ? mix.allergens.join(', ') : 'none known' }}</dd>
            <dt>Best to</dt>
            <dd>{{ format.month(mix.bestTo) }}; its oldest part is of {{ format.month(mix.oldestAt) }}</dd>
            <dt>Grain</dt>
            <dd>
              {{
                mix.coarsest === 'powder'
                  ? mix.sievedUm
                    ? `through ${mix.sievedUm} µm`
                    : 'powder, not all of it sifted'
                  : `as coarse as its ${mix.coarsest}`
              }}
            </dd>
            <dt>Cost</dt>
            <dd>
              {{ mix.pricedG > 0 ? format.money(mix.cost) : 'not known'
              }}<span v-if="mix.pricedG > 0 && mix.pricedG < mix.totalG - 0.05" class="quiet">
                for the {{ format.share(mix.pricedG / mix.totalG) }} whose cost is known</span
              >
            </dd>
          </dl>
          <HeatRuler
            v-if="mix.heat"
            :heat="mix.heat"
            :parts="
              lines.flatMap(line =>
                jarOf(line.jarId)
                  ? [{ name: jarOf(line.jarId)!.foodName, heat: jarOf(line.jarId)!.heat, colour: jarOf(line.jarId)!.colour }]
                  : [],
              )
            "
          />
          <p class="quiet small">Heat by weight, from ratings of dried pods; plants of one kind differ severalfold, so taste as you go.</p>
          <p v-for="caution in cautions" :key="caution" class="caution">{{ caution }}</p>
        </section>
        <section class="card stack" aria-label="Make it">
          <h2>Make it</h2>
          <BlendMaker :lines="lines" :mix="mix" :recipe-id="recipeId" :name="recipe?.name" @made="jarId => navigateTo(`/jars/${jarId}`)" />
        </section>
        <section class="card form" aria-label="Keep the recipe">
          <TextField v-model="saveName" label="Keep the proportions as a recipe" />
          <div class="row">
            <ElButton @click="keepRecipe">{{ recipe ? 'Save the recipe' : 'Keep the recipe' }}</ElButton><span class="good" role="status">{{
              told
            }}</span>
          </div>
        </section>
      </div>
    </div>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1.35fr) minmax(0, 1fr);
  gap: 1rem;
  align-items: start;
}
.chip {
  padding: 0.55rem 1rem;
  border: 1px solid var(--el-border-color);
  border-radius: 8px;
  text-decoration: none;
  background: var(--card);
}
.chip.on {
  border-color: var(--dulse);
  background: var(--dulse-wash);
  font-weight: 650;
}
.lines {
  width: 100%;
  border-collapse: collapse;
  margin: 0.5rem 0;
}
th {
  text-align: left;
  color: var(--quiet);
  font: 650 0.88rem var(--text);
}
td,
th {
  padding: 0.35rem 0.5rem 0.35rem 0;
  border-bottom: 1px solid var(--rule);
  vertical-align: top;
}
.n {
  text-align: right;
  white-space: nowrap;
}
td.n {
  padding-top: 1rem;
}
.pick {
  min-width: 220px;
  width: 44%;
}
.cell {
  width: 5.4rem;
  min-height: 46px;
  padding: 0 0.6rem;
  border: 1px solid var(--el-border-color);
  border-radius: 8px;
  background: var(--card);
  color: var(--ink);
  font: inherit;
}
.out {
  border: 0;
  background: none;
  min-width: 44px;
  min-height: 46px;
  color: var(--quiet);
  cursor: pointer;
}
.facts {
  display: grid;
  grid-template-columns: 84px 1fr;
  gap: 0.4rem 1rem;
  margin: 0.6rem 0 0.9rem;
}
dt {
  color: var(--quiet);
}
dd {
  margin: 0;
}
.narrow {
  display: none;
}
.caution {
  margin-top: 0.5rem;
}
.good {
  color: var(--kelp);
  font-weight: 650;
}
@media (width <= 1000px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media (width <= 760px) {
  .lines thead {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
  .lines tr {
    display: grid;
    grid-template-columns: auto 1fr auto auto;
    gap: 0 0.8rem;
    align-items: center;
    border-bottom: 1px solid var(--rule);
    padding-bottom: 0.5rem;
  }
  .lines td {
    border: 0;
    padding-right: 0;
  }
  .lines td.n {
    padding-top: 0.35rem;
    text-align: left;
  }
  .pick {
    grid-column: 1 / -1;
    min-width: 0;
    width: auto;
  }
  .wide {
    display: none;
  }
  .narrow {
    display: inline;
    margin-left: 0.4rem;
  }
}
</style>
