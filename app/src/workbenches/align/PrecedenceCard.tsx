import { Button } from '@mantine/core';
import { delayForOffset, LEADS_DB, LEADS_S, notLed, type HeardTwo } from '@pebble-hall/core/alignment';
import type { AlignSource, AlignStep } from '@pebble-hall/core/project';
import { useState } from 'react';
import { NumberField } from '../../parts/NumberField';
import type { AlignedPoint } from '../../services/alignSources';
import { heardWords } from '../../words/alignWords';
import { changeSource } from './changeAlign';

interface Props {
  step: AlignStep;
  moved: AlignSource;
  /** what it follows, by name */
  still: string;
  points: readonly AlignedPoint[];
  /** at each point */
  heard: readonly HeardTwo[];
  /** index of the one that is shown */
  chosen: number;
}

const START_MS = 12;

/** From where it is heard: how much later a source comes than the others, and at how many seats these still lead. */
export function PrecedenceCard({ step, moved, still, points, heard, chosen }: Props) {
  const [offsetMs, setOffset] = useState(START_MS);
  const here = heard[chosen];
  const seats = points.map((point, i) => ({ point, why: notLed(heard[i]!) }));
  const led = seats.filter((s) => s.why === null).length;
  const count = (why: string) => seats.filter((s) => s.why === why).length;
  const others = (
    [
      ['first', 'it comes before them or with them'],
      ['too late', `later than ${1000 * LEADS_S.to} ms`],
      ['too loud', `over ${LEADS_DB} dB louder`],
    ] as const
  )
    .filter(([why]) => count(why) > 0)
    .map(([why, said]) => `at ${count(why)} ${said}`);
  return (
    <section aria-label="Who is heard first" style={{ display: 'grid', gap: 6 }}>
      <h2>Who is heard first</h2>
      {here ? <span>{heardWords(moved.name, still, here, points[chosen]!.name)}</span> : null}
      <span className="quiet">
        At {led} of {seats.length} places the sound seems to come from {still}
        {others.length > 0 ? `; elsewhere ${others.join(', ')}` : ''}. By Haas 1951: {moved.name} has to come{' '}
        {1000 * LEADS_S.from} to {1000 * LEADS_S.to} ms later and be no more than {LEADS_DB} dB louder, from
        500 Hz to 4 kHz.
      </span>
      <div className="row" style={{ gap: 6 }}>
        <NumberField
          label="Offset"
          value={offsetMs}
          unit="ms"
          digits={1}
          min={-100}
          max={100}
          step={1}
          width={84}
          onChange={setOffset}
        />
        <Button
          size="compact-xs"
          variant="default"
          disabled={!here || moved.id === step.referenceId}
          onClick={() =>
            here &&
            void changeSource(`${moved.name} ${offsetMs} ms after`, step.id, moved.id, {
              delayS: Number(delayForOffset(moved.delayS, here.laterS, offsetMs / 1000).toFixed(6)),
            })
          }
        >
          Come so much later here
        </Button>
      </div>
    </section>
  );
}
