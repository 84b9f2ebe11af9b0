import { costPerG, summarise, worthOf } from '#core/insight'
import { bestByWindow, MONTH_MS, strengthOf } from '#core/keeping'
import type { JarSummary, KitchenAnswer, KitchenJar } from '#shared/contracts'
import { batchView } from '#server/db/batches'
import { smellsOf, stockOfJar } from '#server/db/entries'
import { jarsForKitchen, partsOnShelf } from '#server/db/jars'
import { listRecipes } from '#server/db/recipes'
import { householdOf, type Context } from './context'
import { toFinished } from './insight'
import type { JarContent } from './jars'
import { toJarSummary } from './shelf'

/** Every jar with something in it, as a cook needs it, with the recipes. */
export function kitchenPage(context: Context): KitchenAnswer {
  const costs = costsOf(context)
  const halfLives = new Map<string, KitchenJar['halfLife']>()
  const jars = jarsForKitchen(context.db).map((row): KitchenJar => {
    const food = context.foods.product(row.food_key)
    const { storageC: _, ...content } = JSON.parse(row.content) as JarContent
    const kind = `${row.food_key}/${row.purpose}`
    if (food && !halfLives.has(kind)) {
      const { months } = bestByWindow({ food, purpose: row.purpose, packageKey: 'screw-jar' })
      halfLives.set(
        kind,
        strengthOf(
          months,
          smellsOf(context.db, row.food_key, row.purpose).map(({ at, smell, oldest_at }) => ({
            months: Math.max(0, at - oldest_at) / MONTH_MS,
            smell,
          })),
        ).halfLife,
      )
    }
    const { smell: __, smeltAt: ___, saw, ...summary }: JarSummary = toJarSummary(context, row)
    return {
      ...summary,
      ...content,
      moisture: row.moisture,
      raw: content.raw,
      mould: saw === 'mould',
      group: food?.group ?? '',
      rawMoisture: food?.rawMoisture.value.mean ?? row.moisture,
      halfLife: halfLives.get(kind),
      costPerG: costs.get(row.jar_id),
    }
  })
  return {
    jars,
    recipes: listRecipes(context.db),
    goods: context.foods.goods.map(({ key, name, powderColour, allergens }) => ({
      key,
      name,
      colour: powderColour,
      allergens: [...allergens],
    })),
  }
}

/** What a gram in each jar cost, by its lots: baskets with their power and hands, packets with their price. */
function costsOf(context: Context): Map<string, number | undefined> {
  const byLot = new Map<string, number | undefined>()
  const parts = new Map<string, { grams: number; perG: number | undefined }[]>()
  for (const { jar_id, lot_id, left_g } of partsOnShelf(context.db)) {
    if (!byLot.has(lot_id)) byLot.set(lot_id, costOfLot(context, lot_id))
    parts.set(jar_id, [...(parts.get(jar_id) ?? []), { grams: left_g, perG: byLot.get(lot_id) }])
  }
  return new Map([...parts].map(([jarId, list]) => [jarId, costPerG(list)]))
}

/** Money a gram; own garden produce costs its power and the hands. */
function costOfLot(context: Context, lotId: string): number | undefined {
  const row = batchView(context.db, lotId)
  if (!row) {
    const stock = stockOfJar(context.db, lotId)?.body
    return stock?.kind === 'stock' && stock.price !== undefined ? stock.price / stock.netG : undefined
  }
  const finished = toFinished(context, row)
  const { kwhPrice, hourWorth } = householdOf(context)
  const worth = finished.insight && worthOf(summarise([finished]), { kWh: kwhPrice, hour: hourWorth })
  return worth && worth.ownPerKg / 1000
}
