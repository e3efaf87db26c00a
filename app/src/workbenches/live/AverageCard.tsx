import { memo } from 'react';
import { NativeSelect } from '@mantine/core';
import { BLOCK_LENGTHS, type Averaged, type Averaging, type BlockWeighting } from '@pebble-hall/core/live';
import type { Project } from '@pebble-hall/core/project';
import { averagedOf } from '../../services/liveSettings';
import { AveragingFields } from './AveragingFields';
import { changeLive } from './changeLive';

const WEIGHTINGS: { value: BlockWeighting; label: string }[] = [
  { value: 'complex', label: 'all alike' },
  { value: 'power', label: 'by power: a microphone that moves' },
  { value: 'coherence', label: 'by coherence: people and noise about' },
];
/** How long blocks are, and how they are averaged, over time and over measurements. */
export const AverageCard = memo(function AverageCard({ project }: { project: Project }) {
  const { averaging, blockLength, levels, measurements } = project.live;
  const setAveraging = (next: Averaging) =>
    void changeLive('averaging', (live) => ({ ...live, averaging: next }));
  return (
    <section className="card" aria-label="Averages">
      <h2>
        Averages <small>{blockLength === 'merged' ? 'long in the lows, short in the highs' : ''}</small>
      </h2>
      <div className="row">
        <span style={{ width: 62 }}>Blocks</span>
        <NativeSelect
          size="xs"
          aria-label="Length of blocks"
          data={[
            { value: 'merged', label: 'merged' },
            ...BLOCK_LENGTHS.map((n) => ({ value: String(n), label: `${n / 1024} k` })),
          ]}
          value={String(blockLength)}
          onChange={(e) => {
            const { value } = e.currentTarget;
            void changeLive('length of blocks', (live) => ({
              ...live,
              blockLength: value === 'merged' ? value : Number(value),
            }));
          }}
          style={{ flex: 1 }}
        />
      </div>
      <div className="row">
        <span style={{ width: 62 }}>Over</span>
        <AveragingFields of="" averaging={averaging} onChange={(next) => next && setAveraging(next)} />
      </div>
      <div className="row">
        <span style={{ width: 62 }}>Counting</span>
        <NativeSelect
          size="xs"
          aria-label="How blocks count"
          data={WEIGHTINGS}
          value={levels}
          onChange={(e) => {
            const next = e.currentTarget.value as BlockWeighting;
            void changeLive('how blocks count', (live) => ({ ...live, levels: next }));
          }}
          style={{ flex: 1, minWidth: 0 }}
        />
      </div>
      <div className="row">
        <span>{measurements.length < 2 ? 'Together' : `All ${measurements.length} together`}</span>
        <NativeSelect
          size="xs"
          aria-label="Average of all"
          w={150}
          disabled={measurements.length < 2}
          data={[
            { value: 'none', label: 'not averaged' },
            { value: 'power', label: 'by power' },
            { value: 'complex', label: 'complex' },
            { value: 'coherence', label: 'by coherence' },
          ]}
          value={averagedOf(project.live)}
          onChange={(e) => {
            const next = e.currentTarget.value as Averaged;
            void changeLive('average of all', (live) => ({ ...live, average: next }));
          }}
        />
      </div>
    </section>
  );
});
