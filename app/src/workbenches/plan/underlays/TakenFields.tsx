import { SegmentedControl, Select } from '@mantine/core';
import { DRAWING_UNITS, type Up } from '@pebble-hall/core/drawings';
import { UNIT_NAMES, unitName } from '../../../words/modelReport';

interface TakenFieldsProps {
  unitM: number;
  up: Up;
  onChange: (taken: { unitM?: number; up?: Up }) => void;
}

const UNITS = (Object.keys(DRAWING_UNITS) as (keyof typeof DRAWING_UNITS)[]).map((u) => ({
  value: String(DRAWING_UNITS[u]),
  label: UNIT_NAMES[u],
}));

/** In which unit a model is, and which of its axes points up. */
export function TakenFields({ unitM, up, onChange }: TakenFieldsProps) {
  const value = String(unitM);
  const other = UNITS.some((u) => u.value === value) ? [] : [{ value, label: unitName(unitM) }];
  return (
    <>
      <div className="row">
        <span>Its unit</span>
        <Select
          aria-label="Unit of the drawing"
          size="xs"
          w={150}
          allowDeselect={false}
          data={[...UNITS, ...other]}
          value={value}
          onChange={(v) => v && onChange({ unitM: Number(v) })}
        />
      </div>
      <div className="row">
        <span>Axis that points up</span>
        <SegmentedControl
          aria-label="Axis that points up"
          size="xs"
          data={['y', 'z']}
          value={up}
          onChange={(v) => onChange({ up: v as Up })}
        />
      </div>
    </>
  );
}
