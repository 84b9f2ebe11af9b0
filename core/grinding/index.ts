export { planGrinding, warmingK, type GrindPlan, type GrindQuestion } from './cup'
export { lidRestS, settlingS } from './dust'
export { clumpRisk, GLASS, grindBelowC, looseBelow, softensAtC, stickyAboveC, SUGARS, type ClumpRisk, type Glass } from './glass'
export { MESH_UM, nearestMesh, openingUm, sumPasses, type SievePass, type SieveSum } from './sieves'
