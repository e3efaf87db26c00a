import { theProcessor } from '../../../services/theProcessor';
import { Button } from '@mantine/core';
import { type Correction, type Project, loudspeakerName } from '@pebble-hall/core/project';
import { STARTING_SUB_LIMITS, type SubsTogether } from '@pebble-hall/core/alignment';
import { plainSub, type SubSetting } from '@pebble-hall/core/processing';
import { useState } from 'react';
import { formatDb, formatHz } from '../../../charts/chartMath';
import type { TraceRef } from '@pebble-hall/core/jobs';
import { evenOutSeats } from '../steps/takeSteps';
import { subTraces } from './subTraces';
import type { Job } from '../../../services/derivation';
import { runJob } from '../../../services/jobs';
import { useDerived } from '../../../services/useDerived';
import { useProblem } from '../../../services/useTraceLevels';
import { NumberField } from '../../../parts/NumberField';
import { notifyProblem } from '../../../services/notify';
import { sentenceOf } from '../../../store';
import type { Edit } from '../useCorrection';

/** How far the seats deviate from each other with the subwoofers as they were, and as they are set, dB. */
async function read({ traces, settings }: { traces: TraceRef[][]; settings: SubSetting[] }, { signal }: Job) {
  const { rate } = theProcessor().profile;
  const both = [settings.map(plainSub), settings];
  const [alone, now] = await runJob('design.deviations', { traces, settings: both, rate }, { signal });
  return { alone: alone!, now: now! };
}

/** Subwoofers together: delay, gain, polarity and sections of each, found jointly over all spots. */
export function SubsPage({
  project,
  correction,
  onEdit,
}: {
  project: Project;
  correction: Correction;
  onEdit: Edit;
}) {
  const { ids, traces } = subTraces(project);
  const spots = traces[0]?.length ?? 0;
  const [work, setWork] = useState(false);
  const [found, setFound] = useState<SubsTogether | null>(null);
  const nameOf = (id: string) => loudspeakerName(project.place, id);
  const together = ids.every((id) => correction.subs[id]);
  const settings = ids.map((id) => correction.subs[id] ?? plainSub());
  const enough = ids.length >= 2 && spots >= 2;
  const { value: deviation, problem } = useDerived(enough ? { traces, settings } : null, read);
  useProblem(problem);
  if (!enough)
    return (
      <section className="card" aria-label="Subwoofers" style={{ gridColumn: '1 / -1' }}>
        <h2>Subwoofers together</h2>
        <span className="quiet">
          {ids.length < 2
            ? 'There is one subwoofer at most: nothing to bring together.'
            : 'At least two spots with sweeps of every subwoofer are needed; take them in the Mic walk.'}
        </span>
      </section>
    );
  const optimise = async () => {
    setWork(true);
    try {
      setFound(await evenOutSeats(onEdit));
    } catch (error) {
      notifyProblem(sentenceOf(error));
    } finally {
      setWork(false);
    }
  };
  const set = (id: string, label: string, next: Partial<SubSetting>) =>
    onEdit(label, ({ subs }) => ({
      subs: {
        ...Object.fromEntries(ids.map((x) => [x, subs[x] ?? plainSub()])),
        [id]: { ...(subs[id] ?? plainSub()), ...next },
      },
    }));
  return (
    <section className="card" aria-label="Subwoofers" style={{ gridColumn: '1 / -1' }}>
      <h2>
        <span>
          Subwoofers together{' '}
          <small>
            {deviation
              ? together
                ? `seats deviate by ${deviation.now.toFixed(2)} dB from each other, 20 to 80 Hz; ${deviation.alone.toFixed(2)} dB as they were`
                : `played as they are, seats deviate by ${deviation.alone.toFixed(2)} dB from each other, 20 to 80 Hz`
              : 'reading …'}
          </small>
        </span>
        <span style={{ display: 'flex', gap: 6 }}>
          <Button size="compact-xs" loading={work} onClick={() => void optimise()}>
            Even out the seats
          </Button>
          <Button
            size="compact-xs"
            variant="default"
            disabled={!together}
            onClick={() =>
              onEdit('subwoofers each by itself', ({ madeFrom }) => ({
                subs: {},
                madeFrom: { ...madeFrom, subs: null },
              }))
            }
          >
            Each by itself
          </Button>
        </span>
      </h2>
      {together ? (
        <table className="plain">
          <thead>
            <tr>
              <th>Subwoofer</th>
              <th>Gain</th>
              <th>Delay</th>
              <th>Polarity</th>
              <th>Sections of its own</th>
            </tr>
          </thead>
          <tbody>
            {ids.map((id, i) => {
              const s = settings[i]!;
              return (
                <tr key={id}>
                  <td>{nameOf(id)}</td>
                  <td>
                    <NumberField
                      label={`Gain of ${nameOf(id)}`}
                      value={s.gainDb}
                      unit="dB"
                      min={-20}
                      max={0}
                      step={0.1}
                      width={84}
                      onChange={(gainDb) => set(id, `gain of ${nameOf(id)}`, { gainDb })}
                    />
                  </td>
                  <td>
                    <NumberField
                      label={`Delay of ${nameOf(id)} in the pair`}
                      value={1000 * s.delayS}
                      unit="ms"
                      min={0}
                      max={40}
                      step={0.05}
                      digits={2}
                      width={92}
                      onChange={(ms) => set(id, `delay of ${nameOf(id)}`, { delayS: ms / 1000 })}
                    />
                  </td>
                  <td>
                    <Button
                      size="compact-xs"
                      variant="default"
                      aria-label={`Polarity of ${nameOf(id)}: ${s.inverted ? 'inverted' : 'normal'}`}
                      onClick={() => set(id, `polarity of ${nameOf(id)}`, { inverted: !s.inverted })}
                    >
                      {s.inverted ? 'inverted' : 'normal'}
                    </Button>
                  </td>
                  <td className="mono">
                    {s.sections.length === 0
                      ? 'none'
                      : s.sections
                          .map((x) => `${formatHz(x.frequency)} ${formatDb(x.gainDb)} Q ${x.q.toFixed(1)}`)
                          .join('; ')}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      ) : (
        <span className="quiet">
          Both play the same then, each with its own gain, delay, polarity and sections, and one filter for
          their sum. No more than {STARTING_SUB_LIMITS.mostCutDb} dB is taken from either,{' '}
          {STARTING_SUB_LIMITS.sections} sections each.
        </span>
      )}
      {found && together ? (
        <span className="quiet">
          Level changes by {formatDb(found.levelDb)} on the mean of seats and band: what evenness costs.
        </span>
      ) : null}
    </section>
  );
}
