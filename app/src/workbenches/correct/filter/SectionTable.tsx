import { SHAPING_KINDS, type Section, type ShapingKind } from '@pebble-hall/core/path';
import { theProcessor } from '../../../services/theProcessor';
import { ActionIcon, Button, Select } from '@mantine/core';

import { IconTrash } from '../../../icons';
import { NumberField } from '../../../parts/NumberField';
import { TableMenu } from '../../../parts/TableMenu';

interface SectionTableProps {
  channel: string;
  /** null while they are being fitted */
  sections: Section[] | null;
  byHand: boolean;
  /** null: fit them again */
  onChange: (label: string, sections: Section[] | null) => void;
}

/** The sections of one channel, each to be changed by hand; from then on they stay as they are. */
export function SectionTable({ channel, sections, byHand, onChange }: SectionTableProps) {
  const set = (i: number, next: Partial<Section>) =>
    onChange(
      `section ${i + 1} of ${channel}`,
      sections!.map((s, k) => (k === i ? { ...s, ...next } : s)),
    );
  return (
    <section className="card" aria-label="Sections">
      <h2>
        Sections <small>{byHand ? 'by hand' : 'fitted'}</small>
        <span style={{ display: 'flex', gap: 5 }}>
          <TableMenu
            table={() => ({
              title: `Sections of ${channel}`,
              columns: ['Section', 'Kind', 'Frequency (Hz)', 'Gain (dB)', 'Q'],
              rows: (sections ?? []).map((s, i) => [
                String(i + 1),
                s.kind,
                String(s.frequency),
                String(s.gainDb),
                String(s.q),
              ]),
            })}
          />
          <Button
            size="compact-xs"
            variant="default"
            disabled={!sections || sections.length >= theProcessor().profile.mostSections}
            onClick={() =>
              onChange(`section added to ${channel}`, [
                ...sections!,
                { kind: 'peak', frequency: 1000, gainDb: -1, q: 2 },
              ])
            }
          >
            Add
          </Button>
          <Button
            size="compact-xs"
            variant="default"
            disabled={!byHand}
            onClick={() => onChange(`sections of ${channel} fitted again`, null)}
          >
            Fit again
          </Button>
        </span>
      </h2>
      {/* as high as the cards beside it, and no higher */}
      <div
        className="compact-fields tight"
        style={{
          overflow: 'auto',
          display: 'grid',
          alignContent: 'start',
          gap: 4,
          flex: '1 1 104px',
          height: 104,
        }}
      >
        {sections === null ? <span className="quiet">Being fitted …</span> : null}
        {sections?.length === 0 ? <span className="quiet">None is needed.</span> : null}
        {(sections ?? []).map((s, i) => (
          <div key={i} className="row" style={{ gap: 4 }}>
            <Select
              size="xs"
              w={82}
              aria-label={`Kind of section ${i + 1}`}
              allowDeselect={false}
              data={[...SHAPING_KINDS]}
              value={s.kind}
              onChange={(kind) => kind && set(i, { kind: kind as ShapingKind })}
            />
            <NumberField
              label={`Frequency of section ${i + 1}`}
              value={s.frequency}
              unit="Hz"
              min={20}
              max={20000}
              step={theProcessor().profile.frequencyStepHz}
              digits={0}
              width={76}
              onChange={(frequency) => set(i, { frequency })}
            />
            <NumberField
              label={`Gain of section ${i + 1}`}
              value={s.gainDb}
              unit="dB"
              min={theProcessor().profile.leastSectionDb}
              max={theProcessor().profile.mostSectionDb}
              step={theProcessor().profile.gainStepDb}
              width={80}
              onChange={(gainDb) => set(i, { gainDb })}
            />
            <NumberField
              label={`Q of section ${i + 1}`}
              value={s.q}
              unit="Q"
              min={0.1}
              max={40}
              step={0.1}
              digits={2}
              width={68}
              onChange={(q) => set(i, { q })}
            />
            <ActionIcon
              size="sm"
              variant="default"
              aria-label={`Remove section ${i + 1}`}
              onClick={() =>
                onChange(
                  `section ${i + 1} of ${channel} removed`,
                  sections!.filter((_, k) => k !== i),
                )
              }
            >
              <IconTrash size={14} />
            </ActionIcon>
          </div>
        ))}
      </div>
    </section>
  );
}
