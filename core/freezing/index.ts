export { freezeCycle, iceCapacity, SUBLIMATION_MJ_KG, waterBackG, type FreezeCycle, type FreezeLoad, type IceCapacity } from './cycle'
