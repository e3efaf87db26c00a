import { Button, SegmentedControl } from '@mantine/core';

import { useState } from 'react';
import { formatHz } from '../../../charts/chartMath';
import { notify, notifyProblem } from '../../../services/notify';
import { sentenceOf } from '../../../store';
import { mainOf, mainsOf, type BassPageProps } from './bassProps';
import { alignCrossovers, searchedS } from '../steps/takeSteps';

/** How well a channel and the subwoofers add up over all spots, and the search for what makes them. */
export function AlignmentCard(props: BassPageProps) {
  const { project, correction, mainId, filters, reading, problem, onEdit } = props;
  const [work, setWork] = useState(false);
  const [whole, setWhole] = useState(false);
  const main = mainOf(props);
  const search = async (crossoverToo: boolean) => {
    if (!filters || !reading) return;
    setWork(true);
    try {
      const ids = whole ? mainsOf(project).map((l) => l.id) : [mainId];
      const best = await alignCrossovers(onEdit, filters, ids, crossoverToo);
      const channels = whole ? 'All full-range channels' : main.name;
      notify(
        `${channels} and the subwoofers reach ${Math.round(100 * best.efficiency)} % of a perfect sum with ${(1000 * Math.abs(best.subDelayS)).toFixed(2)} ms more on ${best.subDelayS >= 0 ? 'the subwoofers' : 'all other channels'}${best.subInverted ? ', subwoofers inverted' : ''}.${best.atEdge ? ` It lies at the edge of the ${(1000 * best.mostDelayS).toFixed(0)} ms that were searched: check positions and delays.` : ''}`,
      );
    } catch (error) {
      notifyProblem(sentenceOf(error));
    } finally {
      setWork(false);
    }
  };
  return (
    <section className="card" aria-label="Crossover alignment">
      <h2>
        Crossover to the subwoofers
        <SegmentedControl
          size="xs"
          aria-label="Whose crossover is aligned"
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
            There is no band where both are within 10 dB of each other: nothing to align.
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
