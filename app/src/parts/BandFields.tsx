import { NumberField } from './NumberField';

interface BandFieldsProps {
  /** what the two fields are called by those who hear them */
  names: [from: string, to: string];
  band: { from: number; to: number };
  min: number;
  max?: number;
  step?: number;
  /** the upper end is at least so many times the lower one */
  least: number;
  width?: number;
  onChange: (band: { from: number; to: number }) => void;
}

/** The two ends of a band of frequencies, Hz: the upper one stays above the lower one. */
export const BandFields = ({
  names: [from, to],
  band,
  min,
  max = 20_000,
  step = 5,
  least,
  width = 84,
  onChange,
}: BandFieldsProps) => {
  const field = { unit: 'Hz', digits: 0, step, width };
  return (
    <>
      <NumberField
        {...field}
        label={from}
        value={band.from}
        min={min}
        max={band.to / least}
        onChange={(value) => onChange({ ...band, from: value })}
      />
      to
      <NumberField
        {...field}
        label={to}
        value={band.to}
        min={band.from * least}
        max={max}
        onChange={(value) => onChange({ ...band, to: value })}
      />
    </>
  );
};
