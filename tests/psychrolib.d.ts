/** The part of psychrolib that the tests compare with; the package has no types of its own. */
declare module 'psychrolib' {
  interface Psychrolib {
    SI: number
    SetUnitSystem: (system: number) => void
    GetSatVapPres: (temperature: number) => number
    GetStandardAtmPressure: (altitude: number) => number
    GetStandardAtmTemperature: (altitude: number) => number
    GetHumRatioFromRelHum: (temperature: number, relativeHumidity: number, pressure: number) => number
    GetMoistAirDensity: (temperature: number, humidityRatio: number, pressure: number) => number
    GetTDewPointFromRelHum: (temperature: number, relativeHumidity: number) => number
    GetTWetBulbFromRelHum: (temperature: number, relativeHumidity: number, pressure: number) => number
  }
  const psychrolib: Psychrolib
  export default psychrolib
}
