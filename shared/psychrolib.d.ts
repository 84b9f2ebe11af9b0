/** The parts of psychrolib that are used; temperatures °C, pressures Pa, humidities 0–1. */
declare module 'psychrolib' {
  interface Psychrolib {
    SI: number
    SetUnitSystem: (system: number) => void
    GetSatVapPres: (celsius: number) => number
    GetHumRatioFromRelHum: (celsius: number, relativeHumidity: number, pressurePa: number) => number
    GetRelHumFromHumRatio: (celsius: number, humidityRatio: number, pressurePa: number) => number
    GetTWetBulbFromHumRatio: (celsius: number, humidityRatio: number, pressurePa: number) => number
    GetTDewPointFromRelHum: (celsius: number, relativeHumidity: number) => number
  }
  const psychrolib: Psychrolib
  export default psychrolib
}
