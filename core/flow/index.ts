export { flowOf, type Flow, type FlowArrow, type FlowKind } from './flow'
export { whatThereIs, type LotForm, type OpenLot } from './whatThereIs'
