import { type SurfaceKey, roomSurfaces, roomVolume } from '@pebble-hall/core/place';
import type { Project } from '@pebble-hall/core/project';
import { OCTAVES, roomStatistics, shortenedBy } from '@pebble-hall/core/room';
import { useMemo, useState } from 'react';
import { ResponseChart, type ChartTrace } from '../../charts/ResponseChart';
import { Note } from '../../parts/Note';
import { isOneOf, useKept } from '../../services/useKept';
import {
  helpSentence,
  measuredSentence,
  middleOf,
  timeSentence,
  trustSentence,
} from '../../words/roomModelWords';
import { Halves } from './Halves';
import { ModeList } from './ModeList';
import { RoomCard } from './RoomCard';
import { SharesCard } from './SharesCard';
import { makeOf } from './changeSurface';
import { RoomInThree } from './RoomInThree';
import { SEEN_FROM, SeenAndPaint, type SeenFrom } from './SeenAndPaint';
import { SurfaceList } from './SurfaceList';
import { SurfacePlan } from './SurfacePlan';
import { useModes } from './useModes';
import { TuneDialog } from './TuneDialog';
import { useMeasuredTimes } from './useMeasuredTimes';
import { useTracedTimes } from './useTracedTimes';
import type { Runs } from './useRuns';

const centres = Float64Array.from(OCTAVES);
const AT_1_KHZ = 4;
const NO_WAYS: never[] = [];
/** A surface that is treated swallows so much at 1 kHz. */
const TREATED = 0.7;
const seconds = (v: number) => `${v.toFixed(2)} s`;

/** How long does it ring, by its surfaces? */
export function RingView({ project, runs }: { project: Project; runs: Runs }) {
  const { place } = project;
  const { temperatureC, relativeHumidityPercent, wantedS } = place;
  const [askedKey, setKey] = useState<SurfaceKey>('roof');
  const surfaces = useMemo(() => roomSurfaces(place).filter((s) => s.area > 0), [place]);
  const chosen = surfaces.find((s) => s.key === askedKey) ?? surfaces[0]!;
  const volume = roomVolume(place);
  const air = useMemo(
    () => ({ temperatureC, relativeHumidityPercent }),
    [temperatureC, relativeHumidityPercent],
  );
  const statistics = useMemo(
    () => (volume > 0 ? roomStatistics(surfaces, volume, air) : null),
    [surfaces, volume, air],
  );
  const helps = useMemo(() => {
    if (volume <= 0) return null;
    const by = shortenedBy(surfaces, volume, air, AT_1_KHZ, TREATED);
    const at = by.reduce((best, s, i) => (s > by[best]! ? i : best), 0);
    return { name: surfaces[at]!.name, byS: by[at]! };
  }, [surfaces, volume, air]);
  const measured = useMeasuredTimes(project);
  const traced = useTracedTimes(project, runs);
  const [tunes, setTunes] = useState(false);
  const modes = useModes(place, statistics?.schroederHz ?? 0);
  const [modeAt, setMode] = useState<number | null>(null);
  const mode = modes?.list[modeAt ?? -1];
  const [seen, setSeen] = useKept<SeenFrom>('room-model seen from', SEEN_FROM[0], isOneOf(SEEN_FROM));
  const [paint, setPaint] = useState<string | null>(null);
  /** A press chooses a surface; with a material at hand, it is made of that. */
  const press = (key: SurfaceKey) => {
    setKey(key);
    const surface = surfaces.find((s) => s.key === key);
    if (surface && paint !== null && surface.material !== paint) makeOf(place, surface, paint);
  };
  if (!statistics || !helps) return null;
  const traces: ChartTrace[] = [
    {
      id: 'eyring',
      label: 'after Eyring',
      role: 'predicted',
      colour: 'trace-kelp',
      levels: Float64Array.from(statistics.eyring),
    },
    {
      id: 'sabine',
      label: 'after Sabine',
      role: 'reference',
      colour: 'trace-slate',
      levels: Float64Array.from(statistics.sabine),
    },
    ...(traced
      ? [
          {
            id: 'traced',
            label: `modelled, ${traced.name}, mean of ${traced.receivers}`,
            role: 'predicted' as const,
            colour: 'trace-heather',
            levels: Float64Array.from(traced.times),
          },
        ]
      : []),
    ...(measured
      ? [
          {
            id: 'measured',
            label: `measured, ${measured.name} at ${measured.spots === 1 ? '1 spot' : `${measured.spots} spots`}`,
            role: 'measured' as const,
            colour: 'trace-mussel',
            levels: Float64Array.from(measured.times),
          },
        ]
      : []),
  ];
  const target = wantedS === null ? null : centres.map(() => wantedS);
  const finite = [...traces.flatMap((t) => [...t.levels]), wantedS ?? 0].filter(Number.isFinite);
  const top = Math.max(0.4, ...finite);
  const said = [
    timeSentence(statistics, wantedS),
    ...(measured && Number.isFinite(middleOf(measured.times))
      ? [measuredSentence(middleOf(measured.times), statistics, measured.spots)]
      : []),
    ...(helps.byS > 0.02 * statistics.eyring[AT_1_KHZ]!
      ? [helpSentence(helps.name, helps.byS, statistics.eyring[AT_1_KHZ]! - helps.byS, TREATED)]
      : []),
    trustSentence(
      surfaces.map(({ name, area, absorption }) => ({ name, area, share: absorption[AT_1_KHZ]! })),
      statistics,
    ),
  ];
  return (
    <>
      <Halves right={1.2}>
        <div className="plot">
          {seen === '3D' ? (
            <RoomInThree
              place={place}
              chosen={chosen.key}
              swallows={({ absorption }) => absorption[AT_1_KHZ]!}
              onSurface={press}
              ways={NO_WAYS}
              source={null}
              receiver={null}
            />
          ) : (
            <SurfacePlan
              place={place}
              surfaces={surfaces}
              chosen={chosen.key}
              onChoose={press}
              shown={modes && mode ? { modes, mode } : null}
            />
          )}
          <SeenAndPaint place={place} seen={seen} onSeen={setSeen} paint={paint} onPaint={setPaint} />
        </div>
        <div className="plot">
          <ResponseChart
            label="Reverberation time by its surfaces"
            title={`Reverberation time, ${place.name}`}
            frequency={centres}
            traces={traces}
            target={target}
            range={{ lowDb: 0, highDb: Math.ceil(top * 5 + 0.5) / 5 }}
            absolute
            within={{ fromHz: 45, toHz: 11_500 }}
            levelLabel={`s, octaves${wantedS === null ? '' : '; wanted as a line'}`}
            format={seconds}
          />
        </div>
      </Halves>
      <aside className="notes" aria-label="What it says">
        <h2>How long does it ring?</h2>
        {said.map(({ text, attention, small }, i) => (
          <Note key={text} number={i + 1} attention={attention} small={small}>
            {text}
          </Note>
        ))}
        {measured ? (
          <Note number={said.length + 1}>
            What they swallow can be tuned until it rings as it was measured.{' '}
            <button className="linkish" onClick={() => setTunes(true)}>
              Tune the surfaces to the walk
            </button>
          </Note>
        ) : null}
        {measured && tunes ? (
          <TuneDialog
            surfaces={surfaces}
            volume={volume}
            air={air}
            measured={measured.times}
            now={statistics.eyring}
            longer={statistics.eyring.map((t, o) => {
              const ratio = (traced?.times[o] ?? NaN) / t;
              return Number.isFinite(ratio) ? ratio : 1;
            })}
            onClose={() => setTunes(false)}
          />
        ) : null}
        {modes ? <ModeList place={place} modes={modes} chosen={modeAt} onChoose={setMode} /> : null}
      </aside>
      <div
        className="shore"
        style={{
          gridColumn: '1 / 3',
          gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 1.25fr) 270px',
          height: 206,
        }}
      >
        <SurfaceList place={place} surfaces={surfaces} chosen={chosen.key} onChoose={setKey} />
        <SharesCard surface={chosen} />
        <RoomCard place={place} volume={volume} statistics={statistics} chosen={chosen} />
      </div>
    </>
  );
}
