import type { Measures } from './jpeg';

const signature = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);

/** Width and height of a PNG, from its header chunk (ISO/IEC 15948, 11.2.2). */
export function pngMeasures(bytes: Buffer): Measures | null {
  if (!bytes.subarray(0, 8).equals(signature) || bytes.subarray(12, 16).toString('latin1') !== 'IHDR') return null;
  return { width: bytes.readUInt32BE(16), height: bytes.readUInt32BE(20) };
}
