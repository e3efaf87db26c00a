import { needWithin } from '../limits/index.js';
/** Speed of sound in air, m/s, from temperature in degrees Celsius (ideal gas, 331.3 m/s at 0 degrees). */
export function speedOfSound(temperatureC: number): number {
  needWithin('speedOfSound', 'temperature in degrees Celsius', temperatureC, LEAST_C, MOST_C);
  return 331.3 * Math.sqrt(1 + temperatureC / 273.15);
}

/** The coldest and the warmest air that anybody measures in. */
const [LEAST_C, MOST_C] = [-90, 90];

/** State of the air; 20 degrees, 50 % and sea level where nothing is known. */
export interface Air {
  temperatureC: number;
  relativeHumidityPercent: number;
  pressureKpa?: number;
}

/**
 * Attenuation of sound by air, dB per metre, at a frequency in Hz (ISO 9613-1:1993, equations 3 to 5 and B.3).
 */
export function airAbsorption(
  frequency: number,
  { temperatureC, relativeHumidityPercent, pressureKpa = 101.325 }: Air,
) {
  needWithin('airAbsorption', 'frequency in Hz', frequency, 0, 1e6);
  needWithin('airAbsorption', 'temperature in degrees Celsius', temperatureC, LEAST_C, MOST_C);
  needWithin('airAbsorption', 'relative humidity in percent', relativeHumidityPercent, 0, 100);
  needWithin('airAbsorption', 'pressure in kPa', pressureKpa, 1, 500);
  const kelvin = temperatureC + 273.15;
  const t = kelvin / 293.15;
  const p = pressureKpa / 101.325;
  const saturation = 10 ** (-6.8346 * (273.16 / kelvin) ** 1.261 + 4.6151);
  const h = (relativeHumidityPercent * saturation) / p;
  const oxygen = p * (24 + (4.04e4 * h * (0.02 + h)) / (0.391 + h));
  const nitrogen = p * t ** -0.5 * (9 + 280 * h * Math.exp(-4.17 * (t ** (-1 / 3) - 1)));
  const f2 = frequency * frequency;
  return (
    8.686 *
    f2 *
    ((1.84e-11 / p) * Math.sqrt(t) +
      t ** -2.5 *
        ((0.01275 * Math.exp(-2239.1 / kelvin)) / (oxygen + f2 / oxygen) +
          (0.1068 * Math.exp(-3352 / kelvin)) / (nitrogen + f2 / nitrogen)))
  );
}
