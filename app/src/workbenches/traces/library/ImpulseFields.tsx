import { NativeSelect } from '@mantine/core';
import { timeZeroOf, type TimeZero } from '@pebble-hall/core/traces';
import { NumberField } from '../../../parts/NumberField';
import type { Candidate } from './importFiles';

const ZEROS: { value: TimeZero['by']; label: string }[] = [
  { value: 'onset', label: 'where it sets in' },
  { value: 'peak', label: 'its peak' },
  { value: 'beginning', label: 'its beginning' },
  { value: 'hand', label: 'by hand' },
];

interface Props {
  candidate: Candidate;
  onChange: (candidate: Candidate) => void;
}

/** An impulse response before it is imported: its rate where the file does not say it, and where time zero lies. */
export function ImpulseFields({ candidate, onChange }: Props) {
  const { impulse, zero, fileName } = candidate;
  const { channels, rate, rateIsKnown, saidZero } = impulse!;
  const zeroS = timeZeroOf(channels[0]!, rate, zero) / rate;
  return (
    <div style={{ display: 'flex', gap: 12, alignItems: 'center', flexWrap: 'wrap' }}>
      <span>
        Impulse response, {channels.length === 1 ? 'one channel' : `${channels.length} channels`} of{' '}
        {(channels[0]!.length / rate).toFixed(3)} s
      </span>
      {rateIsKnown ? (
        <span>at {rate / 1000} kHz</span>
      ) : (
        <NumberField
          label={`Rate of ${fileName}`}
          value={rate}
          unit="Hz"
          digits={0}
          min={8000}
          max={768_000}
          step={100}
          width={120}
          onChange={(next) => onChange({ ...candidate, impulse: { ...impulse!, rate: next } })}
        />
      )}
      <span>Time zero</span>
      <NativeSelect
        size="xs"
        aria-label={`Time zero of ${fileName}`}
        data={ZEROS}
        value={zero.by}
        onChange={(e) => {
          const by = e.currentTarget.value as TimeZero['by'];
          onChange({ ...candidate, zero: by === 'hand' ? { by, seconds: zeroS } : { by } });
        }}
      />
      <NumberField
        label={`Time zero of ${fileName} in ms`}
        value={1000 * zeroS}
        unit="ms"
        digits={3}
        min={0}
        max={(1000 * channels[0]!.length) / rate}
        step={0.1}
        width={104}
        onChange={(ms) => onChange({ ...candidate, zero: { by: 'hand', seconds: ms / 1000 } })}
      />
      <span className="quiet">
        {saidZero === null
          ? 'Absolute time is not known; level is that of the file.'
          : 'The file says where its time zero lies; level is that of the file.'}
      </span>
    </div>
  );
}
