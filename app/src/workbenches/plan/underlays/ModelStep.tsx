import { Button, Checkbox } from '@mantine/core';
import type { ExaminedModel, Taken } from '@pebble-hall/core/drawings';
import type { Place } from '@pebble-hall/core/project';
import { useState } from 'react';
import { lengthText } from '../../../drawing';
import { readInWorker } from '../../../services/jobs';
import { useDerived } from '../../../services/useDerived';
import { modelReportWords } from '../../../words/modelReport';
import { layModel, type OpenedFile } from './layUnder';
import { ModelSketch } from './ModelSketch';
import { TakenFields } from './TakenFields';

interface ModelStepProps {
  file: OpenedFile;
  place: Place;
  onDone: (id: string | null) => void;
}

interface Asked {
  file: OpenedFile;
  taken: Taken;
}
const examine = ({ file, taken }: Asked, { signal }: { signal: AbortSignal }): Promise<ExaminedModel> =>
  readInWorker('drawings.examine', { file: { name: file.name, bytes: file.bytes }, taken }, signal);
const SAME_FILE = { follows: (a: Asked, b: Asked) => a.file === b.file };

/** A model, what was understood of it, and how it is taken. */
export function ModelStep({ file, place, onDone }: ModelStepProps) {
  const [taken, setTaken] = useState<Taken>({ unitM: null, up: null });
  const [becomesRoom, setBecomesRoom] = useState(false);
  const { value: seen, problem, busy } = useDerived({ file, taken }, examine, SAME_FILE);
  if (problem) return <p role="alert">{problem} Nothing was changed.</p>;
  if (!seen) return <p className="quiet">Reading {file.name} …</p>;
  const length = (m: number) => lengthText(m, place.lengthUnit);
  return (
    <div style={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr) 340px', gap: 18 }}>
      <ModelSketch seen={seen} />
      <div style={{ display: 'grid', gap: 10, alignContent: 'start', fontSize: 14 }}>
        <ul aria-label="What was understood" style={{ margin: 0, paddingLeft: 18, display: 'grid', gap: 4 }}>
          {modelReportWords(seen, length).map(({ text, attention }) => (
            <li key={text} style={attention ? { color: 'var(--buoy)' } : undefined}>
              {text}
            </li>
          ))}
        </ul>
        <TakenFields unitM={seen.unitM} up={seen.up} onChange={(more) => setTaken({ ...taken, ...more })} />
        <Checkbox
          size="xs"
          label="Its outline becomes the room"
          description={
            seen.outline
              ? `The walls go along it${seen.outline.above ? '' : ' and stay as high as they are'}. Undo brings the room of before back.`
              : 'No outline in it is closed.'
          }
          disabled={!seen.outline}
          checked={becomesRoom && seen.outline !== null}
          onChange={(e) => setBecomesRoom(e.currentTarget.checked)}
        />
        <Button
          loading={busy}
          onClick={() => void layModel(file, place, seen, becomesRoom).then((id) => id && onDone(id))}
        >
          Lay it under
        </Button>
      </div>
    </div>
  );
}
