/**
 * Fuel an engine burns at a shaft power: power times specific consumption over density.
 * Source: definition. Typical for small and medium diesels: 210 to 240 g/kWh at full load (engine makers' sheets,
 * common practice, no source); it stands until the maker's own figure is known.
 */
export const TYPICAL_G_KWH = 225;

/**
 * At full load, g/kWh, from the best to a small or old one. Diesel 195 to 290; petrol with spark 280 to 380. Engine
 * makers' sheets, common practice, no source.
 */
export const COMMON_G_KWH = { diesel: [195, 290], petrol: [280, 380] } as const;

const KILOWATT_HOUR_J = 3.6e6;
const GRAM_KG = 1e-3;

/** m3/s of fuel for a shaft power in W, a density in kg/m3 and a specific consumption in g/kWh. */
export const burnM3S = (powerW: number, densityKgM3: number, gKwh: number = TYPICAL_G_KWH): number =>
  (powerW * gKwh * GRAM_KG) / KILOWATT_HOUR_J / densityKgM3;

/** Idle takes a twentieth of full power to turn the engine over. Common practice, no source. */
const IDLE_SHARE = 0.05;

/** What an engine typically burns at a load (0..1) of its full power, m3/s. */
export const typicalBurnM3S = (load: number, powerW: number, densityKgM3: number): number =>
  burnM3S(Math.max(IDLE_SHARE, load) * powerW, densityKgM3);
