import { expect, it } from 'vitest';
import { FormatError, readNpy, writeNpy } from './index.js';

const values = Float32Array.of(1, -2, 0.5, 1e-30, 3, 4);

it('comes back as it was', () => {
  for (const shape of [[6], [2, 3], [1, 3, 2]])
    expect(readNpy(writeNpy({ shape, values }))).toEqual({ shape, values });
});

it('is laid out as the format says: magic, length of a head that ends at a multiple of 64, numbers little-endian', () => {
  const bytes = writeNpy({ shape: [2, 3], values });
  expect([...bytes.subarray(0, 8)]).toEqual([0x93, 0x4e, 0x55, 0x4d, 0x50, 0x59, 1, 0]);
  const size = bytes[8]! + 256 * bytes[9]!;
  expect((10 + size) % 64).toBe(0);
  const head = new TextDecoder().decode(bytes.subarray(10, 10 + size));
  expect(head).toMatch(/^\{'descr': '<f4', 'fortran_order': False, 'shape': \(2, 3\), \} *\n$/);
  expect(new DataView(bytes.buffer).getFloat32(10 + size + 4, true)).toBe(-2);
});

it('refuses what it cannot read', () => {
  const bytes = writeNpy({ shape: [2, 3], values });
  const spoilt = (change: (b: Uint8Array) => void) => {
    const copy = bytes.slice();
    change(copy);
    return copy;
  };
  const broken = [
    new Uint8Array(0),
    bytes.subarray(0, 30),
    bytes.subarray(0, bytes.length - 1),
    new Uint8Array([...bytes, 0]),
    spoilt((b) => (b[6] = 2)),
    spoilt((b) => (b[9] = 200)),
    spoilt((b) => b.set(new TextEncoder().encode("{'descr': '<f8'"), 10)),
  ];
  for (const b of broken) expect(() => readNpy(b)).toThrow(FormatError);
});
