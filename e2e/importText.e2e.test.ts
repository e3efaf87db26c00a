import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { it } from 'vitest';
import { aUser } from './support/aUser';
import { libraryRows } from './support/libraryRows';

const user = aUser();
const { choose } = libraryRows(user);

it('six unknown text files come in with their columns mapped', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'traces-'));
  await user.visit('/traces#library');
  const hz = [50, 100, 200, 400, 800, 1600, 3200, 6400, 12_800];
  const files: Record<string, string> = {
    'tabs.txt': `Freq\tdB\tdeg\n${hz.map((f) => `${f}\t-3\t0`).join('\n')}`,
    'decimal commas.csv': `Frequenz (Hz);Pegel (dB)\n${hz.map((f) => `${f},0;-3,0`).join('\n')}`,
    'kilohertz.dat': hz.map((f) => `${f / 1000} -3`).join('\n'),
    'coherence first.csv': `coherence,freq (Hz),level (dB)\n${hz.map((f) => `0.9,${f},-3`).join('\n')}`,
    'parts.txt': `# f re im\n${hz.map((f) => `${f} 0.7079 0`).join('\n')}`,
    'unknown.txt': hz.map((f, i) => `${i % 3} ${f} ${-3}`).join('\n'),
  };
  const paths = Object.entries(files).map(([name, text]) => {
    writeFileSync(join(folder, name), text);
    return join(folder, name);
  });
  await user.chooseFile('Files to import', paths.join('\n'));
  await user.sees('Import 6 files');
  await user.choose('Column 1 of parts.txt', 'frequency in Hz');
  await user.choose('Column 2 of parts.txt', 'real part');
  await user.choose('Column 3 of parts.txt', 'imaginary part');
  await user.choose('Column 1 of unknown.txt', 'nothing');
  await user.choose('Column 2 of unknown.txt', 'frequency in Hz');
  await user.choose('Column 3 of unknown.txt', 'level in dB');
  await user.press('Import 6 traces');
  // all six say the same: their average by levels is as far over each as it is over itself
  for (const name of Object.keys(files).map((n) => n.replace(/\..*$/, ''))) {
    await choose(name, name === 'tabs' ? 'kilohertz' : 'tabs');
    await user.type('Alike from', '100');
    await user.type('Alike to', '5000');
    await user.reads('How alike', /lies [+\u2212]?0\.0 dB over .* differ by 0\.0 dB RMS/);
  }
});
