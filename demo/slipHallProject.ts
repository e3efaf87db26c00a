import { emptyProject, type Project, type Spot } from '@pebble-hall/core/project';
import { layOutSpots } from '@pebble-hall/core/spots';
import { extentOf, seatsOf } from '@pebble-hall/core/place';
import {
  SLIP_HALL_AREAS,
  SLIP_HALL_FIXTURES,
  SLIP_HALL_LOUDSPEAKERS,
  SLIP_HALL_SHAPE,
} from '@pebble-hall/stand-ins/slip-hall';
import { withDemoMicrophone } from './demoMicrophone.js';

/** The Saltmarsh Boathouse on the Slip Hall, ready to be rehearsed: fifteen spots over the stalls. All of it is made up. */
export function slipHallProject(): Project {
  const ears = SLIP_HALL_AREAS.filter((a) => a.id !== 'gallery').flatMap((a) =>
    seatsOf(a, SLIP_HALL_SHAPE).map((s) => s.position),
  );
  const planned = layOutSpots({
    plan: 'Block',
    ears,
    frontDeg: 180,
    spread: 0.3,
    bounds: extentOf(SLIP_HALL_SHAPE),
  });
  const spots = planned.map(({ name, position }, i): Spot => {
    const floor = SLIP_HALL_SHAPE.floorRise * position.x;
    return {
      id: i === 0 ? 'home' : `spot-${i + 1}`,
      name,
      // as high over the rising floor as ears are, and a little up or down
      position:
        i === 0
          ? position
          : { ...position, z: Math.round(100 * (floor + 1.2 + (((i * 7) % 5) - 2) / 20)) / 100 },
      inAverage: true,
      weight: 1,
      surface: 'ear',
    };
  });
  const project = emptyProject({
    id: 'saltmarsh-boathouse-slip-hall',
    name: 'Saltmarsh Slip Hall',
    rigKind: 'simulated',
    place: {
      name: 'the Slip Hall',
      kind: 'hall',
      lengthUnit: 'm',
      shape: SLIP_HALL_SHAPE,
      temperatureC: 18,
      relativeHumidityPercent: 60,
      seats: [{ id: 'mix', name: 'Mix place', position: { x: 17.8, y: 6.5, z: 1.75 } }],
      audience: SLIP_HALL_AREAS,
      fixtures: SLIP_HALL_FIXTURES,
      underlays: [],
      models: [],
      materials: [],
      wantedS: 1.2,
      layoutId: null,
      loudspeakers: SLIP_HALL_LOUDSPEAKERS,
      spots,
    },
  });
  return withDemoMicrophone(project);
}
