import { NativeSelect } from '@mantine/core';
import type { Averaging } from '@pebble-hall/core/live';
import { NumberField } from '../../parts/NumberField';

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
const AS_ALL = 'as all';

interface Props {
  /** what is averaged, for those who cannot see it: what labels end in; empty where there is but one */
  of: string;
  /** null for as all of them are averaged, where that can be chosen */
  averaging: Averaging | null;
  /** whether it can be left to what holds for all */
  mayFollow?: boolean;
  onChange: (next: Averaging | null) => void;
}

/** Over what time something is averaged: a choice, and its number where it has one. */
export function AveragingFields({ of, averaging, mayFollow = false, onChange }: Props) {
  const label = (what: string) => (of ? `${what} of ${of}` : what);
  return (
    <>
      <NativeSelect
        size="xs"
        aria-label={label('Averaged over')}
        data={mayFollow ? [{ value: AS_ALL, label: 'as all are' }, ...KINDS] : KINDS}
        value={averaging?.kind ?? AS_ALL}
        onChange={(e) => {
          const { value } = e.currentTarget;
          onChange(value === AS_ALL ? null : START[value as Averaging['kind']]);
        }}
        style={{ flex: 1, minWidth: 0 }}
      />
      {averaging?.kind === 'exponential' ? (
        <NumberField
          label={label('Averaging time')}
          value={averaging.seconds}
          unit="s"
          min={0.1}
          max={120}
          step={0.5}
          width={72}
          onChange={(seconds) => onChange({ kind: 'exponential', seconds })}
        />
      ) : null}
      {averaging?.kind === 'fixed' ? (
        <NumberField
          label={label('Number of blocks')}
          value={averaging.blocks}
          unit="blocks"
          digits={0}
          min={1}
          max={10_000}
          step={1}
          width={92}
          onChange={(blocks) => onChange({ kind: 'fixed', blocks: Math.round(blocks) })}
        />
      ) : null}
    </>
  );
}
