export { bestByWindow, PACKAGES, packageOf, type BestBy, type Package, type PackageKey } from './bestBy'
export { bestByDates, freshnessOf, USE_FIRST_DAYS, type Freshness } from './freshness'
export { jarTakesG } from './jarFill'
