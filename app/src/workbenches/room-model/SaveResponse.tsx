import { Button, Menu } from '@mantine/core';
import { writeAes69Responses, writeImpulseText, writeWav } from '@pebble-hall/core/formats';
import type { OwnHead } from '@pebble-hall/core/project';
import { EAR_PLACES, type Hearer } from '@pebble-hall/core/runs';
import { copyText } from '../../services/copyText';
import { runJob, type RunAsked } from '../../services/jobs';
import { RATE } from '../../services/listenMaterial';
import { notifyProblem } from '../../services/notify';
import { saveFile } from '../../services/saveFile';
import { sentenceOf } from '../../store';
import { headNumbers } from './ownHead';

interface Props {
  asked: RunAsked | null;
  /** of the receiver */
  index: number;
  name: string;
  head: OwnHead | null;
}

interface Form {
  label: string;
  hearer: Hearer;
  as: 'wav' | 'sofa' | 'copied text';
  head?: OwnHead;
}

const FORMS: readonly Form[] = [
  { label: 'Two ears, WAV', hearer: 'two ears', as: 'wav' },
  { label: 'One ear, WAV', hearer: 'one ear', as: 'wav' },
  { label: 'First-order ambisonics (ACN, SN3D), WAV', hearer: 'ambisonics', as: 'wav' },
  { label: 'Two ears, AES69', hearer: 'two ears', as: 'sofa' },
  { label: 'One ear, AES69', hearer: 'one ear', as: 'sofa' },
  { label: 'One ear, copied as text', hearer: 'one ear', as: 'copied text' },
];

const ownForms = (head: OwnHead): Form[] =>
  (['wav', 'sofa'] as const).map((as) => ({
    label: `Ears of ${head.name}, ${as === 'wav' ? 'WAV' : 'AES69'}`,
    hearer: 'two ears',
    as,
    head,
  }));

/** The response at a receiver, for other programs: as heard with ears or by what ambisonics hear. */
export function SaveResponse({ asked, index, name, head }: Props) {
  const save = async ({ hearer, as, head: own }: Form) => {
    const { run } = asked!;
    try {
      const heard = await runJob('rays.response', {
        ...asked!,
        index,
        rate: RATE,
        hearer,
        ...(own ? { head: await headNumbers(own) } : {}),
      });
      if (as === 'copied text') {
        const { rate, zero } = heard;
        const text = writeImpulseText({ samples: heard.channels[0]!, rate, zero }, [`${run.name}, ${name}`]);
        return await copyText(text, `The response at ${name}: copied.`, 'Save it as WAV instead.');
      }
      const file = `${run.name}, ${name}, ${own ? `ears of ${own.name}` : hearer}.${as}`;
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
        [`Worked out by rays; heard of ${sources}${own ? `, with the ears of ${own.name}` : ''}.`],
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
        {[...FORMS, ...(head ? ownForms(head) : [])].map((form) => (
          <Menu.Item key={form.label} onClick={() => void save(form)}>
            {form.label}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}
