import { type Project, type Spot, fittedOf } from '@pebble-hall/core/project';
import { speedOfSound } from '@pebble-hall/core/room';
import { groundPlane } from '@pebble-hall/core/spots';
import { formatHz } from '../../charts/chartMath';
import { CAPSULE_M } from '../../services/measuring';

/** What a spot on the floor means: both ways of the sound from each loudspeaker, and how far up the doubling holds. */
export function groundPlaneText(project: Project, spot: Spot): string {
  const c = speedOfSound(project.place.temperatureC);
  const ways = fittedOf(project).map((l) => ({
    name: l.name,
    ...groundPlane(l.position, spot.position, CAPSULE_M, c),
  }));
  const list = ways.map(
    ({ name, directM, reflectedM }) => `${name} ${directM.toFixed(2)} and ${reflectedM.toFixed(2)} m`,
  );
  const holds = Math.min(...ways.map((w) => w.holdsToHz), 20000);
  return `${spot.name} lies on the floor, so 6 dB are taken off. Straight, and by the floor: ${list.join(', ')}. The doubling holds up to ${formatHz(holds)}.`;
}
