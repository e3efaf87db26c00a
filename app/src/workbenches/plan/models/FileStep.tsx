import { Button } from '@mantine/core';
import type { Project } from '@pebble-hall/core/project';
import { speedOfSound } from '@pebble-hall/core/room';
import { useEffect, useRef, useState } from 'react';
import { FilePicker } from '../../../parts/FilePicker';
import { isAbort } from '../../../ports/abort';
import { readInWorker } from '../../../services/jobs';
import { sentenceOf } from '../../../store';
import type { Candidate } from './candidate';

/** Larger is refused before it is read. */
const MOST_BYTES = 128e6;

interface FileStepProps {
  project: Project;
  onCandidate: (candidate: Candidate | null) => void;
}

/** A model from a file: AES69, or a table of polar data. */
export function FileStep({ project, onCandidate }: FileStepProps) {
  const picker = useRef<HTMLInputElement>(null);
  const [state, setState] = useState<{ busy: string | null; problem: string | null }>({
    busy: null,
    problem: null,
  });
  const reading = useRef<AbortController | null>(null);
  // a broken file could keep its reader busy after the dialog is closed
  useEffect(() => () => reading.current?.abort(), []);
  const open = async (file: File) => {
    const { signal } = (reading.current = new AbortController());
    onCandidate(null);
    setState({ busy: file.name, problem: null });
    try {
      if (file.size > MOST_BYTES)
        throw new Error(
          `It has ${Math.round(file.size / 1e6)} MB; up to ${MOST_BYTES / 1e6} are taken. Export fewer frequencies.`,
        );
      const bytes = new Uint8Array(await file.arrayBuffer());
      const speed = speedOfSound(project.place.temperatureC);
      const { kind, name, view, about, notes, sensitivityDb, largestDb } = await readInWorker(
        'coverage.tried',
        {
          name: file.name,
          bytes,
          speed,
        },
        signal,
      );
      onCandidate({
        source: { kind, file: { name: file.name, type: file.type, bytes } },
        name: name || file.name.replace(/\.[^.]+$/, ''),
        ...{ view, about, notes, sensitivityDb, largestDb, viewLargestDb: 0 },
      });
      setState({ busy: null, problem: null });
    } catch (error) {
      if (isAbort(error)) return setState({ busy: null, problem: null });
      setState({ busy: null, problem: `${file.name} is not taken. ${sentenceOf(error)}` });
    }
  };
  return (
    <div style={{ display: 'grid', gap: 8 }}>
      <div className="row" style={{ justifyContent: 'start', gap: 12 }}>
        <Button
          size="compact-md"
          variant="default"
          loading={state.busy !== null}
          onClick={() => picker.current?.click()}
        >
          Choose a file …
        </Button>
        {state.busy !== null ? (
          <Button size="compact-md" variant="subtle" onClick={() => reading.current?.abort()}>
            Cancel reading {state.busy}
          </Button>
        ) : null}
        <span className="quiet">
          AES69 with free-field directivity (.sofa), or a text table: a plane, its angles, levels per
          frequency.
        </span>
      </div>
      <FilePicker
        label="Directivity of a loudspeaker"
        accept=".sofa,.h5,.hdf5,.txt,.csv,.tsv"
        picker={picker}
        onFile={(file) => void open(file)}
      />
      {state.problem ? (
        <p role="alert" style={{ margin: 0 }}>
          {state.problem}
        </p>
      ) : null}
    </div>
  );
}
