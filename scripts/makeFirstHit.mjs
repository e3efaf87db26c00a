// Compiles core/assembly/firstHit.ts to the bytes that ship with the core: run it after a change there.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import asc from 'assemblyscript/asc';
import { format, resolveConfig } from 'prettier';
import { root } from './install.mjs';

const TARGET = join(root, 'core/src/tracing/firstHitBytes.ts');

/** @returns {Promise<Uint8Array>} the module */
export async function compiledFirstHit() {
  /** @type {Uint8Array} */
  let bytes = new Uint8Array();
  const { error, stderr } = await asc.main(
    [
      'core/assembly/firstHit.ts',
      ...['--baseDir', root, '--outFile', 'firstHit.wasm'],
      ...['-O3', '--noAssert', '--runtime', 'stub', '--enable', 'simd', '--importMemory'],
    ],
    {
      writeFile: (name, contents) => {
        if (name.endsWith('.wasm') && typeof contents !== 'string') bytes = contents;
      },
    },
  );
  if (error) throw new Error(stderr.toString());
  return bytes;
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  const bytes = await compiledFirstHit();
  const source = `// made by scripts/makeFirstHit.mjs from core/assembly/firstHit.ts
/** A WebAssembly module (with SIMD, memory imported): what rays meet first. */
export const FIRST_HIT = Uint8Array.from([${[...bytes].join(', ')}]);
`;
  writeFileSync(TARGET, await format(source, { ...(await resolveConfig(TARGET)), parser: 'typescript' }));
  console.log(`${bytes.length} bytes`);
}
