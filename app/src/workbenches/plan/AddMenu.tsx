import { Button, Menu } from '@mantine/core';
import { IconPlus } from '../../icons';
import { EAR_M, extentOf, floorAt } from '@pebble-hall/core/place';
import {
  FACING_DEG,
  freeName,
  freeOutput,
  plainLoudspeaker,
  type Fixture,
  type Place,
  type Project,
} from '@pebble-hall/core/project';
import { editPlace } from './usePlan';

const FIXTURES: { kind: Fixture['kind']; name: string; size: [number, number]; heights: [number, number] }[] =
  [
    { kind: 'stage', name: 'Stage', size: [2, 4], heights: [0, 0.6] },
    { kind: 'steps', name: 'Steps', size: [1, 2], heights: [0, 0.6] },
    { kind: 'balcony', name: 'Balcony', size: [3, 6], heights: [2.6, 2.9] },
    { kind: 'column', name: 'Column', size: [0.4, 0.4], heights: [0, 3] },
    { kind: 'door', name: 'Door', size: [0.1, 1], heights: [0, 2] },
    { kind: 'window', name: 'Window', size: [1.2, 0], heights: [0.9, 2.1] },
    { kind: 'sofa', name: 'Sofa', size: [0.9, 1.8], heights: [0, 0.8] },
    { kind: 'chair', name: 'Chair', size: [0.6, 0.6], heights: [0, 0.9] },
    { kind: 'other', name: 'Surface', size: [1, 1], heights: [0, 1] },
  ];

/** Puts something new into the middle of the place, chosen, ready to be dragged. */
export function AddMenu({ project, onAdded }: { project: Project; onAdded: (ids: string[]) => void }) {
  const { place } = project;
  const { least, most } = extentOf(place.shape);
  const middle = { x: (least.x + most.x) / 2, y: (least.y + most.y) / 2 };
  const floor = floorAt(place.shape, middle);
  const add = (what: string, change: (p: Place, id: string) => Place) => {
    const id = crypto.randomUUID();
    void editPlace(`${what} added`, (p) => change(p, id)).then((done) => done && onAdded([id]));
  };
  const loudspeaker = (role: 'full range' | 'subwoofer') =>
    add(role === 'subwoofer' ? 'a subwoofer' : 'a loudspeaker', (p, id) => ({
      ...p,
      loudspeakers: [
        ...p.loudspeakers,
        plainLoudspeaker({
          id,
          name: freeName(
            role === 'subwoofer' ? 'Sub 1' : 'Loudspeaker 1',
            p.loudspeakers.map((l) => l.name),
          ),
          role,
          output: freeOutput(p),
          position: { ...middle, z: floor + (role === 'subwoofer' ? 0.4 : EAR_M.seated) },
        }),
      ],
    }));
  const spot = () =>
    add('a spot', (p, id) => ({
      ...p,
      spots: [
        ...p.spots,
        {
          id,
          name: freeName(
            `Spot ${p.spots.length + 1}`,
            p.spots.map((s) => s.name),
          ),
          position: { ...middle, z: floor + EAR_M.seated },
          inAverage: true,
          weight: 1,
          surface: 'ear',
        },
      ],
    }));
  const seat = () =>
    add('a seat', (p, id) => ({
      ...p,
      seats: [
        ...p.seats,
        {
          id,
          name: freeName(
            'Seat 1',
            p.seats.map((s) => s.name),
          ),
          position: { ...middle, z: floor + EAR_M.seated },
        },
      ],
    }));
  const area = () =>
    add('an audience area', (p, id) => {
      const [dx, dy] = [(most.x - least.x) / 6, (most.y - least.y) / 4];
      const corner = (sx: number, sy: number) => ({ x: middle.x + sx * dx, y: middle.y + sy * dy });
      return {
        ...p,
        audience: [
          ...p.audience,
          {
            id,
            name: freeName(
              'Audience',
              p.audience.map((a) => a.name),
            ),
            outline: [corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)],
            facingDeg: FACING_DEG,
            floorM: 0,
            riseM: 0,
            earM: EAR_M.seated,
            rowM: 0.9,
            seatM: 0.55,
          },
        ],
      };
    });
  const fixture = ({ kind, name, size, heights }: (typeof FIXTURES)[number]) =>
    add(name.toLowerCase(), (p, id) => ({
      ...p,
      fixtures: [
        ...p.fixtures,
        {
          id,
          name: freeName(
            name,
            p.fixtures.map((f) => f.name),
          ),
          kind,
          x: middle.x - size[0] / 2,
          y: middle.y - size[1] / 2,
          width: size[0],
          depth: size[1],
          bottom: floor + heights[0],
          top: floor + heights[1],
        },
      ],
    }));
  return (
    <Menu position="bottom-start" shadow="sm" width={210}>
      <Menu.Target>
        <Button size="compact-md" variant="default" leftSection={<IconPlus size={15} />}>
          Add
        </Button>
      </Menu.Target>
      <Menu.Dropdown mah={460} style={{ overflow: 'auto' }}>
        <Menu.Item disabled={place.loudspeakers.length >= 64} onClick={() => loudspeaker('full range')}>
          Loudspeaker
        </Menu.Item>
        <Menu.Item disabled={place.loudspeakers.length >= 64} onClick={() => loudspeaker('subwoofer')}>
          Subwoofer
        </Menu.Item>
        <Menu.Item onClick={spot}>Spot</Menu.Item>
        <Menu.Item onClick={seat}>Seat</Menu.Item>
        <Menu.Item onClick={area}>Audience area</Menu.Item>
        <Menu.Divider />
        {FIXTURES.map((f) => (
          <Menu.Item key={f.kind} onClick={() => fixture(f)}>
            {f.name}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}
