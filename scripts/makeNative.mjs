// Compiles what lies in core/assembly to the bytes that ship with the core: run it after a change there.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import asc from 'assemblyscript/asc';
import { format, resolveConfig } from 'prettier';
import { root } from './install.mjs';

/** Of each source in core/assembly: where its bytes lie, what they are called, and what they do. */
const MODULES = /** @type {const} */ ({
  firstHit: ['tracing/firstHitBytes.ts', 'FIRST_HIT', 'what rays meet first'],
  fieldStep: ['waves/fieldStepBytes.ts', 'FIELD_STEP', 'one step in time of a room of cells'],
});

/**
 * @param {keyof typeof MODULES} name
 * @returns {Promise<Uint8Array>} the module
 */
export async function compiled(name) {
  /** @type {Uint8Array} */
  let bytes = new Uint8Array();
  const { error, stderr } = await asc.main(
    [
      `core/assembly/${name}.ts`,
      ...['--baseDir', root, '--outFile', `${name}.wasm`],
      ...['-O3', '--noAssert', '--runtime', 'stub', '--enable', 'simd', '--importMemory'],
    ],
    {
      writeFile: (file, contents) => {
        if (file.endsWith('.wasm') && typeof contents !== 'string') bytes = contents;
      },
    },
  );
  if (error) throw new Error(stderr.toString());
  return bytes;
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href)
  for (const name of /** @type {(keyof typeof MODULES)[]} */ (Object.keys(MODULES))) {
    const [target, constant, does] = MODULES[name];
    const file = join(root, 'core/src', target);
    const bytes = await compiled(name);
    const source = `// made by scripts/makeNative.mjs from core/assembly/${name}.ts
/** A WebAssembly module (with SIMD, memory imported): ${does}. */
export const ${constant} = Uint8Array.from([${[...bytes].join(', ')}]);
`;
    writeFileSync(file, await format(source, { ...(await resolveConfig(file)), parser: 'typescript' }));
    console.log(`${name}: ${bytes.length} bytes`);
  }
