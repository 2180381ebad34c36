/** What marketplaces take at most, and what a person looks at: so long a clip is at most, in seconds. */
export const longestClip = 15;
/** Longest and shortest that one photo is seen, in seconds. */
const each = { most: 2.5, least: 0.8 };
/** Frames a second. */
const frames = 25;

/** How a clip is made of photos: which, and how long it is at most. */
export type ClipPlan = { photos: readonly string[]; seconds: number };

/** How long each of so many photos is seen, in whole frames, so that the whole is no longer than wanted. */
export function framesEach(count: number, seconds: number): number {
  const most = Math.floor((Math.min(seconds, longestClip) * frames) / Math.max(1, count));
  return Math.max(Math.round(each.least * frames), Math.min(Math.round(each.most * frames), most));
}

/** So many photos are seen at most: each long enough to be seen. */
export const photosIn = (count: number, seconds: number): number =>
  Math.min(count, Math.floor(Math.min(seconds, longestClip) / each.least));

/** A plan in one way of writing: equal ones are equal words, and the clip's hash follows from them. */
export const clipWords = ({ photos, seconds }: ClipPlan): string => `clip of ${photos.join(' ')} in ${seconds}`;

/** How a photo is moved over while it is seen: from one part of it to another, in fractions, closer or further. */
export type ClipMove = { from: Part; to: Part };
type Part = { zoom: number; x: number; y: number };

const closeness = 1.14;

/** Slow moves by turns: closer, across, away, and across the other way. */
export function clipMove(at: number): ClipMove {
  const whole = { zoom: 1, x: 0.5, y: 0.5 };
  const close = { zoom: closeness, x: 0.5, y: 0.45 };
  const left = { zoom: closeness, x: 0, y: 0.5 };
  const right = { zoom: closeness, x: 1, y: 0.5 };
  const moves: ClipMove[] = [
    { from: whole, to: close },
    { from: left, to: right },
    { from: close, to: whole },
    { from: right, to: left },
  ];
  return moves[at % moves.length] ?? { from: whole, to: close };
}

/** The film programme of one photo: a move over so many frames, as a filter of ffmpeg, in a frame of so many pixels. */
export function moveFilter(
  { from, to }: ClipMove,
  count: number,
  { width, height }: { width: number; height: number },
): string {
  const along = (a: number, b: number) => (a === b ? String(a) : `${a}+${b - a}*on/${Math.max(1, count - 1)}`);
  const zoom = along(from.zoom, to.zoom);
  const place = (axis: 'x' | 'y', length: 'iw' | 'ih') => `(${length}-${length}/zoom)*(${along(from[axis], to[axis])})`;
  return `zoompan=z='${zoom}':x='${place('x', 'iw')}':y='${place('y', 'ih')}':d=${count}:s=${width}x${height}:fps=${frames}`;
}
