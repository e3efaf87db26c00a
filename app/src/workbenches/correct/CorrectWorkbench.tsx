import { Button } from '@mantine/core';
import type { Correction, Project } from '@pebble-hall/core/project';
import { logGrid } from '@pebble-hall/core/signal';
import { useMemo, useState } from 'react';
import { Frame } from '../../parts/Frame';
import { Note } from '../../parts/Note';
import { fittedOf, usableSpots } from '../../parts/progress';
import {
  ResponseChart,
  type Smoothing,
  type ChartBand,
  type ChartMark,
  type ChartTrace,
} from '../../parts/ResponseChart';
import { useChange } from '../../parts/useChange';
import { HowMuchCard } from './HowMuchCard';
import { PredictionCard } from './PredictionCard';
import { readDesign } from './readDesign';
import { SpanCard } from './SpanCard';
import { TargetCard } from './TargetCard';
import { useDesigns } from './useDesigns';

const grid = logGrid();

/** What would each channel become, and what is left alone? */
export function CorrectWorkbench() {
  return (
    <Frame path="/correct" title="Correct">
      {(project) => <Correct project={project} />}
    </Frame>
  );
}

function Correct({ project }: { project: Project }) {
  const change = useChange(project.id);
  const channels = fittedOf(project).filter((l) => usableSpots(project, l.id).averaged.length > 0);
  const [chosen, setChosen] = useState<string | null>(null);
  const channel = channels.find((l) => l.id === chosen) ?? channels[0];
  /** the correction while a hand is on it; what is stored otherwise */
  const [held, setHeld] = useState<{ on: Correction; next: Correction } | null>(null);
  const correction = held?.on === project.correction ? held.next : project.correction;
  const { designs, problem } = useDesigns(project, correction);
  const [smoothing, setSmoothing] = useState<Smoothing>(6);
  const [handle, setHandle] = useState<number | null>(null);

  const design = channel && designs.get(channel.id);
  const notes = useMemo(() => (design ? readDesign(design, grid, correction) : []), [design, correction]);
  const traces: ChartTrace[] = useMemo(
    () =>
      design
        ? [
            {
              id: 'found',
              label: 'as found, average',
              role: 'measured',
              colour: 'trace-mussel',
              levels: design.found.averageDb,
            },
            {
              id: 'predicted',
              label: 'as left (predicted)',
              role: 'predicted',
              colour: 'trace-heather',
              levels: design.predicted.averageDb,
            },
          ]
        : [],
    [design],
  );
  const bands: ChartBand[] = useMemo(
    () =>
      design
        ? [
            {
              id: 'range',
              label: 'seat range',
              colour: 'trace-mussel',
              low: design.found.lowDb,
              high: design.found.highDb,
            },
          ]
        : [],
    [design],
  );
  const marks: ChartMark[] = notes.flatMap((n, i) =>
    n.at ? [{ number: i + 1, ...n.at, attention: n.attention }] : [],
  );
  // the axis stays still while a hand drags: it depends on what was found, not on what is predicted
  const range = useMemo(() => {
    if (!design) return undefined;
    const inside = [...design.found.averageDb].filter(
      (v, i) => grid[i]! >= design.span.from && grid[i]! <= design.span.to && Number.isFinite(v),
    );
    const top = Math.ceil((Math.max(...inside) + 6) / 5) * 5;
    return { lowDb: top - 45, highDb: top };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the span of a drag must not move the axis
  }, [design?.found.averageDb[200], design?.found.averageDb[100], channel?.id]);

  if (!channel) {
    return (
      <div className="shed">
        <h1>Nothing to correct yet</h1>
        <p>
          A correction rests on sweeps at the home spot and at two more at least. Take them in the{' '}
          <a className="linkish" href="/mic-walk">
            Mic walk
          </a>
          .
        </p>
      </div>
    );
  }

  /** Where each target stands is kept once a handle is moved, so that it does not shift under the hand. */
  const standing = (): Correction['targetLevels'] =>
    Object.fromEntries(
      [...designs.values()].map((d) => [d.id, correction.targetLevels[d.id] ?? d.targetOffsetDb]),
    );
  const edit = (label: string, next: Partial<Correction>, done = true) => {
    setHeld({ on: project.correction, next: { ...correction, ...next } });
    if (done)
      void change(label, (p) => ({ ...p, correction: { ...p.correction, ...next } })).then(
        (ok) => !ok && setHeld(null),
      );
  };

  return (
    <div
      className="work"
      style={{
        gridTemplateColumns: 'minmax(0, 1fr) 262px',
        gridTemplateRows: '32px minmax(0, 1fr) auto',
        height: '100%',
      }}
    >
      <div className="chips" style={{ gridColumn: '1 / 3' }} role="group" aria-label="Channels">
        {channels.map((l) => (
          <button
            key={l.id}
            className="chip"
            aria-pressed={l.id === channel.id}
            onClick={() => setChosen(l.id)}
          >
            {l.name} <small>{l.model}</small>
          </button>
        ))}
      </div>
      <div className="plot">
        <ResponseChart
          label={`${channel.name}: as found, target and as left (predicted)`}
          frequency={grid}
          traces={traces}
          bands={bands}
          target={design?.targetDb ?? null}
          range={range}
          marks={marks}
          smoothing={smoothing}
          onSmoothing={setSmoothing}
          handles={
            design
              ? {
                  handles: correction.handles,
                  offsetDb: design.targetOffsetDb,
                  selected: handle,
                  onSelect: setHandle,
                  onMove: (index, moved, done) =>
                    edit(
                      'target handle moved',
                      {
                        handles: correction.handles.map((h, i) => (i === index ? moved : h)),
                        targetLevels: standing(),
                      },
                      done,
                    ),
                  onAdd: (frequency, levelDb) =>
                    edit('target handle added', {
                      handles: [
                        ...correction.handles,
                        { frequency, levelDb: Math.round(10 * (levelDb - design.targetOffsetDb)) / 10 },
                      ],
                      targetLevels: standing(),
                    }),
                  onRemove: (index) => {
                    if (correction.handles.length > 1)
                      edit('target handle removed', {
                        handles: correction.handles.filter((_, i) => i !== index),
                        targetLevels: standing(),
                      });
                  },
                }
              : null
          }
          span={
            design
              ? {
                  ...design.span,
                  onChange: (span, done) =>
                    edit(
                      `span of ${channel.name}`,
                      { spans: { ...correction.spans, [channel.id]: span } },
                      done,
                    ),
                }
              : null
          }
        />
      </div>
      <section className="notes" aria-label="What the plot says">
        <h2>What the plot says</h2>
        {problem ? (
          <p role="alert" className="attention">
            {problem}
          </p>
        ) : null}
        {!design && !problem ? <span className="quiet">Reading the sweeps …</span> : null}
        {notes.map((n, i) => (
          <Note key={i} number={i + 1} attention={n.attention ?? false} small={n.small}>
            {n.text}
          </Note>
        ))}
      </section>
      <div
        className="shore"
        style={{ gridColumn: '1 / 3', gridTemplateColumns: '1.25fr 1.1fr 0.95fr 1.15fr' }}
      >
        <TargetCard
          correction={correction}
          selected={handle}
          onSelect={setHandle}
          onEdit={(label, handles) => edit(label, { handles, targetLevels: standing() })}
          onPlaceAgain={() => edit('target placed again', { targetLevels: {} })}
        />
        <HowMuchCard correction={correction} onEdit={edit} />
        <SpanCard
          channel={channel.name}
          span={design?.span ?? null}
          own={correction.spans[channel.id] !== undefined}
          onSpan={(span) =>
            edit(`span of ${channel.name}`, { spans: { ...correction.spans, [channel.id]: span } })
          }
          onFind={() => {
            const { [channel.id]: _gone, ...spans } = correction.spans;
            edit(`span of ${channel.name} found again`, { spans });
          }}
        />
        <PredictionCard design={design ?? null}>
          <Button component="a" href="/hand-over" size="compact-md">
            Hand over
          </Button>
        </PredictionCard>
      </div>
    </div>
  );
}
