export {
  freezeCycle,
  freezeEnergy,
  iceCapacity,
  SUBLIMATION_MJ_KG,
  waterBackG,
  type FreezeCycle,
  type FreezeLoad,
  type IceCapacity,
} from './cycle'
