import {
  emptyProject,
  HOUSE_UNIT,
  plainLoudspeaker,
  type Project,
  type Spot,
} from '@pebble-hall/core/project';
import { NET_LOFT, NET_LOFT_LOUDSPEAKERS, NET_LOFT_SHAPE } from '@pebble-hall/stand-ins/net-loft';
import { withDemoMicrophone } from './demoMicrophone.js';

/** The Saltmarsh Boathouse on the Net Loft, before anything was measured. All of it is made up. */
export function netLoftProject(): Project {
  const ear = 1.14;
  const spot = (id: string, name: string, x: number, y: number, z = ear): Spot => ({
    id,
    name,
    position: { x, y, z },
    inAverage: true,
    weight: 1,
    surface: 'ear',
  });
  const project = emptyProject({
    id: 'saltmarsh-boathouse-net-loft',
    name: 'Saltmarsh Boathouse',
    rigKind: 'simulated',
    place: {
      name: 'the Net Loft',
      kind: 'listening room',
      lengthUnit: 'm',
      shape: NET_LOFT_SHAPE,
      temperatureC: NET_LOFT.air.temperatureC,
      relativeHumidityPercent: NET_LOFT.air.relativeHumidityPercent,
      seats: [
        { id: 'sofa-left', name: 'Sofa, left', position: { x: 3.6, y: 1.2, z: ear } },
        { id: 'sofa-middle', name: 'Sofa, middle', position: { x: 3.6, y: 1.72, z: ear } },
        { id: 'sofa-right', name: 'Sofa, right', position: { x: 3.6, y: 2.25, z: ear } },
        { id: 'chair-door', name: 'Chair by the door', position: { x: 2.7, y: 3.3, z: ear } },
        { id: 'chair-window', name: 'Chair by the window', position: { x: 2.7, y: 0.65, z: ear } },
      ],
      audience: [],
      underlays: [],
      models: [],
      materials: [],
      wantedS: null,
      fixtures: [
        {
          id: 'rug',
          name: 'Rug',
          kind: 'rug',
          x: 1.5,
          y: 0.75,
          width: 1.75,
          depth: 2.2,
          bottom: 0,
          top: 0.02,
        },
        {
          id: 'sofa',
          name: 'Sofa',
          kind: 'sofa',
          x: 3.3,
          y: 0.84,
          width: 0.9,
          depth: 1.8,
          bottom: 0,
          top: 0.8,
        },
        {
          id: 'chair-1',
          name: 'Chair by the door',
          kind: 'chair',
          x: 2.4,
          y: 3.02,
          width: 0.6,
          depth: 0.6,
          bottom: 0,
          top: 0.9,
        },
        {
          id: 'chair-2',
          name: 'Chair by the window',
          kind: 'chair',
          x: 2.4,
          y: 0.35,
          width: 0.6,
          depth: 0.6,
          bottom: 0,
          top: 0.9,
        },
        {
          id: 'window',
          name: 'Window',
          kind: 'window',
          x: 1.8,
          y: 0,
          width: 1.3,
          depth: 0,
          bottom: 0.9,
          top: 2.1,
        },
      ],
      layoutId: '5.1',
      loudspeakers: NET_LOFT_LOUDSPEAKERS.map(({ id, name, role, output, model, position, aimDeg }) =>
        plainLoudspeaker({
          id,
          name,
          feed: FEEDS[id] ?? '',
          model: model.name,
          role,
          output,
          position: { ...position },
          aimDeg,
          layoutLabel: LABELS[id] ?? null,
        }),
      ),
      spots: [
        spot('home', 'Home spot', 3.6, 1.72),
        spot('spot-2', 'Spot 2', 3.6, 1.2),
        spot('spot-3', 'Spot 3', 3.6, 2.25),
        { ...spot('spot-4', 'Spot 4', 3.45, 1.46, 1.18), inAverage: false },
      ],
    },
  });
  const ready = withDemoMicrophone(project);
  return {
    ...ready,
    processor: { adapter: 'stand-in', unit: HOUSE_UNIT },
    rig: { ...ready.rig, referenceFrom: 'centre' },
  };
}

/** By the layout that the loft follows; its second subwoofer belongs to none. */
const LABELS: Record<string, string> = {
  left: 'M+030',
  right: 'M-030',
  centre: 'M+000',
  'surround-left': 'M+110',
  'surround-right': 'M-110',
  'sub-1': 'LFE1',
};
const FEEDS: Record<string, string> = {
  left: 'Player, left',
  right: 'Player, right',
  centre: 'Player, centre',
  'surround-left': 'Player, surround left',
  'surround-right': 'Player, surround right',
  'sub-1': 'Player, low-frequency',
  'sub-2': 'Player, low-frequency',
};
