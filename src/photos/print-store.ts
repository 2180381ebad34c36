import { createHash } from 'node:crypto';
import { readPlan } from '../core/artwork/print-plan';
import { readPhotoReference } from '../core/photo/reference';
import { readWhole } from './derivatives';
import { makePrintable } from './printable';
import { photoStore } from './store';

/** The name under which a printable is kept, by how it is made: a hash of its reference. */
export const printKey = (reference: string): string => createHash('sha256').update(reference).digest('hex');
const fileOf = (key: string) => `${key}-print`;

async function made(reference: string): Promise<Buffer> {
  const { hash, print } = readPhotoReference(reference);
  const plan = print === null ? null : readPlan(print);
  if (!plan) throw new Error(`${reference} names no printable`);
  return makePrintable(await readWhole(hash), plan);
}

/**
 * A printable: as it was kept, or made now.
 * @throws when its picture cannot be read
 */
export async function readPrint(reference: string): Promise<Buffer> {
  const file = fileOf(printKey(reference));
  return (await photoStore.has(file)) ? photoStore.read(file) : made(reference);
}

/**
 * Makes a printable and keeps it, once.
 * @returns how many bytes it has; null when it was there already
 */
export async function makePrint(reference: string): Promise<number | null> {
  const file = fileOf(printKey(reference));
  if (await photoStore.has(file)) return null;
  const bytes = await made(reference);
  await photoStore.write(file, bytes);
  return bytes.length;
}

export const removePrint = (key: string): Promise<void> => photoStore.remove(fileOf(key));
