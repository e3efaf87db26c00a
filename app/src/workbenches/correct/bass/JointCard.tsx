import type { CrossoverFilter } from '@pebble-hall/core/path';
import { Button, SegmentedControl } from '@mantine/core';
import { crossingS, type Correction, type Loudspeaker } from '@pebble-hall/core/project';

import { useState } from 'react';
import { formatHz } from '../../../charts/chartMath';
import { designGround } from '@pebble-hall/core/jobs';
import { runJob } from '../../../services/jobs';
import { tell, tellProblem } from '../../../services/notify';
import { sentenceOf } from '../../../store';
import { mainOf, mainsOf, subsOf, type BassPageProps } from './bassProps';
import { withJoint } from '../shape/joinChannels';
import { crossoverGround, offeredCrossovers } from './useCrossover';

const SEARCHED: Pick<CrossoverFilter, 'kind' | 'order'>[] = [
  { kind: 'Linkwitz-Riley', order: 4 },
  { kind: 'Butterworth', order: 2 },
  { kind: 'Linkwitz-Riley', order: 8 },
];

/** How well a channel and the subwoofers add up over all spots, and the search for what makes them. */
export function JointCard(props: BassPageProps) {
  const { project, correction, mainId, filters, reading, problem, onEdit } = props;
  const [work, setWork] = useState(false);
  const [whole, setWhole] = useState(false);
  const main = mainOf(props);
  const search = async (crossoverToo: boolean) => {
    if (!filters || !reading) return;
    setWork(true);
    try {
      const ids = whole ? mainsOf(project).map((l) => l.id) : [mainId];
      const first = crossoverToo ? opened(correction, subsOf(project)) : correction;
      const grounds = await Promise.all(
        ids.map((id) =>
          crossoverGround({ ground: designGround(project), correction: first, filters, mainId: id }),
        ),
      );
      const offered = crossoverToo
        ? offeredCrossovers(
            SEARCHED,
            ids.flatMap((id) => filters.designs.get(id)?.rollOffs.low?.cornerHz ?? []),
          )
        : null;
      const asked = grounds.map(({ request, setting }) => ({ request, setting }));
      const mostDelayS = searchedS(project, correction);
      const best = await runJob('design.alignCrossover', { asked, offered, mostDelayS });
      if (best.efficiency === null)
        throw new Error(
          'with none of the crossovers offered do the two share a band. Choose one by hand, or measure at other spots.',
        );
      const channels = whole ? 'All full-range channels' : main.name;
      onEdit(`joint of ${whole ? 'all full-range channels' : main.name} and the subwoofers`, (now) =>
        withJoint(crossoverToo ? opened(now, subsOf(project)) : now, best, {
          mains: mainsOf(project).map((l) => l.id),
          subs: subsOf(project).map((l) => l.id),
          crossed: crossoverToo ? ids : [],
        }),
      );
      tell(
        `${channels} and the subwoofers reach ${Math.round(100 * best.efficiency)} % of a perfect sum with ${(1000 * Math.abs(best.subDelayS)).toFixed(2)} ms more on ${best.subDelayS >= 0 ? 'the subwoofers' : 'all other channels'}${best.subInverted ? ', subwoofers inverted' : ''}.${best.atEdge ? ` It lies at the edge of the ${(1000 * mostDelayS).toFixed(0)} ms that were searched: check positions and delays.` : ''}`,
      );
    } catch (error) {
      tellProblem(sentenceOf(error));
    } finally {
      setWork(false);
    }
  };
  return (
    <section className="card" aria-label="Joint">
      <h2>
        Joint with the subwoofers
        <SegmentedControl
          size="xs"
          aria-label="Whose joint is looked for"
          data={[
            { value: 'one', label: main.name },
            { value: 'all', label: 'all channels' },
          ]}
          value={whole ? 'all' : 'one'}
          onChange={(v) => setWhole(v === 'all')}
        />
      </h2>
      {reading ? (
        reading.efficiency === null || !reading.band ? (
          <span className="attention">
            There is no band where both are within 10 dB of each other: nothing to join.
          </span>
        ) : (
          <span>
            <b className="mono">{Math.round(100 * reading.efficiency)} %</b> of a perfect in-phase sum (
            {(20 * Math.log10(reading.efficiency)).toFixed(1).replace('-', '\u2212')} dB), shared band{' '}
            {formatHz(reading.band.from)} to {formatHz(reading.band.to)}, mean over the spots.
          </span>
        )
      ) : (
        <span className="quiet">{problem ? '' : 'Follows when the filters are made …'}</span>
      )}
      <div style={{ display: 'flex', gap: 8 }}>
        <Button size="compact-sm" loading={work} disabled={!reading} onClick={() => void search(false)}>
          Find delay and polarity
        </Button>
        <Button
          size="compact-sm"
          variant="default"
          loading={work}
          disabled={!reading}
          onClick={() => void search(true)}
        >
          Crossover too
        </Button>
      </div>
      <small className="quiet">
        Complex sum at every spot, with filters, levels and delays as they are now
        {`. Delays are searched up to ${(1000 * searchedS(project, correction)).toFixed(0)} ms to either side`}
        {reading && !reading.sent ? `, as if ${main.name} played on the subwoofers too` : ''}.
      </small>
    </section>
  );
}

/** How far to either side delays are searched, seconds: across the place, and what delays are set apart already. */
function searchedS({ place }: BassPageProps['project'], { alignment }: Correction): number {
  const delays = Object.values(alignment).map((a) => a.delayMs);
  return crossingS(place) + Math.max(0, ...delays) / 1000;
}

/** The correction with the subwoofers' own low-pass taken away: every channel brings one for its bass. */
const opened = (correction: Correction, subs: Loudspeaker[]): Correction => ({
  ...correction,
  crossovers: {
    ...correction.crossovers,
    ...Object.fromEntries(
      subs.map((l): [string, { highPass: CrossoverFilter | null; lowPass: CrossoverFilter | null }] => [
        l.id,
        { highPass: null, lowPass: null },
      ]),
    ),
  },
});
