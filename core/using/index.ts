export { portionOf, type Portion } from './portion'
export { tablespoonsOf } from './spoons'
export { litreSpread, readAmount, type AmountIn } from './amountIn'
export { parseVolume } from './volume'
export { inVessels, volumeOf, type Measured, type MeasureSystem } from './measures'
export { productOf, PRODUCTS, solidsFor, solidsOfRatio, waterBack, WHOLE, type Product, type WaterBack } from './waterBack'
export { FLOUR_G_ML, flourSwap, MOST_FLOUR_SHARE, type FlourSwap } from './flour'
export { scaledLine } from './line'
export { freshOf, powderFor } from './fresh'
export { howTo, schoolsFor, type HowTo, type RatioSchool } from './howTo'
export {
  COMMON_AMOUNTS,
  freshBothWays,
  gramsOf,
  planWater,
  spoonedG,
  usualAmounts,
  volumesOf,
  type Amount,
  type CommonAmount,
  type FreshEquivalent,
  type Powder,
  type WaterPlan,
  type WaterWish,
} from './plan'
