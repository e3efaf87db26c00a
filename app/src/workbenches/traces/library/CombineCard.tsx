import { Button, NativeSelect } from '@mantine/core';
import { FORMULA_TAKES, type CurveAverage, type Formula, type FormulaOp } from '@pebble-hall/core/traces';
import { freeName, type Project } from '@pebble-hall/core/project';
import { useState } from 'react';
import { NumberField } from '../../../parts/NumberField';
import { changeProject } from '../../../services/changeProject';
import { traceName } from '../../../services/libraryCurves';
import { newTrace } from '../../../services/newTrace';
import { formulaSentence } from '../../../words/formulaWords';

/** What rests on other traces. */
type CombiningOp = Exclude<FormulaOp, 'shapes'>;

const OPS: { value: CombiningOp; label: string }[] = [
  { value: 'sum', label: 'Sum' },
  { value: 'difference', label: 'Difference' },
  { value: 'ratio', label: 'Ratio' },
  { value: 'product', label: 'Product' },
  { value: 'average', label: 'Average' },
  { value: 'largest', label: 'Largest of all' },
  { value: 'smallest', label: 'Smallest of all' },
  { value: 'splice', label: 'Splice' },
  { value: 'inverse', label: 'Inverse' },
  { value: 'minimum phase', label: 'Minimum-phase part' },
  { value: 'excess phase', label: 'Excess phase' },
  { value: 'delay removed', label: 'Delay removed' },
  { value: 'all-pass', label: 'All-pass' },
];

interface Props {
  project: Project;
  /** traces that can be computed with, in the order in which they were chosen */
  of: string[];
  onMade: (id: string) => void;
}

/** A new trace from those that are chosen: it follows them. */
export function CombineCard({ project, of, onMade }: Props) {
  const [wanted, setOp] = useState<CombiningOp>('sum');
  const [how, setHow] = useState<CurveAverage>('power');
  const [atHz, setAtHz] = useState(100);
  const [delayMs, setDelayMs] = useState(1);
  const [q, setQ] = useState(0.7);
  const fits = OPS.filter(({ value }) => {
    const [least, most] = FORMULA_TAKES[value];
    return of.length >= least && of.length <= most;
  });
  const op = fits.some((o) => o.value === wanted) ? wanted : fits[0]?.value;
  if (!op) return null;
  const formula: Formula =
    op === 'average'
      ? { op, of, how }
      : op === 'splice'
        ? { op, of, atHz, octaves: 1 }
        : op === 'delay removed'
          ? { op, of, delayS: delayMs / 1000 }
          : op === 'all-pass'
            ? { op, of, hz: atHz, q }
            : { op, of };
  const sentence = formulaSentence(formula, (id) => traceName(project, id));
  const make = async () => {
    const id = crypto.randomUUID();
    const isStored = await changeProject('trace computed', (p) => {
      const trace = newTrace({
        id,
        kind: 'transfer function',
        name: freeName(
          sentence.slice(0, 180),
          p.kept.map((k) => k.name),
        ),
        arrayId: null,
        origin: { by: 'computed', formula },
      });
      return { ...p, kept: [...p.kept, trace] };
    });
    if (isStored) onMade(id);
  };
  return (
    <section aria-label="Compute" style={{ display: 'flex', flexDirection: 'column', gap: 6 }}>
      <h2>Compute</h2>
      <div className="row">
        <NativeSelect
          size="xs"
          aria-label="Computation"
          data={fits}
          value={op}
          onChange={(e) => setOp(e.currentTarget.value as CombiningOp)}
          style={{ flex: 1 }}
        />
        {op === 'average' ? (
          <NativeSelect
            size="xs"
            aria-label="Kind of average"
            w={116}
            data={[
              { value: 'power', label: 'by power' },
              { value: 'complex', label: 'complex' },
              { value: 'coherence', label: 'by coherence' },
              { value: 'level', label: 'in dB' },
            ]}
            value={how}
            onChange={(e) => setHow(e.currentTarget.value as CurveAverage)}
          />
        ) : null}
        {op === 'splice' || op === 'all-pass' ? (
          <NumberField
            label="At frequency"
            value={atHz}
            unit="Hz"
            min={20}
            max={20_000}
            step={10}
            width={88}
            onChange={setAtHz}
          />
        ) : null}
        {op === 'all-pass' ? (
          <NumberField
            label="Q of the all-pass"
            value={q}
            unit=""
            digits={2}
            min={0.1}
            max={20}
            step={0.1}
            width={56}
            onChange={setQ}
          />
        ) : null}
        {op === 'delay removed' ? (
          <NumberField
            label="Delay to remove"
            value={delayMs}
            unit="ms"
            digits={3}
            min={-4000}
            max={4000}
            step={0.1}
            width={96}
            onChange={setDelayMs}
          />
        ) : null}
      </div>
      <span className="quiet">{sentence}. It follows what it rests on.</span>
      <Button size="compact-sm" onClick={() => void make()}>
        Add to the library
      </Button>
    </section>
  );
}
