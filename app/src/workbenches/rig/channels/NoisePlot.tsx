import { type Project, fittedOf } from '@pebble-hall/core/project';
import { interpolateLog, logGrid } from '@pebble-hall/core/signal';
import { useMemo } from 'react';
import { FULL_BAND, levelRange } from '../../../charts/chartMath';
import { ResponseChart, type ChartTrace } from '../../../charts/ResponseChart';
import { splOffsetDb } from '../../../services/theRig';
import { EmptyPlot } from '../EmptyPlot';

const grid = logGrid(20, 20000, 24);
/** From the noise of a quiet room to a loud sweep. */
const MOST_DB = 110;
const COLOURS = [
  'trace-mussel',
  'trace-buoy',
  'trace-heather',
  'trace-gorse',
  'trace-campion',
  'trace-moss',
  'trace-kelp',
];

/** Noise of the room in third octaves, and how loud the chosen channel's sweep was in each while it passed. */
export function NoisePlot({ project, chosen }: { project: Project; chosen: string | null }) {
  const { noise, checks, levelDbfs } = project.rig;
  const spl = splOffsetDb(project);
  const offset = spl ?? 0;
  const fitted = fittedOf(project);
  const shown = chosen && checks[chosen] ? chosen : fitted.find((l) => checks[l.id])?.id;
  const traces = useMemo(() => {
    const curve = (points: { centre: number; db: number }[]) => {
      const finite = points.filter((p) => Number.isFinite(p.db));
      if (finite.length < 2) return null;
      const [from, to] = [finite[0]!.centre * 0.89, finite.at(-1)!.centre * 1.12];
      const levels = interpolateLog(
        Float64Array.from(finite, (p) => p.centre),
        Float64Array.from(finite, (p) => p.db + offset),
        grid,
      );
      return levels.map((v, i) => (grid[i]! < from || grid[i]! > to ? NaN : v));
    };
    const out: ChartTrace[] = [];
    const check = shown ? checks[shown] : undefined;
    const bands = noise?.bands ?? check?.margins;
    const floor = bands && curve(bands.map((b) => ({ centre: b.centre, db: b.noiseDb })));
    if (floor) {
      out.push({
        id: 'noise',
        label: 'noise of the room',
        role: 'measured',
        colour: 'trace-slate',
        levels: floor,
      });
      out.push({
        id: 'aim',
        label: '30 dB above it',
        role: 'reference',
        colour: 'trace-slate',
        levels: floor.map((v) => v + 30),
      });
    }
    if (check) {
      const change = levelDbfs - check.levelDbfs;
      const levels = curve(check.margins.map((m) => ({ centre: m.centre, db: m.signalDb + change })));
      const index = fitted.findIndex((l) => l.id === shown);
      const name = fitted[index]?.name ?? '';
      if (levels) {
        const role = change === 0 ? 'measured' : 'predicted';
        out.push({
          id: 'sweep',
          label: change === 0 ? `${name}, as checked` : `${name}, at the level set now`,
          role,
          colour: COLOURS[index % COLOURS.length]!,
          levels,
        });
      }
    }
    return out;
  }, [noise, checks, levelDbfs, shown, fitted, offset]);
  const range = useMemo(
    () =>
      levelRange(
        grid,
        traces.map((t) => t.levels),
        FULL_BAND,
        MOST_DB,
      ),
    [traces],
  );
  if (traces.length === 0) {
    return (
      <EmptyPlot>
        Nothing has been heard yet. <b>Listen to the room</b> shows its noise; <b>Check every channel</b>{' '}
        plays a short sweep on each at the level set below.
      </EmptyPlot>
    );
  }
  return (
    <ResponseChart
      label="Noise and sweep level in third octaves"
      frequency={grid}
      traces={traces}
      range={range}
      absolute={spl !== null}
      levelLabel={spl === null ? 'dB re full scale, 1/3 octave' : 'dB, 1/3 octave'}
    />
  );
}
