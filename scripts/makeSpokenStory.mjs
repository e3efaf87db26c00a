// Makes the spoken piece to listen to with espeak-ng and sox (both Debian packages). The file is kept in the repository.
import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const STORY =
  'The tide went out before the lamp was lit. Seven boats lay on the slip, and nobody spoke. ' +
  'Then the wind turned, and the old boathouse began to hum, low and slow, like a string that someone had just let go.';

const target = fileURLToPath(new URL('../app/public/listen', import.meta.url));
mkdirSync(target, { recursive: true });
const work = mkdtempSync(join(tmpdir(), 'story-'));
const raw = join(work, 'story.wav');
execFileSync('espeak-ng', ['-v', 'en-gb', '-s', '145', '-p', '38', '-w', raw, STORY]);
const shape = ['silence', '1', '0.01', '0.5%', 'norm', '-6', 'pad', '0.1', '0.4'];
execFileSync('sox', [raw, '-b', '16', '-r', '24000', '-c', '1', join(target, 'story.flac'), ...shape]);
rmSync(work, { recursive: true });
