import { memoryWords } from '../../words/memoryName';
import { Button, Checkbox, Popover, Textarea } from '@mantine/core';
import { memo, useState } from 'react';
import {
  type Loudspeaker,
  type Project,
  type Spot,
  type Sweep,
  fittedOf,
  sweepOf,
} from '@pebble-hall/core/project';
import { formatHz } from '../../charts/chartMath';
import { verdictSentence, verdictWord } from '../../words/sweepReasons';
import type { Change } from '../../services/changeProject';
import { hearSweeps } from './hearSweeps';
import { RowActions } from './RowActions';
import type { WalkNow } from './useWalk';

interface SweepMatrixProps {
  project: Project;
  now: WalkNow | null;
  change: Change;
  onRepeat: (spotId: string, loudspeakerId: string) => void;
  onRepeatThese: (sweeps: Sweep[]) => void;
}

const shortName = (name: string) =>
  name.replace('Surround left', 'Surr. L').replace('Surround right', 'Surr. R');

/** A progress that only moves on changes nothing here: a hundred cells are not drawn anew for it. */
const isSame = (a: SweepMatrixProps, b: SweepMatrixProps) =>
  a.project === b.project &&
  a.now?.phase === b.now?.phase &&
  a.now?.loudspeakerId === b.now?.loudspeakerId &&
  a.now?.spotIds.join() === b.now?.spotIds.join();

/** Spots by channels: the margin over noise of each sweep, or what is wrong with it. */
export const SweepMatrix = memo(Matrix, isSame);

function Matrix({ project, now, change, onRepeat, onRepeatThese }: SweepMatrixProps) {
  const fitted = fittedOf(project);
  const { spots } = project.place;
  const all = spots.flatMap((s) => fitted.map((l) => sweepOf(project, s.id, l.id)));
  const count = (state: string) => all.filter((s) => s?.verdict.state === state).length;
  const [good, doubtful, failed] = [count('good'), count('doubtful'), count('failed')];
  return (
    <section
      className="card"
      aria-label="Sweeps"
      style={{ overflow: 'auto', maxHeight: 'calc(100vh - 470px)' }}
    >
      <h2>
        Sweeps{' '}
        <small>
          {good} good{doubtful ? `, ${doubtful} doubtful` : ''}
          {failed ? `, ${failed} failed` : ''}, of {all.length}; figures are dB above the noise
        </small>
      </h2>
      <table style={{ borderCollapse: 'separate', borderSpacing: '4px 4px', fontSize: 12.5 }}>
        <thead>
          <tr>
            <td />
            {fitted.map((l) => (
              <th
                key={l.id}
                scope="col"
                style={{ fontWeight: 400, color: 'var(--soft)', whiteSpace: 'nowrap' }}
              >
                {shortName(l.name)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {spots.map((spot) => (
            <tr key={spot.id}>
              <th scope="row" style={{ textAlign: 'right' }}>
                <RowActions
                  spot={spot}
                  sweeps={fitted.flatMap((l) => sweepOf(project, spot.id, l.id) ?? [])}
                  isNow={now?.spotIds.includes(spot.id) ?? false}
                  busy={now !== null}
                  change={change}
                  onRepeat={onRepeatThese}
                />
              </th>
              {fitted.map((l) => (
                <td key={l.id} style={{ padding: 0 }}>
                  <Cell
                    spot={spot}
                    loudspeaker={l}
                    sweep={sweepOf(project, spot.id, l.id)}
                    isNow={
                      now?.phase === 'sweeping' && now.spotIds.includes(spot.id) && now.loudspeakerId === l.id
                    }
                    busy={now !== null}
                    change={change}
                    onRepeat={() => onRepeat(spot.id, l.id)}
                  />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

interface CellProps {
  spot: Spot;
  loudspeaker: Loudspeaker;
  sweep: Sweep | undefined;
  isNow: boolean;
  busy: boolean;
  change: Change;
  onRepeat: () => void;
}

/** What a floor microphone added to a sweep. */
const floorText = ({ crossoverHz, levelDb, delayS, misfitDb }: NonNullable<Sweep['floor']>) =>
  `The floor's curve counts below ${formatHz(crossoverHz)}: ${levelDb < 0 ? 'lowered' : 'raised'} by ${Math.abs(levelDb).toFixed(1)} dB and made ${Math.abs(1000 * delayS).toFixed(2)} ms ${delayS < 0 ? 'earlier' : 'later'}, it fits within ${misfitDb.toFixed(1)} dB.`;

const LOOKS = {
  none: { background: 'none', border: '1.5px dashed var(--line)', color: 'var(--soft)' },
  now: { background: 'var(--kelp)', border: '1.5px solid var(--kelp)', color: 'var(--on-kelp)' },
  out: {
    background: 'none',
    border: '1.5px solid var(--line)',
    color: 'var(--soft)',
    textDecoration: 'line-through',
  },
  good: { background: 'var(--kelp-soft)', border: '1.5px solid var(--kelp)', color: 'var(--ink)' },
  doubtful: { background: 'var(--buoy-soft)', border: '1.5px solid var(--buoy)', color: 'var(--buoy)' },
  failed: { background: 'var(--buoy-soft)', border: '2.5px solid var(--buoy)', color: 'var(--buoy)' },
};

function Cell({ spot, loudspeaker, sweep, isNow, busy, change, onRepeat }: CellProps) {
  const look = isNow
    ? LOOKS.now
    : !sweep
      ? LOOKS.none
      : sweep.inAverage
        ? LOOKS[sweep.verdict.state]
        : LOOKS.out;
  const name = `${loudspeaker.name} at ${spot.name}`;
  const set = (label: string, next: Partial<Pick<Sweep, 'inAverage' | 'note'>>) =>
    void change(label, (p) => ({
      ...p,
      sweeps: p.sweeps.map((s) => (s.id === sweep?.id ? { ...s, ...next } : s)),
    }));
  const [open, setOpen] = useState(false);
  const button = (
    <button
      onClick={() => setOpen((was) => !was)}
      aria-label={`${name}: ${isNow ? 'measuring now' : sweep ? `${sweep.inAverage ? '' : 'left out, '}${verdictSentence(sweep.verdict)}` : 'not taken'}`}
      style={{
        ...look,
        width: '100%',
        minWidth: 50,
        height: 24,
        borderRadius: '11px 9px 12px 8px',
        font: 'inherit',
        fontSize: 11.5,
        fontWeight: 700,
        cursor: 'pointer',
      }}
    >
      {isNow ? 'now' : sweep ? verdictWord(sweep.verdict) : ''}
    </button>
  );
  // only the one that is looked at needs a card
  if (!open) return button;
  return (
    <Popover opened onChange={setOpen} width={350} position="bottom" withArrow shadow="sm" trapFocus>
      <Popover.Target>{button}</Popover.Target>
      <Popover.Dropdown>
        <div style={{ display: 'grid', gap: 8, fontSize: 13 }}>
          <b>{name}</b>
          {sweep ? (
            <>
              <span>{verdictSentence(sweep.verdict)}</span>
              <span className="quiet">
                Taken {new Date(sweep.takenAt).toLocaleString()} at{' '}
                {String(sweep.levelDbfs).replace('-', '\u2212')} dBFS, through {memoryWords(sweep.memory)}.
                {sweep.verdict.band
                  ? ` Its band: ${formatHz(sweep.verdict.band.from)} to ${formatHz(sweep.verdict.band.to)}.`
                  : ''}
                {sweep.arrivalS !== null ? ` Arrives after ${(1000 * sweep.arrivalS).toFixed(2)} ms.` : ''}
                {sweep.distortionDb !== null && Number.isFinite(sweep.distortionDb)
                  ? ` Distortion ${sweep.distortionDb.toFixed(0)} dB.`
                  : ''}
                {sweep.repeats > 1 ? ` Average of ${sweep.repeats} takes, figures of one.` : ''}
                {sweep.groundPlane ? ' On the floor: 6 dB are taken off.' : ''}
                {sweep.floor ? ` ${floorText(sweep.floor)}` : ''}
              </span>
            </>
          ) : (
            <span className="quiet">Not taken yet.</span>
          )}
          {sweep ? (
            <>
              <Checkbox
                size="xs"
                label="Use this sweep"
                checked={sweep.inAverage}
                onChange={(e) =>
                  set(`${name} ${e.currentTarget.checked ? 'used' : 'left out'}`, {
                    inAverage: e.currentTarget.checked,
                  })
                }
              />
              <Textarea
                aria-label="Note on this sweep"
                placeholder="Note"
                size="xs"
                autosize
                maxLength={1000}
                key={sweep.note}
                defaultValue={sweep.note}
                onBlur={(e) =>
                  e.target.value !== sweep.note && set(`note on ${name}`, { note: e.target.value })
                }
              />
            </>
          ) : null}
          <div style={{ display: 'flex', gap: 8, flexWrap: 'wrap' }}>
            <Button
              size="compact-sm"
              disabled={busy}
              onClick={() => {
                setOpen(false);
                onRepeat();
              }}
            >
              {sweep ? 'Repeat this one' : 'Take this one'}
            </Button>
            {sweep ? (
              <Button
                size="compact-sm"
                variant="default"
                disabled={busy}
                onClick={() => void hearSweeps([sweep])}
              >
                Hear it
              </Button>
            ) : null}
            {sweep ? (
              <Button
                size="compact-sm"
                variant="default"
                disabled={busy}
                onClick={() => {
                  setOpen(false);
                  void change(`deleting ${name}`, (p) => ({
                    ...p,
                    sweeps: p.sweeps.filter((s) => s.id !== sweep.id),
                  }));
                }}
              >
                Delete
              </Button>
            ) : null}
            {sweep ? (
              <Button
                size="compact-sm"
                variant="default"
                component="a"
                href={`/traces?spot=${spot.id}&channel=${loudspeaker.id}#time`}
              >
                Look
              </Button>
            ) : null}
          </div>
        </div>
      </Popover.Dropdown>
    </Popover>
  );
}
