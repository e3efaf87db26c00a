import { Button, Select, TextInput, VisuallyHidden } from '@mantine/core';
import { freeName, type Project, type Variant, measuredKey } from '@pebble-hall/core/project';
import { useState } from 'react';
import { TableMenu } from '../../../parts/TableMenu';
import type { TableData } from '../../../services/tableText';
import type { Change } from '../../../services/changeProject';
import { formatDb } from '../../../charts/chartMath';
import { useVariantFigures, type VariantFigures } from './useVariantFigures';
import { variantWords } from './variantWords';

/** Whether what was measured has changed since a variant was last looked at. */
export const isStale = (project: Project, { restsOn }: Variant): boolean =>
  restsOn !== null && restsOn.key !== measuredKey(project);

function Figures({ of }: { of: VariantFigures | null }) {
  if (!of)
    return (
      <td colSpan={4} className="num quiet">
        …
      </td>
    );
  return (
    <>
      <td className="num mono" style={{ whiteSpace: 'nowrap' }}>
        {of.distance.after.toFixed(2)}, was {of.distance.before.toFixed(2)} dB
      </td>
      <td className="num mono">{of.leftOutDb === null ? 'none' : `${of.leftOutDb.toFixed(2)} dB`}</td>
      <td className="num mono">{formatDb(of.boostDb)}</td>
      <td className="num mono">{of.leftAlone}</td>
    </>
  );
}

/** Variants with their figures, to take along. */
const variantTable = (variants: Variant[], figures: Map<string, VariantFigures>): TableData => ({
  title: 'Variants',
  columns: [
    'Variant',
    'Made of',
    'To the target (dB)',
    'was (dB)',
    'At spots left out (dB)',
    'Max boost (dB)',
    'Left alone',
  ],
  rows: variants.map((v) => {
    const f = figures.get(v.id);
    return [
      v.name,
      variantWords(v),
      ...(f
        ? [
            f.distance.after.toFixed(2),
            f.distance.before.toFixed(2),
            f.leftOutDb?.toFixed(2) ?? '',
            f.boostDb.toFixed(1),
            String(f.leftAlone),
          ]
        : ['', '', '', '', '']),
    ];
  }),
});

/** Variants: any number, named, duplicated, laid beside each other, each with what it rests on. */
export function VariantsPage({
  project,
  change,
  against,
  onAgainst,
}: {
  project: Project;
  change: Change;
  against: string | null;
  onAgainst: (id: string | null) => void;
}) {
  const { variants, variantId } = project;
  const figures = useVariantFigures(project);
  const [naming, setNaming] = useState<{ id: string; name: string } | null>(null);
  const roundName = (id: string) => project.rounds.find((r) => r.id === id)?.name ?? 'a round that is gone';
  const names = variants.map((v) => v.name);
  const duplicate = (v: Variant) => {
    const id = crypto.randomUUID();
    void change(`variant duplicated from ${v.name}`, (p) => ({
      ...p,
      variants: [...p.variants, { ...v, id, name: freeName(v.name, names), madeAt: Date.now() }],
      variantId: id,
    }));
  };
  const rename = () => {
    const name = naming?.name.trim();
    if (naming && name)
      void change(`variant named ${name}`, (p) => ({
        ...p,
        variants: p.variants.map((v) => (v.id === naming.id ? { ...v, name } : v)),
      }));
    setNaming(null);
  };
  const remove = (v: Variant) => {
    if (against === v.id) onAgainst(null);
    void change(`deleting variant ${v.name}`, (p) => {
      const rest = p.variants.filter((x) => x.id !== v.id);
      return { ...p, variants: rest, variantId: p.variantId === v.id ? rest[0]!.id : p.variantId };
    });
  };
  return (
    <section className="card" aria-label="Variants" style={{ gridColumn: '1 / -1' }}>
      <h2>
        Variants
        <span style={{ display: 'flex', gap: 8, alignItems: 'center' }}>
          <TableMenu table={() => variantTable(variants, figures)} />
          <small>Overlay</small>
          <Select
            size="xs"
            w={190}
            aria-label="Variant to compare with"
            clearable
            placeholder="none"
            data={variants.filter((v) => v.id !== variantId).map((v) => ({ value: v.id, label: v.name }))}
            value={against}
            onChange={onAgainst}
          />
        </span>
      </h2>
      <div style={{ overflow: 'auto', maxHeight: 170 }}>
        <table className="plain">
          <thead>
            <tr>
              <th>Name</th>
              <th>Made of</th>
              <th
                className="num"
                title="RMS over the span, 1/6 octave, level matched; mean over the channels"
              >
                To the target
              </th>
              <th className="num" title="The same at spots that took no part in the design">
                At spots left out
              </th>
              <th className="num">Max boost</th>
              <th className="num" title="Places that were left alone, over all channels">
                Left alone
              </th>
              <th>Rests on</th>
              <th>
                <VisuallyHidden>What can be done with it</VisuallyHidden>
              </th>
            </tr>
          </thead>
          <tbody>
            {variants.map((v) => (
              <tr key={v.id}>
                <td>
                  {naming?.id === v.id ? (
                    <TextInput
                      size="xs"
                      aria-label={`New name of ${v.name}`}
                      autoFocus
                      maxLength={60}
                      value={naming.name}
                      onChange={(e) => setNaming({ id: v.id, name: e.currentTarget.value })}
                      onBlur={rename}
                      onKeyDown={(e) =>
                        e.key === 'Enter' ? rename() : e.key === 'Escape' && setNaming(null)
                      }
                    />
                  ) : (
                    <b>{v.name}</b>
                  )}
                  {v.id === variantId ? ' (editing)' : ''}
                </td>
                <td>{variantWords(v)}</td>
                <Figures of={figures.get(v.id) ?? null} />
                <td className={isStale(project, v) ? 'attention' : 'quiet'}>
                  {v.restsOn === null
                    ? 'not touched yet'
                    : isStale(project, v)
                      ? `${roundName(v.restsOn.roundId)}; measured again since: look again`
                      : roundName(v.restsOn.roundId)}
                </td>
                <td>
                  <span style={{ display: 'flex', gap: 5, justifyContent: 'flex-end' }}>
                    <Button
                      size="compact-xs"
                      variant={v.id === variantId ? 'default' : 'filled'}
                      disabled={v.id === variantId}
                      aria-label={`Edit ${v.name}`}
                      onClick={() => {
                        if (against === v.id) onAgainst(null);
                        void change(`editing variant ${v.name}`, (p) => ({ ...p, variantId: v.id }));
                      }}
                    >
                      Edit
                    </Button>
                    <Button
                      size="compact-xs"
                      variant="default"
                      aria-label={`Duplicate ${v.name}`}
                      onClick={() => duplicate(v)}
                    >
                      Duplicate
                    </Button>
                    <Button
                      size="compact-xs"
                      variant="default"
                      aria-label={`Rename ${v.name}`}
                      onClick={() => setNaming({ id: v.id, name: v.name })}
                    >
                      Rename
                    </Button>
                    <Button
                      size="compact-xs"
                      variant="default"
                      aria-label={`Delete ${v.name}`}
                      disabled={variants.length === 1}
                      onClick={() => remove(v)}
                    >
                      Delete
                    </Button>
                  </span>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
