export { bestByWindow, PACKAGES, packageOf, type BestBy, type Package, type PackageKey } from './bestBy'
