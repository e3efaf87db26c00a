import { Button } from '@mantine/core';
import type { Correction, Project } from '@pebble-hall/core/project';
import {
  plainSub,
  STARTING_SUB_LIMITS,
  type SubSetting,
  type SubsTogether,
} from '@pebble-hall/core/alignment';
import { useEffect, useState } from 'react';
import { formatDb, formatHz } from '../../parts/chartMath';
import { designWorker, provideTraces, sweepsUsed, traceKey } from '../../parts/designs';
import { PROCESSOR } from '../../parts/exactFilters';
import { NumberField } from '../../parts/NumberField';
import { fittedOf, usableSpots } from '../../parts/progress';
import { tellProblem } from '../../parts/tell';
import { sentenceOf } from '../../store';
import type { Edit } from './useCorrection';

/** Trace keys of all subwoofers at the spots that have all of them: `[sub][spot]`. */
function subKeys(project: Project): { ids: string[]; keys: string[][] } {
  const subs = fittedOf(project).filter((l) => l.role === 'subwoofer');
  const own = subs.map((l) => usableSpots(project, l.id).averaged);
  const spots = project.place.spots.filter((spot) => own.every((o) => o.some((s) => s.spotId === spot.id)));
  return {
    ids: subs.map((l) => l.id),
    keys: own.map((o) => spots.map((spot) => traceKey(o.find((s) => s.spotId === spot.id)!))),
  };
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
  const { ids, keys } = subKeys(project);
  const spots = keys[0]?.length ?? 0;
  const [work, setWork] = useState(false);
  const [read, setRead] = useState<{ of: string; alone: number; now: number } | null>(null);
  const [found, setFound] = useState<SubsTogether | null>(null);
  const nameOf = (id: string) => project.place.loudspeakers.find((l) => l.id === id)?.name ?? id;
  const together = ids.every((id) => correction.subs[id]);
  const settings = ids.map((id) => correction.subs[id] ?? plainSub());
  const enough = ids.length >= 2 && spots >= 2;
  const wanted = enough ? JSON.stringify([keys, settings]) : '';
  useEffect(() => {
    if (!wanted) return;
    let current = true;
    const compute = async () => {
      await provideTraces(sweepsUsed(project), project.calibrations);
      const plain = ids.map(plainSub);
      const alone = await designWorker().call((api) => api.deviation(keys, plain, PROCESSOR.rate));
      const now = await designWorker().call((api) => api.deviation(keys, settings, PROCESSOR.rate));
      if (current) setRead({ of: wanted, alone, now });
    };
    compute().catch((error: unknown) => current && tellProblem(sentenceOf(error)));
    return () => {
      current = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- says all that it rests on
  }, [wanted]);
  /** what was read of other settings is not shown */
  const deviation = read?.of === wanted ? read : null;
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
      await provideTraces(sweepsUsed(project), project.calibrations);
      const result = await designWorker().call((api) => api.subs(keys, STARTING_SUB_LIMITS, PROCESSOR.rate));
      setFound(result);
      onEdit('subwoofers together', {
        subs: Object.fromEntries(ids.map((id, i) => [id, result.settings[i]!])),
      });
    } catch (error) {
      tellProblem(sentenceOf(error));
    } finally {
      setWork(false);
    }
  };
  const set = (id: string, label: string, next: Partial<SubSetting>) =>
    onEdit(label, {
      subs: {
        ...Object.fromEntries(ids.map((x, i) => [x, settings[i]!])),
        [id]: { ...settings[ids.indexOf(id)]!, ...next },
      },
    });
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
            Make the seats alike
          </Button>
          <Button
            size="compact-xs"
            variant="default"
            disabled={!together}
            onClick={() => onEdit('subwoofers each by itself', { subs: {} })}
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
                      aria-label={`Polarity of ${nameOf(id)}`}
                      onClick={() => set(id, `polarity of ${nameOf(id)}`, { inverted: !s.inverted })}
                    >
                      {s.inverted ? 'reversed' : 'normal'}
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
