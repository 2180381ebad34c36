import { createHash } from 'node:crypto';

/** A key of an item from what it was made of, in the form of a UUID: the same makes one item, however often it is carried out. */
export function madeKey(source: string): string {
  const hash = createHash('sha256').update(source).digest('hex');
  return `${hash.slice(0, 8)}-${hash.slice(8, 12)}-4${hash.slice(13, 16)}-8${hash.slice(17, 20)}-${hash.slice(20, 32)}`;
}
