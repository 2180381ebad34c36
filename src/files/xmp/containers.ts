import { crc32 } from 'node:zlib';

/** How a packet of metadata stands in a file. Source: ISO 16684-3, storage in files. */
export type Container = {
  /** Whether it is a file of this kind. */
  fits(bytes: Buffer): boolean;
  read(bytes: Buffer): string | null;
  write(bytes: Buffer, packet: string): Buffer;
};

const pngHead = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
const keyword = 'XML:com.adobe.xmp';

type Chunk = { type: string; data: Buffer; whole: Buffer };

function chunksOf(bytes: Buffer): Chunk[] {
  const chunks: Chunk[] = [];
  for (let at = pngHead.length; at + 12 <= bytes.length; ) {
    const length = bytes.readUInt32BE(at);
    const end = at + 12 + length;
    if (end > bytes.length) break;
    chunks.push({
      type: bytes.toString('latin1', at + 4, at + 8),
      data: bytes.subarray(at + 8, at + 8 + length),
      whole: bytes.subarray(at, end),
    });
    at = end;
  }
  return chunks;
}

const isOurs = ({ type, data }: Chunk): boolean =>
  type === 'iTXt' && data.subarray(0, keyword.length + 1).toString('latin1') === `${keyword}\0`;

function chunk(type: string, data: Buffer): Buffer {
  const body = Buffer.concat([Buffer.from(type, 'latin1'), data]);
  const [length, check] = [Buffer.alloc(4), Buffer.alloc(4)];
  length.writeUInt32BE(data.length);
  check.writeUInt32BE(crc32(body));
  return Buffer.concat([length, body, check]);
}

export const png: Container = {
  fits: (bytes) => bytes.subarray(0, 8).equals(pngHead),
  read(bytes) {
    const found = chunksOf(bytes).find(isOurs);
    // Keyword, two bytes of compression (none), an empty language and an empty translation.
    return found ? found.data.subarray(keyword.length + 5).toString('utf8') : null;
  },
  write(bytes, packet) {
    const [head, ...rest] = chunksOf(bytes).filter((one) => !isOurs(one));
    if (!head) throw new Error('There is no picture in it');
    const own = chunk('iTXt', Buffer.concat([Buffer.from(`${keyword}\0\0\0\0\0`, 'latin1'), Buffer.from(packet)]));
    return Buffer.concat([pngHead, head.whole, own, ...rest.map((one) => one.whole)]);
  },
};

const xap = Buffer.from('http://ns.adobe.com/xap/1.0/\0', 'latin1');
const mostInSegment = 65_533;

/** Segments before the picture itself begins; the last one is everything from there on. */
function segmentsOf(bytes: Buffer): { marker: number; data: Buffer; whole: Buffer }[] {
  const segments: { marker: number; data: Buffer; whole: Buffer }[] = [];
  let at = 2;
  while (at + 4 <= bytes.length && bytes[at] === 0xff) {
    const marker = bytes[at + 1] ?? 0;
    const length = bytes.readUInt16BE(at + 2);
    if (marker === 0xda || at + 2 + length > bytes.length) break;
    segments.push({
      marker,
      data: bytes.subarray(at + 4, at + 2 + length),
      whole: bytes.subarray(at, at + 2 + length),
    });
    at += 2 + length;
  }
  segments.push({ marker: 0, data: bytes.subarray(at), whole: bytes.subarray(at) });
  return segments;
}

const isXap = ({ marker, data }: { marker: number; data: Buffer }): boolean =>
  marker === 0xe1 && data.subarray(0, xap.length).equals(xap);

export const jpeg: Container = {
  fits: (bytes) => bytes[0] === 0xff && bytes[1] === 0xd8,
  read(bytes) {
    const found = segmentsOf(bytes).find(isXap);
    return found ? found.data.subarray(xap.length).toString('utf8') : null;
  },
  write(bytes, packet) {
    const data = Buffer.concat([xap, Buffer.from(packet)]);
    if (data.length + 2 > mostInSegment) throw new RangeError('More is said of it than a JPEG holds');
    const head = Buffer.from([0xff, 0xe1, 0, 0]);
    head.writeUInt16BE(data.length + 2, 2);
    const rest = segmentsOf(bytes).filter((one) => !isXap(one));
    // Behind what must stand first: the JFIF head and the camera's own data.
    const first = rest.findIndex(({ marker }) => marker !== 0xe0 && marker !== 0xe1);
    const own = Buffer.concat([head, data]);
    const parts = rest.map((one) => one.whole);
    return Buffer.concat([bytes.subarray(0, 2), ...parts.slice(0, first), own, ...parts.slice(first)]);
  },
};

const xmpTag = 700;
const entryBytes = 12;

/** The first directory of a TIFF: where it stands, and its entries. */
function directoryOf(bytes: Buffer) {
  const isLittle = bytes.toString('latin1', 0, 2) === 'II';
  const u16 = (at: number) => (isLittle ? bytes.readUInt16LE(at) : bytes.readUInt16BE(at));
  const u32 = (at: number) => (isLittle ? bytes.readUInt32LE(at) : bytes.readUInt32BE(at));
  const at = u32(4);
  const count = u16(at);
  const entries = Array.from({ length: count }, (_, index) => {
    const from = at + 2 + index * entryBytes;
    return { tag: u16(from), type: u16(from + 2), count: u32(from + 4), from };
  });
  return { isLittle, u16, u32, at, count, entries };
}

export const tiff: Container = {
  fits: (bytes) => ['II*\0', 'MM\0*'].includes(bytes.toString('latin1', 0, 4)),
  read(bytes) {
    const { entries, u32 } = directoryOf(bytes);
    const found = entries.find((one) => one.tag === xmpTag);
    if (!found) return null;
    const at = u32(found.from + 8);
    return bytes.subarray(at, at + found.count).toString('utf8');
  },
  /** The directory is written anew behind the file, with its new entry; nothing that stands there is moved. */
  write(bytes, packet) {
    const { isLittle, u32, at, count, entries } = directoryOf(bytes);
    const data = Buffer.from(packet);
    const padded = bytes.length % 2 ? Buffer.concat([bytes, Buffer.alloc(1)]) : bytes;
    const kept = entries.filter((one) => one.tag !== xmpTag);
    const dataAt = padded.length;
    const directoryAt = dataAt + data.length + (data.length % 2);
    const u16To = (into: Buffer, value: number, to: number) =>
      isLittle ? into.writeUInt16LE(value, to) : into.writeUInt16BE(value, to);
    const u32To = (into: Buffer, value: number, to: number) =>
      isLittle ? into.writeUInt32LE(value, to) : into.writeUInt32BE(value, to);
    const own = Buffer.alloc(entryBytes);
    u16To(own, xmpTag, 0);
    u16To(own, 1, 2);
    u32To(own, data.length, 4);
    u32To(own, dataAt, 8);
    const rows = [
      ...kept.map((one) => ({ tag: one.tag, row: bytes.subarray(one.from, one.from + entryBytes) })),
      { tag: xmpTag, row: own },
    ].sort((a, b) => a.tag - b.tag);
    const size = Buffer.alloc(2);
    u16To(size, rows.length, 0);
    const next = Buffer.alloc(4);
    u32To(next, u32(at + 2 + count * entryBytes), 0);
    const head = Buffer.from(padded.subarray(0, 8));
    u32To(head, directoryAt, 4);
    return Buffer.concat([
      head,
      padded.subarray(8),
      data,
      Buffer.alloc(data.length % 2),
      size,
      ...rows.map((one) => one.row),
      next,
    ]);
  },
};
