import { levelMap } from '@pebble-hall/core/coverage';
import type { Place } from '@pebble-hall/core/project';
import { describe, expect, it } from 'vitest';
import { slipHallProject } from '../../../../../demo/slipHallProject';
import type { LevelMapAsked } from '../../../services/jobs';
import { radiatingOfAsked } from '../../../workers/loudspeakerModels';
import { makeMaps, type MapAsked } from './makeMaps';
import { linesOfMaps } from './mapLines';
import { PLAIN } from './mapSettings';

const { place } = slipHallProject();
const idOf = (name: string) => place.loudspeakers.find((l) => l.name === name)!.id;
const others = (...names: string[]) =>
  place.loudspeakers.filter((l) => !names.includes(l.name)).map((l) => l.id);
/** What the worker does; no own model needs a file here. */
const inOwnThread = async ({ channels, ...request }: LevelMapAsked) =>
  levelMap({
    ...request,
    channels: await Promise.all(
      channels.map(async (c) => ({ ...c, model: await radiatingOfAsked(c.model) })),
    ),
  });
const maps = (
  settings: Partial<MapAsked['settings']> = {},
  over: Partial<Place> = {},
  reachOf: string[] = [],
) =>
  makeMaps(
    {
      place: { ...place, ...over, home: place.spots[0]!.position },
      settings: { ...PLAIN, isOn: true, kind: 'frequency', centre: 1000, ...settings },
      correction: { alignment: {}, subs: {}, crossovers: {}, allPasses: {}, sections: {} },
      rate: 48_000,
      filters: null,
      reachOf,
    },
    { signal: new AbortController().signal },
    inOwnThread,
  );
const lines = async (...asked: Parameters<typeof maps>) => linesOfMaps(await maps(...asked), (id) => id, 5);

describe('maps of a place', () => {
  it('judges every seat, at its own place', async () => {
    const { seats, figures, homeDb, grid } = await maps();
    expect(seats).toHaveLength(181);
    expect(figures!.count).toBe(181);
    expect(figures!.leastDb).toBe(Math.min(...seats.map((s) => s.db)));
    expect(Number.isFinite(homeDb)).toBe(true);
    // audience areas are not all of their rectangle
    expect(grid.isIn.some((v) => v === 0)).toBe(true);
  });

  it('one channel sounds alone, whatever was chosen before', async () => {
    const id = idOf('Delay line');
    const alone = await maps({ off: others('Main left'), compares: true, second: [id], solo: id });
    const same = await maps({ off: others('Delay line') });
    expect(alone.levels).toEqual(same.levels);
    expect(alone.others).toEqual([]);
    // one that is gone lets all sound
    expect((await maps({ solo: 'gone' })).levels).toEqual((await maps()).levels);
  });

  it('an upright plane goes through what it is said to, in its direction, and seats are judged as before', async () => {
    const main = place.loudspeakers.find((l) => l.name === 'Main left')!;
    const { grid, figures } = await maps({ surface: 'upright', through: main.id, bearingDeg: 90 });
    expect(grid.frame.origin.x).toBe(main.position.x);
    expect(grid.points[0]).toBeCloseTo(main.position.x, 9);
    expect(figures).toEqual((await maps()).figures);
  });

  it('a level plane may rise to the rear', async () => {
    const last = async (rise: number) =>
      (await maps({ surface: 'floor', heightM: 1, rise })).grid.points.slice(-3) as unknown as [
        number,
        number,
        number,
      ];
    const [x, , z] = await last(0.1);
    expect(z - (await last(0))[2]).toBeCloseTo(0.1 * x, 9);
  });

  it('a surface of no area is told with what to do, not as it was thrown', async () => {
    await expect(
      maps({
        surface: 'upright',
        through: 'pinned',
        pinned: { name: 'far', position: { x: 1, y: 99, z: 1 } },
      }),
    ).rejects.toThrow(/^The upright plane does not meet the place/);
    const flat = place.audience.map((a) => ({ ...a, outline: a.outline.map((c) => ({ ...c, y: 3 })) }));
    await expect(maps({}, { audience: flat })).rejects.toThrow(/^The surface has no area/);
  });

  it('rows are told apart from seat to seat', async () => {
    const { rowsApartDb, figures } = await maps();
    expect(rowsApartDb).toBeGreaterThan(0);
    expect(rowsApartDb).toBeLessThan(figures!.mostDb - figures!.leastDb);
  });

  it('the pinned place has its own level, that of a seat when it is one', async () => {
    const { seats } = await maps();
    const pinned = { name: seats[7]!.name, position: seats[7]!.position };
    expect((await maps({ pinned })).pinnedDb).toBe(seats[7]!.db);
  });

  it('a channel is silent when it is said to be, and -6 dB is told from its own loudest', async () => {
    const alone = await maps({ off: others('Main left') }, {}, [idOf('Main left')]);
    const all = await maps({ how: 'power' });
    expect(alone.figures!.meanDb).toBeLessThan(all.figures!.meanDb);
    const [reach] = alone.reach;
    const most = Math.max(...reach!.levels.filter((_, i) => alone.grid.isIn[i]));
    expect(reach!.edgeDb).toBeCloseTo(most - 6, 9);
  });

  it('of two maps one or the other is seen, or how much louder the first is', async () => {
    const two = {
      compares: true,
      off: others('Main left', 'Main right', 'Delay line'),
      second: [idOf('Delay line')],
    };
    const [a, b, difference] = await Promise.all(
      (['A', 'B', 'A less B'] as const).map((look) => maps({ ...two, look })),
    );
    const n = a!.grid.isIn.indexOf(1) + 5;
    expect(difference!.levels[n]).toBeCloseTo(a!.levels[n]! - b!.levels[n]!, 9);
    expect([a!.isDifference, difference!.isDifference]).toEqual([false, true]);
    // the nearer of the two is heard first: at the front the mains
    expect(a!.laterS![n]).toBeGreaterThan(-0.05);
  });

  it('where both cross is a place to align them: equally loud there, and together', async () => {
    const two = { surface: 'floor' as const, compares: true, second: [idOf('Fill right')] };
    const { places, equal, together } = await lines({ ...two, off: others('Fill left', 'Fill right') });
    // alike on both sides of the middle: both lines lie on it, and cross there if anywhere
    for (const { at, firstM, secondM } of places) {
      expect(Math.abs(at.y - 6.5)).toBeLessThan(0.3);
      expect(Math.abs(firstM - secondM)).toBeLessThan(0.3);
    }
    const middle = (ls: { x: number; y: number }[][]) =>
      ls.flat().filter((p) => Math.abs(p.y - 6.5) < 0.4).length / Math.max(1, ls.flat().length);
    expect(middle(together)).toBeGreaterThan(0.9);
    expect(equal.length).toBeGreaterThan(0);
  });
});

describe('what cannot be mapped is told', () => {
  it('a place without a floor', async () => {
    const flat = { ...place.shape, outline: place.shape.outline.map((c) => ({ ...c, y: 0 })) };
    await expect(maps({}, { shape: flat })).rejects.toThrow(/no floor to look at/);
  });

  it('more boxes than the map takes', async () => {
    const many = Array.from({ length: 64 }, (_, i) => ({
      ...place.loudspeakers[0]!,
      id: `many-${i}`,
      group: { kind: 'row' as const, count: 64, spacingM: 0.1 },
    }));
    await expect(maps({}, { loudspeakers: many })).rejects.toThrow(/takes 2,000 boxes; there are 4,096/);
  });

  it('models that are not in the library, and as what they are taken', async () => {
    const foreign = place.loudspeakers.map((l, i) => (i === 0 ? { ...l, model: 'Somebody’s' } : l));
    expect((await maps({}, { loudspeakers: foreign })).unknown).toEqual([
      { asked: 'Somebody’s', taken: 'Dunlin 6' },
    ]);
    expect((await maps()).unknown).toEqual([]);
  });
});
