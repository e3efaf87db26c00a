import { Button, Menu, NativeSelect } from '@mantine/core';
import type { Project } from '@pebble-hall/core/project';
import { useState } from 'react';
import type { SeenTrace } from '../../../services/libraryCurves';
import { notifyProblem } from '../../../services/notify';
import { sentenceOf } from '../../../store';
import { EXPORT_RATES, EXPORTS, exportTraces } from './exportTraces';

interface Props {
  project: Project;
  ids: readonly string[];
  seen: ReadonlyMap<string, SeenTrace>;
}

/** What is chosen goes out: as text, or as impulse responses at a rate. */
export function ExportMenu({ project, ids, seen }: Props) {
  const [rate, setRate] = useState<number>(48_000);
  return (
    <Menu position="top-end" shadow="sm">
      <Menu.Target>
        <Button size="compact-sm" variant="default" disabled={ids.length === 0}>
          Export
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        {EXPORTS.map((as) => (
          <Menu.Item
            key={as}
            disabled={as.startsWith('All in one') && ids.length < 2}
            onClick={() =>
              void exportTraces(project, ids, seen, as, rate).catch((error: unknown) =>
                notifyProblem(`Nothing was exported: ${sentenceOf(error)}`),
              )
            }
          >
            {as}
          </Menu.Item>
        ))}
        <Menu.Divider />
        <div style={{ padding: '2px 12px 6px' }}>
          <NativeSelect
            size="xs"
            aria-label="Rate of impulse responses"
            data={EXPORT_RATES.map((r) => ({ value: String(r), label: `at ${r / 1000} kHz` }))}
            value={String(rate)}
            onChange={(e) => setRate(Number(e.currentTarget.value))}
          />
        </div>
      </Menu.Dropdown>
    </Menu>
  );
}
