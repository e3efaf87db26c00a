import { Select } from '@mantine/core';
import { type Project, fittedOf, sweepOf } from '@pebble-hall/core/project';
import { lazy, Suspense, useEffect, useMemo, useState, type ReactNode } from 'react';
import { FamilyChips } from '../../parts/FamilyChips';
import { changeProject } from '../../services/changeProject';
import { TRACE_COLOURS } from '../../charts/traceColours';
import type { LookProps } from './lookProps';

const VIEWS = ['Level', 'Delay', 'Time', 'Distortion', 'Decay', 'Room figures', 'Library'] as const;
type View = (typeof VIEWS)[number];
/** All ways of looking but the library, which does not go by channel. */
const shown = {
  Level: lazy(() => import('./LevelView')),
  Delay: lazy(() => import('./DelayView')),
  Time: lazy(() => import('./TimeView')),
  Distortion: lazy(() => import('./DistortionView')),
  Decay: lazy(() => import('./DecayView')),
  'Room figures': lazy(() => import('./FiguresView')),
};
/** Ways of looking that show one spot at a time. */
const AT_ONE_SPOT: View[] = ['Delay', 'Time', 'Distortion', 'Decay'];
/** Ways of looking that show one channel at a time. */
const ONE_CHANNEL: View[] = ['Delay', 'Time', 'Distortion', 'Decay', 'Room figures'];

const LibraryView = lazy(() =>
  import('./library/LibraryView').then(({ LibraryView: view }) => ({ default: view })),
);

const hashOf = (view: View) => view.toLowerCase().replace(' ', '-');
const viewOfHash = (): View | null => VIEWS.find((v) => hashOf(v) === location.hash.slice(1)) ?? null;

/** What does the room do to each channel, and what else was measured? */
export default function TracesWorkbench({ project }: { project: Project }) {
  const [askedView, setView] = useState<View | null>(viewOfHash);
  const change = changeProject;
  const asked = useMemo(() => new URLSearchParams(location.search), []);
  const [chosen, setChosen] = useState<string[]>(() => asked.getAll('channel'));
  const [spotId, setSpotId] = useState(
    () => project.place.spots.find((s) => s.id === asked.get('spot'))?.id ?? project.place.spots[0]!.id,
  );
  const [roundId, setRoundId] = useState(project.roundId);
  useEffect(() => {
    const follow = () => setView(viewOfHash());
    addEventListener('hashchange', follow);
    return () => removeEventListener('hashchange', follow);
  }, []);

  const round = project.rounds.some((r) => r.id === roundId) ? roundId : project.roundId;
  const measured = fittedOf(project).filter((l) =>
    project.place.spots.some((s) => sweepOf(project, s.id, l.id, 'as found', round)),
  );
  // without sweeps there is only the library
  const view: View = measured.length === 0 ? 'Library' : (askedView ?? 'Level');
  const several = !ONE_CHANNEL.includes(view);
  const known = chosen.filter((id) => measured.some((l) => l.id === id));
  const ids = known.length === 0 ? measured.slice(0, 1).map((l) => l.id) : several ? known : known.slice(-1);
  const channels = measured.filter((l) => ids.includes(l.id));
  const choose = (id: string) => {
    if (!several) return setChosen([id]);
    setChosen(ids.includes(id) && ids.length > 1 ? ids.filter((i) => i !== id) : [...ids, id]);
  };
  return (
    <div
      className="work"
      style={{
        gridTemplateRows: view === 'Library' ? '32px minmax(0, 1fr)' : '32px 32px minmax(0, 1fr)',
        height: '100%',
      }}
    >
      <div className="chips">
        <div className="chips" role="tablist" aria-label="Ways of looking">
          {(measured.length === 0 ? (['Library'] as const) : VIEWS).map((v) => (
            <button
              key={v}
              role="tab"
              className="chip"
              aria-selected={v === view}
              onClick={() => {
                history.replaceState(null, '', `#${hashOf(v)}`);
                setView(v);
              }}
            >
              {v}
            </button>
          ))}
        </div>
        <span style={{ flex: 1 }} />
        {project.rounds.length > 1 && view !== 'Library' ? (
          <Select
            aria-label="Round"
            size="xs"
            w={190}
            allowDeselect={false}
            data={project.rounds.map((r) => ({ value: r.id, label: r.name }))}
            value={round}
            onChange={(id) => id && setRoundId(id)}
          />
        ) : null}
        {AT_ONE_SPOT.includes(view) ? (
          <Select
            aria-label="Spot"
            size="xs"
            w={170}
            allowDeselect={false}
            data={project.place.spots.map((s) => ({ value: s.id, label: s.name }))}
            value={spotId}
            onChange={(id) => id && setSpotId(id)}
          />
        ) : null}
      </div>
      {view === 'Library' ? (
        <Suspense fallback={<p className="quiet">Opening …</p>}>
          <LibraryView project={project} />
        </Suspense>
      ) : (
        <ByChannel view={view} project={project} channels={channels} roundId={round} spotId={spotId}>
          <div className="chips" role="group" aria-label="Channels">
            {measured.map((l, i) => (
              <button
                key={l.id}
                className="chip"
                aria-pressed={ids.includes(l.id)}
                onClick={() => choose(l.id)}
              >
                <svg width={10} height={10} aria-hidden="true">
                  <circle cx={5} cy={5} r={4.5} fill={`var(--${TRACE_COLOURS[i % TRACE_COLOURS.length]})`} />
                </svg>
                {l.name}
              </button>
            ))}
            {several ? (
              <FamilyChips
                project={project}
                shown={measured}
                selected={ids}
                onSelect={setChosen}
                change={change}
              />
            ) : (
              <span className="quiet" style={{ marginLeft: 6 }}>
                one at a time
              </span>
            )}
          </div>
        </ByChannel>
      )}
    </div>
  );
}

/** A way of looking at some channels, below the chips that choose them. */
function ByChannel({
  view,
  children,
  ...look
}: LookProps & { view: Exclude<View, 'Library'>; children: ReactNode }) {
  const Shown = shown[view];
  return (
    <>
      {children}
      <Suspense fallback={<p className="quiet">Opening …</p>}>
        <Shown {...look} />
      </Suspense>
    </>
  );
}
