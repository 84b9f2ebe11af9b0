export {
  freezeCycle,
  iceCapacity,
  shelfFluxWM2,
  SUBLIMATION_MJ_KG,
  waterBackG,
  type FreezeCycle,
  type FreezeLoad,
  type IceCapacity,
} from './cycle'
