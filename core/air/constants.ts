/** Molar gas constant, J/(mol·K): CODATA 2018, exact. */
export const GAS_J_MOL_K = 8.314462618
/** 0 °C, K. */
export const ZERO_C = 273.15
