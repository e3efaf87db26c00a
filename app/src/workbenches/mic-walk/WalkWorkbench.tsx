import { Button, Progress } from '@mantine/core';
import type { Project } from '@pebble-hall/core/project';
import { useState } from 'react';
import { Frame } from '../../parts/Frame';
import { Note } from '../../parts/Note';
import { fittedOf, isSpotTaken, sweepOf } from '../../parts/progress';
import { RoomPlan, type SpotState } from '../../parts/RoomPlan';
import { silence } from '../../parts/running';
import { reasonSentence } from '../../parts/sentences';
import { useChange } from '../../parts/useChange';
import { SpotCard } from './SpotCard';
import { SweepMatrix } from './SweepMatrix';
import { useWalk } from './useWalk';

/** Which sweeps are there, are they good, and which spot is next? */
export function WalkWorkbench() {
  return (
    <Frame path="/mic-walk" title="Mic walk">
      {(project) => <Walk project={project} />}
    </Frame>
  );
}

function Walk({ project }: { project: Project }) {
  const walk = useWalk(project);
  const change = useChange(project.id);
  const { spots } = project.place;
  const next = spots.find((s) => !isSpotTaken(project, s)) ?? null;
  const [picked, setPicked] = useState<string | null>(null);
  const spot = spots.find((s) => s.id === picked) ?? next ?? spots[0]!;
  const stateOf = (id: string): SpotState => {
    if (walk.now?.spotId === id) return 'now';
    const sweeps = fittedOf(project).map((l) => sweepOf(project, id, l.id));
    if (sweeps.some((s) => s && s.verdict.state !== 'good')) return 'trouble';
    return sweeps.length > 0 && sweeps.every((s) => s) ? 'taken' : 'empty';
  };
  const trouble = spots.flatMap((s) =>
    fittedOf(project).flatMap((l) => {
      const sweep = sweepOf(project, s.id, l.id);
      return sweep && sweep.verdict.state !== 'good' ? [{ spot: s, loudspeaker: l, sweep }] : [];
    }),
  );
  const addSpot = () =>
    void change('a new spot', (p) => {
      const base = p.place.spots.at(-1)!.position;
      const inRoom = (v: number, most: number) => Math.min(most - 0.2, Math.max(0.2, v));
      const position = {
        x: inRoom(base.x - 0.2, p.place.size.x),
        y: inRoom(base.y + 0.35, p.place.size.y),
        z: base.z,
      };
      return {
        ...p,
        place: {
          ...p.place,
          spots: [
            ...p.place.spots,
            { id: crypto.randomUUID(), name: `Spot ${p.place.spots.length + 1}`, position, inAverage: true },
          ],
        },
      };
    });
  const playing = walk.now && project.place.loudspeakers.find((l) => l.id === walk.now!.loudspeakerId);
  return (
    <div
      className="work"
      style={{
        gridTemplateColumns: 'minmax(0, 1fr) 560px',
        gridTemplateRows: 'auto minmax(0, 1fr)',
        height: '100%',
      }}
    >
      <div style={{ gridColumn: '1 / 3' }}>
        {walk.filtered ? (
          <div className="notice" role="alert" style={{ margin: 0 }}>
            <span>
              Memory {walk.filtered} is active and holds filters: sweeps taken now would hear the correction.
              Recall a memory without filters to measure as found.
            </span>
            <Button size="compact-md" onClick={() => void walk.recallPlain()}>
              Recall one without filters
            </Button>
          </div>
        ) : null}
        {walk.unstored.length > 0 ? (
          <div className="notice" role="alert" style={{ margin: 0 }}>
            <span>
              {walk.unstored.length} sweep could not be stored and is kept in this tab only.{' '}
              {walk.unstored[0]!.problem}
            </span>
            <Button size="compact-md" onClick={() => void walk.storeAgain()}>
              Store again
            </Button>
          </div>
        ) : null}
      </div>
      <div className="plot" style={{ padding: 8 }}>
        <RoomPlan
          place={project.place}
          stateOf={stateOf}
          selected={spot.id}
          playing={playing?.id ?? null}
          onSelect={setPicked}
        />
      </div>
      <div style={{ display: 'grid', gridTemplateRows: 'auto auto minmax(0, 1fr)', gap: 10, minHeight: 0 }}>
        <section className="card" aria-label="Next" style={{ gap: 8 }}>
          {walk.now && playing ? (
            <>
              <div className="row">
                <span>
                  <span className="big" style={{ color: 'var(--ink)' }}>
                    {playing.name}
                  </span>{' '}
                  at {spots.find((s) => s.id === walk.now!.spotId)?.name}
                </span>
                <Button variant="default" onClick={silence}>
                  Cancel
                </Button>
              </div>
              <Progress
                aria-label="Progress of the round"
                value={(100 * (walk.now.done + walk.now.share)) / walk.now.total}
              />
              <span className="quiet">
                Hold still: sweep {walk.now.done + 1} of {walk.now.total}
              </span>
            </>
          ) : (
            <SpotCard
              project={project}
              spot={spot}
              isNext={next?.id === spot.id}
              change={change}
              onTake={() => void walk.takeSpot(spot.id)}
              onTakeAll={next ? () => void walk.takeAll() : null}
            />
          )}
        </section>
        <SweepMatrix
          project={project}
          now={walk.now}
          change={change}
          onRepeat={(s, l) => void walk.takeOne(s, l)}
        />
        <section className="card notes" aria-label="What the round says">
          <h2>
            What the round says
            <Button size="compact-xs" variant="default" disabled={walk.now !== null} onClick={addSpot}>
              Add a spot
            </Button>
          </h2>
          {trouble.map(({ spot: s, loudspeaker, sweep }, i) => (
            <Note key={sweep.id} number={i + 1} attention>
              {s.name}, {loudspeaker.name}: {sweep.verdict.reasons.map(reasonSentence).join('; ')}.{' '}
              <button
                className="linkish"
                disabled={walk.now !== null}
                onClick={() => void walk.takeOne(s.id, loudspeaker.id)}
              >
                Repeat this one
              </button>
            </Note>
          ))}
          <Note number={trouble.length + 1}>
            {walk.now
              ? 'The round is under way; every sweep is stored as it is taken.'
              : roundSentence(project)}
          </Note>
        </section>
      </div>
    </div>
  );
}

function roundSentence(project: Project): React.ReactNode {
  const { spots } = project.place;
  const taken = spots.filter((s) => isSpotTaken(project, s));
  const averaged = taken.filter((s) => s.inAverage).length;
  if (taken.length === 0) return 'Nothing is taken yet. Begin at the home spot: it sets level and delay.';
  if (!isSpotTaken(project, spots[0]!)) return 'The home spot is not complete: level and delay rest on it.';
  if (averaged < 3)
    return `${averaged} ${averaged === 1 ? 'spot is' : 'spots are'} in the average. Take three at least, or the correction fits one seat only.`;
  const judges = taken.length - averaged;
  return (
    <>
      {averaged} spots are in the average
      {judges > 0 ? `, ${judges} stays out of it to judge the result` : ''}. Enough to go on:{' '}
      <a className="linkish" href="/correct">
        Correct
      </a>
      .
    </>
  );
}
