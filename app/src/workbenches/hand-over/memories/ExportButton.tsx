import { Button, Checkbox, Popover, SegmentedControl } from '@mantine/core';
import { useState } from 'react';
import { RATES, type BundleRequest } from './bundle';

/** What is exported of a load, and how: rates, layout, width of the numbers. */
export function ExportButton({
  disabled,
  onSave,
}: {
  disabled: boolean;
  onSave: (options: Pick<BundleRequest, 'rates' | 'layout' | 'bits'>) => void;
}) {
  const [rates, setRates] = useState([48000]);
  const [layout, setLayout] = useState<BundleRequest['layout']>('one per channel');
  const [bits, setBits] = useState<32 | 64>(32);
  return (
    <Popover position="top-end" withArrow shadow="sm">
      <Popover.Target>
        <Button size="compact-sm" variant="default" disabled={disabled}>
          Filters and settings
        </Button>
      </Popover.Target>
      <Popover.Dropdown style={{ display: 'grid', gap: 9, width: 330, fontSize: 13 }}>
        <b>Sample rates</b>
        <div style={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr', gap: 6 }}>
          {RATES.map((rate) => (
            <Checkbox
              key={rate}
              size="xs"
              label={`${rate / 1000} kHz`}
              checked={rates.includes(rate)}
              onChange={(e) => {
                const on = e.currentTarget.checked;
                setRates((r) => (on ? [...r, rate].sort((a, b) => a - b) : r.filter((x) => x !== rate)));
              }}
            />
          ))}
        </div>
        <SegmentedControl
          size="xs"
          aria-label="Layout of the filters"
          data={[
            { value: 'one per channel', label: 'One file per channel' },
            { value: 'one file', label: 'All in one file' },
          ]}
          value={layout}
          onChange={(v) => setLayout(v as BundleRequest['layout'])}
        />
        <SegmentedControl
          size="xs"
          aria-label="Width of the numbers"
          data={[
            { value: '32', label: 'Float 32' },
            { value: '64', label: 'Float 64' },
          ]}
          value={String(bits)}
          onChange={(v) => setBits(v === '64' ? 64 : 32)}
        />
        <span className="quiet">
          One zip: filters as WAV and text, sections as list, CSV and JSON with biquads, delays and gains, and
          a README that tells the conventions.
        </span>
        <Button
          size="compact-md"
          disabled={rates.length === 0}
          onClick={() => onSave({ rates, layout, bits })}
        >
          Save zip
        </Button>
      </Popover.Dropdown>
    </Popover>
  );
}
