import { Button, Modal, NativeSelect, TextInput } from '@mantine/core';
import { COLUMN_MEANINGS, type ColumnMeaning } from '@pebble-hall/core/traces';
import type { Project } from '@pebble-hall/core/project';
import { useState } from 'react';
import { changeProject } from '../../../services/changeProject';
import { importedImpulses, importedTrace, withMeanings, withTraces, type Candidate } from './importFiles';
import { ImpulseFields } from './ImpulseFields';
import { importedSet } from './responseSets';
import { SetFields } from './SetFields';

interface Props {
  project: Project;
  candidates: Candidate[];
  onClose: (made: string[]) => void;
}

const PREVIEW_ROWS = 3;

/** Files before they are imported: what each column is taken for, where time zero lies, and what would be wrong with it. */
export function ImportDialog({ project, candidates: found, onClose }: Props) {
  const [candidates, setCandidates] = useState(found);
  const good = candidates.filter((c) => c.problem === null);
  const count = good.reduce((sum, c) => sum + (c.set ? c.set.to - c.set.from + 1 : 1), 0);
  const change = (index: number, next: Candidate) =>
    setCandidates(candidates.map((c, i) => (i === index ? next : c)));
  const take = async () => {
    const taken = project.kept.map((k) => k.name);
    const made = good.flatMap((c) => {
      const table = c.impulse || c.set ? null : importedTrace(c, taken);
      const imported = c.set
        ? importedSet({ ...c, set: c.set }, taken)
        : c.impulse
          ? importedImpulses(c, taken)
          : table
            ? [table]
            : [];
      taken.push(...imported.map((m) => m.trace.name));
      return imported;
    });
    const isStored = await changeProject(
      made.length === 1 ? 'trace imported' : `${made.length} traces imported`,
      (p) =>
        withTraces(
          p,
          made.map((m) => m.trace),
        ),
      { arrays: made.map((m) => m.array) },
    );
    if (isStored) onClose(made.map((m) => m.trace.id));
  };
  return (
    <Modal
      opened
      size="xl"
      onClose={() => onClose([])}
      title={candidates.length === 1 ? 'Import a trace' : `Import ${candidates.length} files`}
    >
      <div style={{ display: 'flex', flexDirection: 'column', gap: 14 }}>
        {candidates.map((c, i) => (
          <section key={c.fileName + String(i)} aria-label={c.fileName} className="card">
            <div className="row">
              <b style={{ color: 'var(--ink)' }}>{c.fileName}</b>
              {c.table || c.impulse || c.set ? (
                <TextInput
                  size="xs"
                  aria-label={`Name of ${c.fileName}`}
                  value={c.name}
                  maxLength={180}
                  onChange={(e) => change(i, { ...c, name: e.currentTarget.value })}
                  style={{ flex: 1, maxWidth: 320 }}
                />
              ) : null}
            </div>
            {c.table ? (
              <div style={{ overflowX: 'auto' }}>
                <table className="plain">
                  <thead>
                    <tr>
                      {c.table.columns.map((_, column) => (
                        <th key={column} scope="col">
                          <NativeSelect
                            size="xs"
                            aria-label={`Column ${column + 1} of ${c.fileName}`}
                            data={[...COLUMN_MEANINGS]}
                            value={c.meanings[column] ?? 'nothing'}
                            onChange={(e) => {
                              const meaning = e.currentTarget.value as ColumnMeaning;
                              change(
                                i,
                                withMeanings(
                                  c,
                                  c.meanings.map((m, k) => (k === column ? meaning : m)),
                                ),
                              );
                            }}
                          />
                          <small>{c.table!.headings[column] ?? ''}</small>
                        </th>
                      ))}
                    </tr>
                  </thead>
                  <tbody className="mono">
                    {Array.from({ length: Math.min(PREVIEW_ROWS, c.table.columns[0]!.length) }, (_, r) => (
                      <tr key={r}>
                        {c.table!.columns.map((column, k) => (
                          <td key={k}>{column[r]}</td>
                        ))}
                      </tr>
                    ))}
                  </tbody>
                </table>
              </div>
            ) : null}
            {c.set ? (
              <SetFields set={c.set} fileName={c.fileName} onChange={(set) => change(i, { ...c, set })} />
            ) : c.impulse ? (
              <ImpulseFields candidate={c} onChange={(next) => change(i, next)} />
            ) : c.problem ? (
              <span className="attention">{c.problem}</span>
            ) : (
              <span className="quiet">
                {c.table!.columns[0]!.length} rows, columns apart by {c.table!.separator}s, decimal{' '}
                {c.table!.decimal}s.
              </span>
            )}
          </section>
        ))}
        <div className="row">
          <Button variant="default" onClick={() => onClose([])}>
            Cancel
          </Button>
          <Button disabled={good.length === 0} onClick={() => void take()}>
            {count === 1 ? 'Import 1 trace' : `Import ${count} traces`}
          </Button>
        </div>
      </div>
    </Modal>
  );
}
