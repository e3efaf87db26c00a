import { Slider } from '@mantine/core';
import type { Correction } from '@pebble-hall/core/project';
import { NumberField } from '../../../parts/NumberField';
import { StrengthButton } from './StrengthButton';
import type { Edit } from '../useCorrection';

type HowMuchProps = Pick<Correction, 'strength' | 'strengthPoints' | 'maxBoostDb' | 'maxCutDb'> & {
  onEdit: Edit;
};

/** How far the correction goes: strength, and the limits of boost and cut. */
export function HowMuchCard({ strength, strengthPoints, maxBoostDb, maxCutDb, onEdit }: HowMuchProps) {
  'use memo';
  return (
    <section className="card" aria-label="How much">
      <h2>
        How much <StrengthButton strengthPoints={strengthPoints} onEdit={onEdit} />
      </h2>
      <div className="row">
        <span>Strength</span>
        <Slider
          style={{ flex: 1 }}
          thumbLabel="Strength slider"
          min={0}
          max={100}
          value={Math.round(100 * strength)}
          label={null}
          onChange={(value) => onEdit('strength', { strength: value / 100 }, false)}
          onChangeEnd={(value) => onEdit(`strength ${value} %`, { strength: value / 100 })}
        />
        <NumberField
          label="Strength"
          value={Math.round(100 * strength)}
          unit="%"
          min={0}
          max={100}
          step={5}
          digits={0}
          width={72}
          onChange={(value) => onEdit(`strength ${value} %`, { strength: value / 100 })}
        />
      </div>
      <div className="row">
        <span style={{ whiteSpace: 'nowrap' }}>Max boost</span>
        <NumberField
          label="Max boost"
          value={maxBoostDb}
          unit="dB"
          min={0}
          max={12}
          step={0.5}
          width={92}
          onChange={(value) => onEdit(`most boost ${value} dB`, { maxBoostDb: value })}
        />
        <span>cut</span>
        <NumberField
          label="Max cut"
          value={maxCutDb}
          unit="dB"
          min={0}
          max={30}
          step={1}
          width={92}
          onChange={(value) => onEdit(`most cut ${value} dB`, { maxCutDb: value })}
        />
      </div>
      <small className="quiet">
        Shallow dips are filled wholly, deep ones less and less; less again where spots disagree.
      </small>
    </section>
  );
}
