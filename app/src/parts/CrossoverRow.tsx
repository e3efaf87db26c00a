import { CROSSOVER_KINDS, CROSSOVER_ORDERS, type CrossoverFilter } from '@pebble-hall/core/path';
import type { ProcessorProfile } from '@pebble-hall/core/processing';
import { Select } from '@mantine/core';
import { theProcessor } from '../services/theProcessor';
import { NumberField } from './NumberField';

interface CrossoverRowProps {
  name: string;
  /** what it is called where its name alone does not tell; the name by default */
  label?: string;
  /** what no filter is called */
  none?: string;
  value: CrossoverFilter | null;
  onChange: (next: CrossoverFilter | null) => void;
}

/** What the processor offers, and what is set already even where it does not. */
const offered = ({ crossovers }: ProcessorProfile, now: CrossoverFilter | null, none: string) => [
  { value: 'none', label: none },
  ...CROSSOVER_KINDS.flatMap((kind) =>
    CROSSOVER_ORDERS[kind]
      .filter((order) => crossovers[kind]?.includes(order) || (now?.kind === kind && now.order === order))
      .map((order) => ({ value: `${kind} ${order}`, label: `${kind} ${6 * order} dB/oct` })),
  ),
];

/** One crossover filter: kind with slope, and frequency. */
export function CrossoverRow({ name, label = name, none = 'none', value, onChange }: CrossoverRowProps) {
  const choose = (choice: string | null) => {
    if (!choice) return;
    const [kind, order] = choice.split(/ (?=\d)/);
    onChange(
      choice === 'none'
        ? null
        : {
            kind: kind as CrossoverFilter['kind'],
            order: Number(order),
            frequency: value?.frequency ?? 80,
          },
    );
  };
  return (
    <div className="row">
      {name ? <span style={{ whiteSpace: 'nowrap' }}>{name}</span> : null}
      <span style={{ display: 'flex', gap: 6, marginLeft: 'auto' }}>
        <Select
          size="xs"
          w={174}
          aria-label={label}
          allowDeselect={false}
          data={offered(theProcessor().profile, value, none)}
          value={value ? `${value.kind} ${value.order}` : 'none'}
          onChange={choose}
        />
        <NumberField
          label={`${label} frequency`}
          value={value?.frequency ?? 80}
          unit="Hz"
          min={40}
          max={250}
          step={5}
          digits={0}
          width={76}
          disabled={!value}
          onChange={(frequency) => value && onChange({ ...value, frequency })}
        />
      </span>
    </div>
  );
}
