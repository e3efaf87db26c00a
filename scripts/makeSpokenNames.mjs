// Makes the words of spoken channel names with espeak-ng and sox (both Debian packages) and puts them where the
// application serves them from. The files are kept in the repository; run this after adding a word.
import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const source = readFileSync(join(root, 'app/src/words/spokenWords.ts'), 'utf8');
const list = /** @type {RegExpExecArray} */ (/SPOKEN_WORDS = \[([\s\S]*?)Array\.from/.exec(source))[1] ?? '';
const words = [...list.matchAll(/'([a-z]+)'/g)].map((m) => m[1] ?? '');
for (let i = 1; i <= 24; i++) words.push(String(i));
const target = join(root, 'app/public/spoken');
mkdirSync(target, { recursive: true });
const work = mkdtempSync(join(tmpdir(), 'spoken-'));
for (const word of words) {
  const raw = join(work, 'word.wav');
  execFileSync('espeak-ng', ['-v', 'en-gb', '-s', '150', '-p', '42', '-w', raw, word]);
  // silence off both ends, equal peaks, single channel at 16 kHz
  const trim = ['silence', '1', '0.01', '0.5%', 'reverse', 'silence', '1', '0.01', '0.5%', 'reverse'];
  execFileSync('sox', [raw, '-b', '16', '-r', '16000', join(target, `${word}.flac`), ...trim, 'norm', '-3']);
}
rmSync(work, { recursive: true });
console.log(`${words.length} words lie in app/public/spoken.`);
