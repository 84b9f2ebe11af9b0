export { Piece, SHAPES, type FaceAir, type PieceSettings, type PieceShape } from './piece'
export { dryTray, waterActivityOf, type SlabSettings, type TraySimulation } from './slab'
export { Rack, type RackAir, type RackPieces, type RackSettings, type RackTray } from './rack'
export { simulateRun, type RunSettings, type SimulatedRun } from './run'
