/** What WebAssembly gives, as far as it is used: the core knows neither browser nor Node. */
interface WebAssemblyHere {
  validate: (bytes: Uint8Array) => boolean;
  Module: new (bytes: Uint8Array) => object;
  Memory: new (size: { initial: number }) => { buffer: ArrayBuffer };
  Instance: new (module: object, imports: object) => { exports: object };
}

/** A module at work on a memory of its own. */
export interface Native<Exports> {
  buffer: ArrayBuffer;
  exports: Exports;
}

const PAGE_BYTES = 65536;
const compiled = new Map<Uint8Array, object | null>();

/**
 * A module at work; null where there is no WebAssembly with SIMD, the page may not have it, or there is not so much memory.
 * @param bytes of the module, compiled once @param memoryBytes that it imports as `env.memory`, all 0
 */
export function nativeInstance<Exports extends object>(
  bytes: Uint8Array,
  memoryBytes: number,
): Native<Exports> | null {
  const { WebAssembly: wasm } = globalThis as { WebAssembly?: WebAssemblyHere };
  if (!wasm) return null;
  try {
    let module = compiled.get(bytes);
    if (module === undefined) {
      // what fails once fails each time
      compiled.set(bytes, null);
      module = wasm.validate(bytes) ? new wasm.Module(bytes) : null;
      compiled.set(bytes, module);
    }
    if (module === null) return null;
    const memory = new wasm.Memory({ initial: Math.ceil(memoryBytes / PAGE_BYTES) });
    const { exports } = new wasm.Instance(module, { env: { memory } });
    return { buffer: memory.buffer, exports: exports as Exports };
  } catch {
    return null;
  }
}
