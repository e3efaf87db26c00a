import { asSet } from '@pebble-hall/core/alignment';
import { settingOf, withSource, type AlignStep, type Project } from '@pebble-hall/core/project';
import { useState } from 'react';
import type { AlignedPoint } from '../../services/alignSources';
import { runJob, runLong } from '../../services/jobs';
import { notify, notifyProblem } from '../../services/notify';
import { isAbort } from '../../ports/abort';
import { sentenceOf } from '../../store';
import { changeStep } from './changeAlign';
import { useMostDelay } from './useSuggestions';

/** Delay and polarity of all sources of a step at once, over all its spots; their levels and all-passes stay. */
export function useJoint(project: Project, step: AlignStep, points: readonly AlignedPoint[]) {
  const mostDelayS = useMostDelay(project, step);
  const [busy, setBusy] = useState(false);
  const run = async () => {
    setBusy(true);
    // the time reference first, as it is set: the others are brought to it
    const still = step.sources.find((s) => s.id === step.referenceId)!;
    const others = step.sources.filter((s) => s !== still);
    try {
      const found = await runLong('Bringing all together', ({ signal }) =>
        runJob(
          'align.joint',
          {
            points: points.map((p) => ({
              sources: [
                asSet(p.curves.get(still.id)!, still),
                ...others.map((s) =>
                  asSet(p.curves.get(s.id)!, { ...settingOf(s), delayS: 0, inverted: false }),
                ),
              ],
              weight: p.weight,
            })),
            mostDelayS,
          },
          { signal },
        ),
      );
      if (!found) return notify('Nowhere are two of them within 10 dB: there is nothing to bring together.');
      await changeStep('all brought together', step.id, (s) =>
        others.reduce((next, o, i) => withSource(next, o.id, found.settings[i]!), s),
      );
      notify(`All together reach ${Math.round(100 * found.efficiency)} % of what they would in phase.`);
    } catch (error) {
      if (!isAbort(error)) notifyProblem(`Bringing all together: ${sentenceOf(error)}`);
    } finally {
      setBusy(false);
    }
  };
  return { run, busy };
}
