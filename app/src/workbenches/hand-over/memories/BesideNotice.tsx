import { Button } from '@mantine/core';
import type { SettingChange } from '@pebble-hall/core/processing';
import { besideLines, besideSummary } from './besideWords';

interface BesideNoticeProps {
  letter: string;
  beside: SettingChange[];
  nameOf: (output: number) => string;
  onPutBack: () => void;
}

/** What the processor changed beside the filters when they were loaded, and the way back. */
export function BesideNotice({ letter, beside, nameOf, onPutBack }: BesideNoticeProps) {
  return (
    <div className="notice" role="group" aria-label="Changed beside the filters" style={{ margin: 0 }}>
      <div style={{ minWidth: 0, flex: 1 }}>
        Beside the filters, the processor changed {beside.length}{' '}
        {beside.length === 1 ? 'setting' : 'settings'} of memory {letter}: {besideSummary(beside, nameOf)}.
        <ul style={{ margin: '4px 0 0', paddingLeft: 18, maxHeight: 57, overflowY: 'auto' }}>
          {besideLines(beside, nameOf).map((line) => (
            <li key={line}>
              <small>{line}</small>
            </li>
          ))}
        </ul>
      </div>
      <Button size="compact-sm" onClick={onPutBack}>
        Put back
      </Button>
    </div>
  );
}
