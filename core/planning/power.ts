/** Share of the rated power that a dryer's heater and fan draw over a run (common practice; measure your own). */
export const DUTY = { mean: 0.65, sd: 0.1 }
