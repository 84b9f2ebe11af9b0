export { TABLE_COLUMNS, type Column, type TableKind } from './columns'
export { guessTable, type TableGuess, type TableSettings, type TableUnit } from './guess'
export { readInventory, readWeighIns, type InventoryRow, type LineError, type WeighInRow } from './read'
export { tableOf, type Table } from './table'
