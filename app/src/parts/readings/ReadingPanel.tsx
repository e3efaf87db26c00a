import { Button, NativeSelect, Switch, TextInput } from '@mantine/core';
import { nothingPublished, type Reading } from '@pebble-hall/core/project';
import { mirrorApart, qOfOctaves, type Shape, type ShapeReading } from '@pebble-hall/core/shapes';
import { Fragment } from 'react';
import { formatHz, signedDb } from '../../charts/chartMath';
import { changeReading, removeReading } from '../../services/readings';
import type { DerivedState } from '../../services/useDerived';
import { shapeSentence } from '../../words/shapeWords';
import { BandFields } from '../BandFields';
import { NumberField } from '../NumberField';
import { TableMenu } from '../TableMenu';
import { PublishedField } from './PublishedField';
import {
  differenceText,
  figureText,
  readingData,
  readingSentence,
  rowsOf,
  VERDICTS,
  withinText,
  type ReadRow,
} from './readingTable';
import { WantedFields } from './WantedFields';

const MOST_WANTED = 12;
const RATES = [
  { value: '', label: 'of a circuit' },
  ...[44_100, 48_000, 96_000].map((r) => ({ value: String(r), label: `digital, at ${r / 1000} kHz` })),
];
const LEFT = { textAlign: 'left' } as const;
const LEFT_ONES = ['Figure', 'Published', 'Tolerance', 'Verdict'];
const COLOURS = { inside: 'var(--kelp)', outside: 'var(--buoy)', 'not sure': 'var(--soft)' };

interface Props {
  reading: Reading;
  found: DerivedState<ShapeReading>;
  /** what the other readings of its family found */
  family: { name: string; shapes: Shape[] }[];
}

/** What shapes a curve has, held against what is published: looked for here, found, compared, taken along as a table. */
export function ReadingPanel({ reading, found, family }: Props) {
  const { id } = reading;
  const set = (label: string, change: Partial<Reading>) =>
    void changeReading(label, id, (r) => ({ ...r, ...change }));
  const { value } = found;
  const rows = value ? rowsOf(reading, value) : [];
  const replaced = <T,>(list: readonly T[], i: number, by: T) => list.map((v, k) => (k === i ? by : v));
  return (
    <section
      aria-label="Shapes read from the curve"
      style={{
        overflow: 'auto',
        padding: '6px 14px 10px',
        display: 'flex',
        flexDirection: 'column',
        gap: 8,
        fontSize: 13,
      }}
    >
      <div style={{ display: 'flex', gap: 8, alignItems: 'center', flexWrap: 'wrap' }}>
        <TextInput
          size="xs"
          aria-label="Name of the reading"
          key={reading.name}
          defaultValue={reading.name}
          maxLength={180}
          w={150}
          onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
          onBlur={(e) => {
            const name = e.currentTarget.value.trim();
            if (name !== '' && name !== reading.name) set('name of a reading', { name });
          }}
        />
        <BandFields
          names={['Read from', 'Read to']}
          band={{ from: reading.from, to: reading.to }}
          min={20}
          least={1.3}
          width={82}
          onChange={({ from, to }) => set('band of a reading', { from, to })}
        />
        <NativeSelect
          size="xs"
          aria-label="What makes the shapes"
          w={132}
          data={RATES}
          value={reading.rate === null ? '' : String(reading.rate)}
          onChange={(e) =>
            set('what makes the shapes', {
              rate: e.currentTarget.value === '' ? null : Number(e.currentTarget.value),
            })
          }
        />
        <Switch
          size="xs"
          label="any level"
          title="Whether a level that is the same everywhere is found along, or held at 0 dB"
          checked={reading.levelIsFree}
          onChange={(e) => set('level of a reading', { levelIsFree: e.currentTarget.checked })}
        />
        <TextInput
          size="xs"
          aria-label="Family of the reading"
          placeholder="Family"
          key={`family ${reading.family}`}
          defaultValue={reading.family}
          maxLength={100}
          w={76}
          onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
          onBlur={(e) => {
            const name = e.currentTarget.value.trim();
            if (name !== reading.family) set('family of a reading', { family: name });
          }}
        />
        <span style={{ flex: 1 }} />
        <Button
          size="compact-xs"
          variant="default"
          disabled={reading.wanted.length >= MOST_WANTED}
          onClick={() =>
            set('shape added', {
              wanted: [...reading.wanted, { kind: 'peaking' }],
              published: [...reading.published, nothingPublished()],
            })
          }
        >
          Add a shape
        </Button>
        {value ? <TableMenu table={() => readingData(reading, value)} /> : null}
        <Button size="compact-xs" variant="subtle" color="gray" onClick={() => void removeReading(id)}>
          Remove
        </Button>
      </div>
      <output aria-label="What was read">
        {found.problem
          ? found.problem
          : value
            ? readingSentence(reading, value)
            : found.busy
              ? 'Reading the curve …'
              : 'No curve to read yet.'}
        {value ? familySentences(value, family).map((s) => <span key={s}> {s}</span>) : null}
      </output>
      <table className="figures" style={{ width: '100%' }}>
        <thead>
          <tr>
            {['Shape', 'Figure', 'Published', 'Found', 'Within', 'Difference', 'Tolerance', 'Verdict'].map(
              (c) => (
                <th key={c} scope="col" style={LEFT_ONES.includes(c) ? LEFT : undefined}>
                  {c}
                </th>
              ),
            )}
          </tr>
        </thead>
        <tbody>
          {reading.wanted.map((wanted, w) => {
            const own = rows.filter((r) => r.shape === w);
            const label = `Shape ${w + 1}`;
            const fields = (
              <WantedFields
                label={label}
                wanted={wanted}
                onChange={(next) =>
                  set('shape that is looked for', { wanted: replaced(reading.wanted, w, next) })
                }
                onRemove={
                  reading.wanted.length > 1
                    ? () =>
                        set('shape no longer looked for', {
                          wanted: reading.wanted.filter((_, i) => i !== w),
                          published: reading.published.filter((_, i) => i !== w),
                        })
                    : null
                }
              />
            );
            if (own.length === 0)
              return (
                <tr key={w}>
                  <td style={{ textAlign: 'left' }}>{fields}</td>
                  <td colSpan={7} />
                </tr>
              );
            const next = value!.shapes[w]!.nextBest;
            return (
              <Fragment key={w}>
                {own.map((row, i) => (
                  <tr key={row.figure}>
                    {i === 0 ? (
                      <td rowSpan={own.length} style={{ textAlign: 'left', verticalAlign: 'top' }}>
                        {fields}
                        {next ? (
                          <small className="quiet">
                            next best: {shapeSentence(next.shape)}, which would leave {next.left.toFixed(2)}{' '}
                            {wanted.kind === 'all-pass' ? '°' : 'dB'}
                          </small>
                        ) : null}
                      </td>
                    ) : null}
                    <th scope="row">{row.figure}</th>
                    <td style={LEFT}>
                      <Published
                        label={`${label}: published ${row.figure}`}
                        row={row}
                        onChange={(change) =>
                          set('published figure', {
                            published: replaced(reading.published, w, {
                              ...reading.published[w]!,
                              ...change,
                            }),
                          })
                        }
                      />
                    </td>
                    <td className="mono">{figureText(row.figure, row.found)}</td>
                    <td className="mono">{withinText(row)}</td>
                    <td className="mono">{differenceText(row)}</td>
                    <td style={LEFT}>
                      {w === 0 ? <Tolerance reading={reading} row={row} onChange={set} /> : null}
                    </td>
                    <td
                      style={{
                        ...LEFT,
                        color: row.verdict ? COLOURS[row.verdict] : undefined,
                        fontWeight: 600,
                      }}
                    >
                      {row.verdict ? VERDICTS[row.verdict] : ''}
                    </td>
                  </tr>
                ))}
              </Fragment>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}

/** Boosts and cuts of a knob belong together: how far each is from mirroring this one. */
function familySentences(value: ShapeReading, family: Props['family']): string[] {
  const own = value.shapes.map((f) => f.shape);
  return family.flatMap(({ name, shapes }) => {
    const gains = [own, shapes].map((all) => all.reduce((sum, s) => sum + ('gainDb' in s ? s.gainDb : 0), 0));
    if (!(gains[0]! * gains[1]! < 0)) return [];
    const apart = mirrorApart(own, shapes);
    return [
      `Against ${name} it is a mirror image within ${Math.abs(apart.db).toFixed(2)} dB${Math.abs(apart.db) < 0.05 ? '' : `, most at ${formatHz(apart.hz)} (${signedDb(apart.db, 2)} dB)`}.`,
    ];
  });
}

interface PublishedProps {
  label: string;
  row: ReadRow;
  onChange: (change: Partial<Reading['published'][number]>) => void;
}

function Published({ label, row: { figure, published }, onChange }: PublishedProps) {
  const field = { label, value: published };
  switch (figure) {
    case 'frequency':
      return <PublishedField {...field} unit="Hz" min={1} max={1e5} onChange={(hz) => onChange({ hz })} />;
    case 'gain':
      return (
        <PublishedField {...field} unit="dB" min={-60} max={60} onChange={(gainDb) => onChange({ gainDb })} />
      );
    case 'q':
      return <PublishedField {...field} unit="" min={0.05} max={200} onChange={(q) => onChange({ q })} />;
    case 'bandwidth':
      return (
        <PublishedField
          {...field}
          unit="oct"
          min={0.01}
          max={12}
          onChange={(octaves) => onChange({ q: octaves === null ? null : qOfOctaves(octaves) })}
        />
      );
    case 'order':
      return (
        <PublishedField
          {...field}
          unit=""
          min={1}
          max={12}
          onChange={(order) => onChange({ order: order === null ? null : Math.round(order) })}
        />
      );
  }
}

interface ToleranceProps {
  reading: Reading;
  row: ReadRow;
  onChange: (label: string, change: Partial<Reading>) => void;
}

/** How far the figures of all shapes may be off. */
function Tolerance({ reading: { tolerance }, row: { figure }, onChange }: ToleranceProps) {
  const set = (change: Partial<Reading['tolerance']>) =>
    onChange('tolerance', { tolerance: { ...tolerance, ...change } });
  const field = { min: 0.1, width: 72, digits: 1 };
  switch (figure) {
    case 'frequency':
      return (
        <NumberField
          {...field}
          label="Tolerance of frequency"
          value={tolerance.hzPercent}
          unit="%"
          max={100}
          step={1}
          onChange={(hzPercent) => set({ hzPercent })}
        />
      );
    case 'gain':
      return (
        <NumberField
          {...field}
          label="Tolerance of gain"
          value={tolerance.gainDb}
          unit="dB"
          max={40}
          step={0.5}
          onChange={(gainDb) => set({ gainDb })}
        />
      );
    case 'q':
      return (
        <NumberField
          {...field}
          label="Tolerance of q"
          value={tolerance.qPercent}
          unit="%"
          max={400}
          step={1}
          onChange={(qPercent) => set({ qPercent })}
        />
      );
    default:
      return null;
  }
}
