type Box = { name: string; from: number; to: number };

/** The boxes of an MP4 between two places, as ISO/IEC 14496-12 writes them: length, name, contents. */
function* boxes(bytes: Buffer, from: number, to: number): Generator<Box> {
  let at = from;
  while (at + 8 <= to) {
    const short = bytes.readUInt32BE(at);
    const isLong = short === 1 && at + 16 <= to;
    const length = isLong ? Number(bytes.readBigUInt64BE(at + 8)) : short === 0 ? to - at : short;
    if (length < 8 || at + length > to) return;
    yield { name: bytes.toString('latin1', at + 4, at + 8), from: at + (isLong ? 16 : 8), to: at + length };
    at += length;
  }
}

const find = (bytes: Buffer, name: string, from: number, to: number): Box | undefined => {
  for (const box of boxes(bytes, from, to)) if (box.name === name) return box;
  return undefined;
};

/** How long an MP4 lasts, from its movie header; null for what is none. */
export function mp4Seconds(bytes: Buffer): number | null {
  const movie = find(bytes, 'moov', 0, bytes.length);
  const header = movie && find(bytes, 'mvhd', movie.from, movie.to);
  if (!header || header.to - header.from < 32) return null;
  const isLong = bytes[header.from] === 1;
  const scale = bytes.readUInt32BE(header.from + (isLong ? 20 : 12));
  const duration = isLong ? Number(bytes.readBigUInt64BE(header.from + 24)) : bytes.readUInt32BE(header.from + 16);
  return scale > 0 ? duration / scale : null;
}
