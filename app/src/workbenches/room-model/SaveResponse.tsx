import { Button, Menu } from '@mantine/core';
import { writeAes69Responses, writeWav } from '@pebble-hall/core/formats';
import { EAR_PLACES, type Hearer } from '@pebble-hall/core/runs';
import { runJob, type RunAsked } from '../../services/jobs';
import { RATE } from '../../services/listenMaterial';
import { notifyProblem } from '../../services/notify';
import { saveFile } from '../../services/saveFile';
import { sentenceOf } from '../../store';

interface Props {
  asked: RunAsked | null;
  /** of the receiver */
  index: number;
  name: string;
}

interface Form {
  label: string;
  hearer: Hearer;
  as: 'wav' | 'sofa';
}

const FORMS: readonly Form[] = [
  { label: 'Two ears, WAV', hearer: 'two ears', as: 'wav' },
  { label: 'One ear, WAV', hearer: 'one ear', as: 'wav' },
  { label: 'First-order ambisonics (ACN, SN3D), WAV', hearer: 'ambisonics', as: 'wav' },
  { label: 'Two ears, AES69', hearer: 'two ears', as: 'sofa' },
  { label: 'One ear, AES69', hearer: 'one ear', as: 'sofa' },
];

/** The response at a receiver, for other programs: as heard with ears or by what ambisonics hear. */
export function SaveResponse({ asked, index, name }: Props) {
  const save = async ({ hearer, as }: Form) => {
    const { run } = asked!;
    try {
      const heard = await runJob('rays.response', { ...asked!, index, rate: RATE, hearer });
      const file = `${run.name}, ${name}, ${hearer}.${as}`;
      if (as === 'wav') {
        const channels = heard.channels.map((c) => Float32Array.from(c));
        saveFile(file, writeWav(channels, heard.rate), 'audio/wav');
        return;
      }
      const { position, azimuthDeg } = run.receivers[index]!;
      const azimuth = (azimuthDeg * Math.PI) / 180;
      const sources = run.sources.map((s) => s.name).join(', ');
      const bytes = await writeAes69Responses(
        `${run.name}, ${name}`,
        [`Worked out by rays; heard of ${sources}.`],
        heard.rate,
        [
          {
            name,
            channels: heard.channels,
            zero: heard.zero,
            listener: position,
            source: run.sources.length === 1 ? run.sources[0]!.position : null,
            view: { x: Math.cos(azimuth), y: Math.sin(azimuth), z: 0 },
          },
        ],
        hearer === 'two ears' ? EAR_PLACES : undefined,
      );
      saveFile(file, bytes, 'application/x-hdf5');
    } catch (error) {
      notifyProblem(`The response was not saved: ${sentenceOf(error)}`);
    }
  };
  return (
    <Menu shadow="sm" position="top-end">
      <Menu.Target>
        <Button size="compact-xs" variant="default" disabled={!asked}>
          Save the response …
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        {FORMS.map((form) => (
          <Menu.Item key={form.label} onClick={() => void save(form)}>
            {form.label}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}
