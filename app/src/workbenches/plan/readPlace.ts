import { facetArea, facetsOf, floorArea, seatsOrNone, shapeVolume } from '@pebble-hall/core/place';
import { roomStatistics, speedOfSound } from '@pebble-hall/core/room';
import { crossingS, fittedOf, type Place } from '@pebble-hall/core/project';
import { unitM } from '../../drawing';
import { layoutOf, layoutOffsets, offDeg, offWords } from './layoutOffsets';

export interface PlanLine {
  text: string;
  small?: string;
  attention?: boolean;
}

/** Off by less, degrees, nobody hears. */
const SLIGHT_DEG = 5;

const seatCount = ({ seats, audience, shape }: Place): number =>
  seats.length + audience.reduce((sum, a) => sum + seatsOrNone(a, shape).length, 0);

/** A place in sentences: its size, how it would ring, who sits in it, what plays. */
export function readPlace(place: Place): PlanLine[] {
  const { shape, temperatureC, relativeHumidityPercent, lengthUnit } = place;
  const lines: PlanLine[] = [];
  const scale = unitM(lengthUnit);
  const area = `${Math.round((10 * floorArea(shape)) / scale ** 2) / 10} ${lengthUnit === 'ft' ? 'sq ft' : 'm²'}`;
  const volume = shape.isEnclosed ? shapeVolume(shape) : 0;
  const ms = Math.round(1000 * crossingS(place));
  if (shape.isEnclosed && volume > 0.01) {
    const cubic = `${Math.round(volume / scale ** 3)} ${lengthUnit === 'ft' ? 'cu ft' : 'm³'}`;
    lines.push({
      text: `${cubic} over ${area}. Sound takes ${ms} ms from corner to corner.`,
      small: `at ${temperatureC} °C: ${speedOfSound(temperatureC).toFixed(1)} m/s`,
    });
    const facets = facetsOf(shape)
      .map((f) => ({ ...f, area: facetArea(f) }))
      .filter((f) => f.area > 0);
    const knownFrom = facets.some((f) => f.material !== null)
      ? 'with the materials of Room model'
      : 'absorption assumed for its kind';
    const { eyring } = roomStatistics(facets, volume, { temperatureC, relativeHumidityPercent });
    const time = (s: number) => (Number.isFinite(s) ? `${s.toFixed(1)} s` : 'ever');
    lines.push({
      text: `By its surfaces it would ring for ${time(eyring[3]!)} at 500 Hz, ${time(eyring[1]!)} at 125 Hz.`,
      small: `Eyring, ${knownFrom}; rehearsed as Room model traces it`,
    });
  } else if (!shape.isEnclosed)
    lines.push({
      text: `Open air over ${area}: the ground reflects, nothing else.`,
      small: `sound takes ${ms} ms across`,
    });
  const seats = seatCount(place);
  lines.push({
    text: `${seats === 1 ? '1 seat' : `${seats} seats`}, ${place.spots.length === 1 ? '1 spot' : `${place.spots.length} spots`} to measure at.`,
  });
  const fitted = fittedOf({ place });
  const boxes = fitted.length;
  lines.push(
    boxes === 0
      ? { text: 'No loudspeakers yet: add them, or choose a layout.', attention: true }
      : { text: boxes === 1 ? '1 channel is fitted.' : `${boxes} channels are fitted.` },
  );
  const layout = layoutOf(place);
  const worst = layoutOffsets(place).reduce(
    (a, b) => (a === null || offDeg(b) > offDeg(a) ? b : a),
    null as ReturnType<typeof layoutOffsets>[number] | null,
  );
  if (layout && worst)
    lines.push(
      offDeg(worst) < 0.5
        ? { text: `${layout.name}: every loudspeaker stands where it asks for.` }
        : {
            text: `${layout.name}: ${worst.loudspeaker.name} is ${offWords(worst)}, seen from the home spot.`,
            attention: offDeg(worst) > SLIGHT_DEG,
            small: layout.source,
          },
    );
  return lines;
}
