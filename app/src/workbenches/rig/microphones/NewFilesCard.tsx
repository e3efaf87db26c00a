import { Button, TextInput } from '@mantine/core';
import {
  calibrationReadings,
  type CommaReading,
  type MicrophoneCalibration,
} from '@pebble-hall/core/formats';
import type { Calibration, Microphone, Project } from '@pebble-hall/core/project';
import { useRef, useState } from 'react';
import { FilePicker } from '../../../parts/FilePicker';
import { formatDb, formatHz } from '../../../charts/chartMath';
import { clearProblem, notifyProblem } from '../../../services/notify';
import type { Change } from '../../../services/changeProject';
import { lookUpMicrophone } from '../../../ports/calibration/calibrationLookup';
import { sentenceOf } from '../../../store';
import { anglesFit } from './calibrationAdvice';

const MOST_BYTES = 4e6;

interface NewFilesProps {
  project: Project;
  microphone: Microphone;
  change: Change;
  candidates: Calibration[];
  onCandidates: (candidates: Calibration[]) => void;
}

function candidateOf(
  name: string,
  { frequency, levelDb, serial, incidenceDeg, sensitivityDb }: MicrophoneCalibration,
): Calibration {
  return {
    id: crypto.randomUUID(),
    name: name.slice(0, 120),
    serial,
    frequency,
    levelDb,
    incidenceDeg,
    sensitivityDb,
  };
}

const READING_WORDS: Record<CommaReading, string> = {
  'commas separate': 'commas between columns',
  'decimal commas': 'decimal commas',
};

/** A file whose commas can be read in two ways, and those it would be added to. */
interface Doubtful {
  readings: { reading: CommaReading; calibration: Calibration }[];
  others: Calibration[];
}

/** Files from disk or from the look-up; each is shown as a curve before it is accepted. */
export function NewFilesCard({ project, microphone, change, candidates, onCandidates }: NewFilesProps) {
  const picker = useRef<HTMLInputElement>(null);
  const [serial, setSerial] = useState<string | null>(null);
  const [asking, setAsking] = useState(false);
  const [doubtful, setDoubtful] = useState<Doubtful | null>(null);

  const fromDisk = async (file: File) => {
    try {
      if (file.size > MOST_BYTES) throw new Error('it is far too large for a calibration.');
      const readings = calibrationReadings(await file.text(), file.name).map((r) => ({
        reading: r.reading,
        calibration: candidateOf(file.name, r.calibration),
      }));
      onCandidates([...candidates, ...readings.map((r) => r.calibration)]);
      if (readings.length > 1) setDoubtful({ readings, others: candidates });
    } catch (error) {
      notifyProblem(
        `${file.name} was not taken as a calibration. ${sentenceOf(error)} The one before stays in use.`,
      );
    }
  };
  const lookUp = async () => {
    setAsking(true);
    clearProblem();
    try {
      const found = await lookUpMicrophone(serial ?? microphone.serial);
      const read: Calibration[] = [];
      for (const { name, text } of found.files) {
        try {
          const [first] = calibrationReadings(text, name);
          read.push({ ...candidateOf(name, first!.calibration), serial: found.serial });
        } catch (error) {
          throw new Error(
            `The look-up has ${name}, but it is damaged: ${sentenceOf(error)} Load the file that came with the microphone.`,
            { cause: error },
          );
        }
      }
      onCandidates(read);
    } catch (error) {
      notifyProblem(sentenceOf(error));
    } finally {
      setAsking(false);
    }
  };
  const accept = async () => {
    const have = microphone.calibrationIds.flatMap((id) => project.calibrations[id] ?? []);
    const same = (c: Calibration) =>
      have.find((h) => JSON.stringify([h.frequency, h.levelDb]) === JSON.stringify([c.frequency, c.levelDb]));
    const fresh = candidates.filter((c) => !same(c));
    const choice = candidates.find((c) => anglesFit(c, microphone.pointing)) ?? candidates[0]!;
    const fitting = same(choice) ?? choice;
    const known = candidates[0]!.serial;
    const done = await change(`calibration ${fitting.name}`, (p) => ({
      ...p,
      calibrations: { ...p.calibrations, ...Object.fromEntries(fresh.map((c) => [c.id, c])) },
      rig: {
        ...p.rig,
        microphones: p.rig.microphones.map((m) =>
          m.id === microphone.id
            ? {
                ...m,
                serial: m.serial || known || '',
                calibrationIds: [...m.calibrationIds, ...fresh.map((c) => c.id)],
                calibrationId: fitting.id,
              }
            : m,
        ),
      },
    }));
    if (done) onCandidates([]);
  };
  return (
    <section className="card" aria-label="New files">
      <h2>
        {candidates.length > 0 ? 'Look at the curve, then accept' : 'Get a file'}{' '}
        <small>{candidates.length > 0 ? 'dashed in the plot' : 'for this microphone'}</small>
      </h2>
      {doubtful ? (
        <div role="group" aria-label="How the commas are meant" style={{ display: 'grid', gap: 8 }}>
          <span className="attention">The commas of this file can be read in two ways. Which is right?</span>
          {doubtful.readings.map(({ reading, calibration }) => (
            <div key={reading} className="row">
              <span>
                {READING_WORDS[reading]}: {describe(calibration)}
              </span>
              <Button
                size="compact-xs"
                variant="default"
                style={{ flexShrink: 0 }}
                aria-label={`Read it with ${READING_WORDS[reading]}`}
                onClick={() => {
                  onCandidates([...doubtful.others, calibration]);
                  setDoubtful(null);
                }}
              >
                Use this
              </Button>
            </div>
          ))}
        </div>
      ) : null}
      {(doubtful?.others ?? candidates).map((c) => (
        <span key={c.id} className={anglesFit(c, microphone.pointing) === false ? 'attention' : ''}>
          {describe(c)}
        </span>
      ))}
      {doubtful ? null : candidates.length > 0 ? (
        <div style={{ display: 'flex', gap: 8 }}>
          <Button size="compact-sm" onClick={() => void accept()}>
            {candidates.length === 1 ? 'Accept' : `Accept ${candidates.length} files`}
          </Button>
          <Button size="compact-sm" variant="default" onClick={() => onCandidates([])}>
            Refuse
          </Button>
        </div>
      ) : (
        <div style={{ display: 'flex', gap: 8, alignItems: 'center' }}>
          <Button size="compact-sm" variant="default" onClick={() => picker.current?.click()}>
            Choose a file
          </Button>
          <span className="quiet">or by serial</span>
          <TextInput
            size="xs"
            w={84}
            aria-label="Serial to look up"
            value={serial ?? microphone.serial}
            onChange={(e) => setSerial(e.currentTarget.value)}
            onKeyDown={(e) => e.key === 'Enter' && void lookUp()}
          />
          <Button size="compact-sm" variant="default" loading={asking} onClick={() => void lookUp()}>
            Look it up
          </Button>
        </div>
      )}
      <FilePicker
        label="Calibration file"
        accept=".txt,.cal,.csv,.frd"
        picker={picker}
        onFile={(file) => void fromDisk(file)}
      />
      <span className="quiet">
        Text with frequency and level, however it is separated; a third column with the phase is read over.
        The file is stored with every sweep that it corrects.
      </span>
    </section>
  );
}

function describe({ name, serial, frequency, levelDb, incidenceDeg, sensitivityDb }: Calibration): string {
  const most = levelDb.reduce((a, v, i) => (Math.abs(v) > Math.abs(levelDb[a]!) ? i : a), 0);
  return [
    `${name}: ${frequency.length} points, ${formatHz(frequency[0]!)} to ${formatHz(frequency.at(-1)!)}`,
    `most ${formatDb(levelDb[most]!)} at ${formatHz(frequency[most]!)}`,
    incidenceDeg === null ? 'angle not stated' : `for ${incidenceDeg}°`,
    ...(serial ? [`serial ${serial}`] : []),
    ...(sensitivityDb === null ? [] : [`${sensitivityDb} dB re 1 V/Pa`]),
  ].join(', ');
}
