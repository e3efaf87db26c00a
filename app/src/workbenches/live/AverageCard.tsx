import { NativeSelect, Switch } from '@mantine/core';
import { BLOCK_LENGTHS, type Averaged, type Averaging } from '@pebble-hall/core/live';
import type { Project } from '@pebble-hall/core/project';
import { NumberField } from '../../parts/NumberField';
import { changeLive } from './changeLive';

const KINDS = [
  { value: 'exponential', label: 'the last' },
  { value: 'fixed', label: 'the first' },
  { value: 'for ever', label: 'all since restarted' },
];
const START: Record<Averaging['kind'], Averaging> = {
  exponential: { kind: 'exponential', seconds: 2 },
  fixed: { kind: 'fixed', blocks: 32 },
  'for ever': { kind: 'for ever' },
};

/** How long blocks are, and how they are averaged, over time and over measurements. */
export function AverageCard({ project }: { project: Project }) {
  const { averaging, blockLength, levels, average, measurements } = project.live;
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
        <NativeSelect
          size="xs"
          aria-label="Averaged over"
          data={KINDS}
          value={averaging.kind}
          onChange={(e) => setAveraging(START[e.currentTarget.value as Averaging['kind']])}
          style={{ flex: 1 }}
        />
        {averaging.kind === 'exponential' ? (
          <NumberField
            label="Averaging time"
            value={averaging.seconds}
            unit="s"
            min={0.1}
            max={120}
            step={0.5}
            width={72}
            onChange={(seconds) => setAveraging({ kind: 'exponential', seconds })}
          />
        ) : null}
        {averaging.kind === 'fixed' ? (
          <NumberField
            label="Number of blocks"
            value={averaging.blocks}
            unit="blocks"
            digits={0}
            min={1}
            max={10_000}
            step={1}
            width={92}
            onChange={(blocks) => setAveraging({ kind: 'fixed', blocks: Math.round(blocks) })}
          />
        ) : null}
      </div>
      <div className="row">
        <Switch
          size="xs"
          label="by power, for a microphone that moves"
          checked={levels === 'power'}
          onChange={(e) => {
            const next = e.currentTarget.checked ? 'power' : 'complex';
            void changeLive('levels by power', (live) => ({ ...live, levels: next }));
          }}
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
          value={average}
          onChange={(e) => {
            const next = e.currentTarget.value as Averaged;
            void changeLive('average of all', (live) => ({ ...live, average: next }));
          }}
        />
      </div>
    </section>
  );
}
