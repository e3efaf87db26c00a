import { Checkbox, Select } from '@mantine/core';
import { averagePower } from '@pebble-hall/core/correct';
import { findCorners, peaksAndDips } from '@pebble-hall/core/views';
import { usableBand } from '@pebble-hall/core/measure';
import { speedOfSound } from '@pebble-hall/core/room';
import { logGrid, powerOfDb, smoothLevels } from '@pebble-hall/core/signal';
import { useMemo, useState } from 'react';
import { DataTable } from '../../parts/DataTable';
import { levelRange } from '../../charts/chartMath';
import { Note } from '../../parts/Note';
import { NumberField } from '../../parts/NumberField';
import { sweepOf, usableSpots } from '@pebble-hall/core/project';
import { ResponseChart, type ChartBand, type ChartTrace, type Smoothing } from '../../charts/ResponseChart';
import { cornerTable } from './cornerTable';
import { normalised, placedTarget, type NormaliseAt } from './normalised';
import { readLevels, type ChannelLevels } from './readLevels';
import { colourOf } from './traceColours';
import type { LookProps } from './lookProps';
import { viewedRef } from '@pebble-hall/core/jobs';
import { useJob } from '../../services/useJob';
import { useAlike } from '../../services/useDerived';

const grid = logGrid();
const NORMALISE: { value: NormaliseAt; label: string }[] = [
  { value: 'as it is', label: 'level as it is' },
  { value: 'frequency', label: '0 dB at a frequency' },
  { value: 'own band', label: '0 dB over its band' },
  { value: 'band', label: '0 dB over a band' },
  { value: 'target', label: 'against the target' },
];

/** How loud is each channel at each frequency, on the average of the seats and from seat to seat? */
export default function LevelView({ project, channels: chosen, roundId, spotId }: LookProps) {
  const channels = useAlike(chosen);
  const [smoothing, setSmoothing] = useState<Smoothing>(6);
  const [corrected, setCorrected] = useState(true);
  const [pinned, setPinned] = useState(false);
  const [hovered, setHovered] = useState(false);
  const fanned = pinned || hovered;
  const [minus, setMinus] = useState(false);
  const [at, setAt] = useState<NormaliseAt>('as it is');
  const [where, setWhere] = useState({ from: 1000, to: 2000 });
  const [against, setAgainst] = useState<string | null>(null);

  const sweepsOf = (id: string, round: string) => usableSpots(project, id, round).averaged;
  const own = useAlike(channels.flatMap((l) => sweepsOf(l.id, roundId)));
  const other = useAlike(against ? channels.flatMap((l) => sweepsOf(l.id, against)) : []);
  const refs = [...own, ...other].map((s) => viewedRef(s, project, 'curve'));
  const { value: levels, problem } = useJob('views.levels', refs.length > 0 ? { refs, corrected } : null);
  const home = channels[0] && sweepOf(project, spotId, channels[0].id, 'as found', roundId);
  const { value: reflections } = useJob(
    'views.reflections',
    home ? { ref: viewedRef(home, project), speedOfSound: speedOfSound(project.place.temperatureC) } : null,
  );

  const looked: ChannelLevels[] = useMemo(() => {
    if (!levels || levels.length !== own.length + other.length) return [];
    return channels.flatMap((l) => {
      const of = (list: typeof own, offset: number) =>
        list.flatMap((s, i) => (s.loudspeakerId === l.id ? [levels[offset + i]!] : []));
      const spots = of(own, 0);
      if (spots.length === 0) return [];
      const average = averagePower(
        grid,
        spots.map((s) => s.map(powerOfDb)),
      );
      const before = of(other, own.length);
      const band = usableBand(grid, average.averageDb) ?? { from: 100, to: 10000 };
      const shift = normalised(grid, average.averageDb, at === 'own band' ? band : where, at);
      const against = at === 'target' ? placedTarget(grid, average.averageDb, project, l.id) : null;
      const move = (curve: Float64Array) => curve.map((v, i) => v - shift - (against?.[i] ?? 0));
      return {
        id: l.id,
        name: l.name,
        band,
        spots: spots.map(move),
        spotNames: own
          .filter((s) => s.loudspeakerId === l.id)
          .map((s) => project.place.spots.find((p) => p.id === s.spotId)!.name),
        averageDb: move(average.averageDb),
        lowDb: move(average.lowDb),
        highDb: move(average.highDb),
        otherDb:
          before.length > 0
            ? move(
                averagePower(
                  grid,
                  before.map((s) => s.map(powerOfDb)),
                ).averageDb,
              )
            : null,
        corners: findCorners(grid, average.averageDb, band),
        features: peaksAndDips(grid, average.averageDb, spots, band),
      };
    });
  }, [levels, own, other, at, where, channels, project]);

  const alone = looked.length === 1 ? looked[0]! : null;
  const difference = useMemo(
    () => (minus && looked.length === 2 ? ([looked[0]!, looked[1]!] as const) : null),
    [minus, looked],
  );
  const pair = looked.length === 2;
  const traces: ChartTrace[] = useMemo(() => {
    if (difference) {
      const [a, b] = difference;
      const levelsOf = a.averageDb.map((v, i) => v - b.averageDb[i]!);
      return [
        {
          id: 'difference',
          label: `${a.name} minus ${b.name}`,
          role: 'measured',
          colour: 'trace-mussel',
          levels: levelsOf,
        },
      ];
    }
    return looked.flatMap((c) => {
      const colour = colourOf(project, c.id);
      const fan: ChartTrace[] =
        alone && fanned
          ? c.spots.map((levelsOf, i) => ({
              id: `${c.id} ${i}`,
              label: c.spotNames[i]!,
              role: 'noise',
              colour: [
                'trace-slate',
                'trace-kelp',
                'trace-gorse',
                'trace-campion',
                'trace-moss',
                'trace-heather',
              ][i % 6]!,
              levels: levelsOf,
            }))
          : [];
      const before: ChartTrace[] = c.otherDb
        ? [
            {
              id: `${c.id} before`,
              label: `${c.name}, ${roundName(project, against)}`,
              role: 'reference',
              colour,
              levels: c.otherDb,
            },
          ]
        : [];
      return [
        ...fan,
        ...before,
        {
          id: c.id,
          label: alone ? `${c.name}, average` : c.name,
          role: 'measured',
          colour,
          levels: c.averageDb,
        },
      ];
    });
  }, [looked, alone, fanned, difference, against, project]);
  const bands: ChartBand[] = useMemo(
    () =>
      alone && !fanned
        ? [
            {
              id: 'range',
              label: 'seat range',
              colour: colourOf(project, alone.id),
              low: alone.lowDb,
              high: alone.highDb,
            },
          ]
        : [],
    [alone, fanned, project],
  );
  // the range holds all spots, so that fanning them out under the pointer moves nothing else
  const range = useMemo(
    () =>
      alone && !difference
        ? levelRange(
            grid,
            [alone.lowDb, alone.highDb].map((c) => smoothLevels(grid, c, 12)),
          )
        : undefined,
    [alone, difference],
  );
  const notes = readLevels(looked, alone ? (reflections ?? []) : []);
  const marks = notes.flatMap((n, i) => (n.at ? [{ number: i + 1, ...n.at }] : []));
  const title = difference
    ? `${difference[0].name} minus ${difference[1].name}`
    : `${looked.map((c) => c.name).join(', ')}, level`;
  return (
    <div className="look">
      <div className="plot" onPointerEnter={() => setHovered(true)} onPointerLeave={() => setHovered(false)}>
        <ResponseChart
          legendChanges
          label={`Level of ${looked.map((c) => c.name).join(' and ')}`}
          title={title}
          frequency={grid}
          traces={traces}
          bands={bands}
          marks={difference ? [] : marks}
          levelLabel={
            difference
              ? 'dB, difference'
              : at === 'as it is'
                ? 'dB, recorded over played'
                : at === 'target'
                  ? 'dB against the target'
                  : 'dB'
          }
          {...(range ? { range } : {})}
          absolute={at === 'as it is' && !difference}
          smoothing={smoothing}
          onSmoothing={setSmoothing}
        />
      </div>
      <div style={{ display: 'grid', gridTemplateRows: 'minmax(0, 1fr) auto', gap: 10, minHeight: 0 }}>
        <section className="card notes" aria-label="What the plot says">
          <h2>What the plot says</h2>
          {problem ? <Note number={1}>{problem}</Note> : null}
          {notes.map((n, i) => (
            <Note key={n.text} number={i + 1} attention={n.attention}>
              {n.text}
            </Note>
          ))}
        </section>
        <section className="card" aria-label="How it is shown">
          <Select
            aria-label="Normalise"
            size="xs"
            allowDeselect={false}
            data={NORMALISE}
            value={at}
            onChange={(value) => value && setAt(value)}
          />
          {at === 'frequency' || at === 'band' ? (
            <div className="row" style={{ justifyContent: 'flex-start' }}>
              <NumberField
                label={at === 'band' ? 'Band from' : 'Normalised at'}
                value={where.from}
                unit="Hz"
                min={20}
                max={at === 'band' ? where.to / 1.1 : 20000}
                step={10}
                digits={0}
                width={100}
                onChange={(from) => setWhere((w) => ({ from, to: Math.max(w.to, 1.1 * from) }))}
              />
              {at === 'band' ? (
                <>
                  to
                  <NumberField
                    label="Band to"
                    value={where.to}
                    unit="Hz"
                    min={1.1 * where.from}
                    max={20000}
                    step={10}
                    digits={0}
                    width={100}
                    onChange={(to) => setWhere((w) => ({ ...w, to }))}
                  />
                </>
              ) : null}
            </div>
          ) : null}
          <Checkbox
            size="xs"
            label="microphone corrected"
            checked={corrected}
            onChange={(e) => setCorrected(e.currentTarget.checked)}
          />
          {alone ? (
            <Checkbox
              size="xs"
              label="single spots"
              checked={pinned}
              onChange={(e) => setPinned(e.currentTarget.checked)}
            />
          ) : null}
          {pair ? (
            <Checkbox
              size="xs"
              label={`${looked[0]!.name} minus ${looked[1]!.name}`}
              checked={minus}
              onChange={(e) => setMinus(e.currentTarget.checked)}
            />
          ) : null}
          {project.rounds.length > 1 ? (
            <Select
              aria-label="Compared with"
              size="xs"
              clearable
              placeholder="Compared with …"
              data={project.rounds
                .filter((r) => r.id !== roundId)
                .map((r) => ({ value: r.id, label: r.name }))}
              value={against}
              onChange={setAgainst}
            />
          ) : null}
        </section>
      </div>
      <div style={{ gridColumn: '1 / 3', minHeight: 0, maxHeight: 190, display: 'grid' }}>
        <DataTable data={cornerTable(looked)} note="1/3 octave, on the average of the spots" />
      </div>
    </div>
  );
}

const roundName = (project: LookProps['project'], id: string | null) =>
  project.rounds.find((r) => r.id === id)?.name ?? '';
