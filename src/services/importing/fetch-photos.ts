import { access } from 'node:fs/promises';
import { NettingError } from '../../core/errors';
import { isPhotoAddress, isPhotoHash } from '../../core/table';
import { database } from '../../db/client';
import { eachPhoto } from '../../files';
import { fetchPicture } from '../../photos/fetch-picture';
import { keepPhoto } from '../records/photos/keep-photo';
import { knownPhotos } from '../records/photos/known-photos';

/** What a cell calls a photo → its hash, or why there is none. */
export type FetchedPhotos = Map<string, { hash: string } | { why: string }>;

const sideBySide = 4;

async function store(bytes: Buffer, name: string): Promise<{ hash: string } | { why: string }> {
  try {
    const { hash } = await keepPhoto({ bytes, name });
    return { hash };
  } catch (error) {
    if (error instanceof NettingError) return { why: error.message };
    throw error;
  }
}

const load = (address: string): Promise<{ hash: string } | { why: string }> =>
  fetchPicture(address).then(
    (bytes) => store(bytes, 'The picture'),
    (error: unknown) => {
      if (error instanceof NettingError) return { why: error.message };
      throw error;
    },
  );

/**
 * Stores the photos that cells name: from the ZIP that the table came in, from addresses, or known here already. Nothing
 * of the shop is held meanwhile.
 */
export async function fetchPhotos(refs: readonly string[], archive: string): Promise<FetchedPhotos> {
  const found: FetchedPhotos = new Map();
  const hashes = refs.filter(isPhotoHash);
  const known = new Set((await knownPhotos(database(), hashes)).map((one) => one.hash));
  for (const hash of hashes) found.set(hash, known.has(hash) ? { hash } : { why: 'This photo is not here any more' });
  const names = refs.filter((ref) => !isPhotoHash(ref) && !isPhotoAddress(ref));
  if (names.length) {
    const wanted = new Set(names.map((name) => name.toLowerCase()));
    const isThere = await access(archive).then(
      () => true,
      () => false,
    );
    const stored: FetchedPhotos = new Map();
    if (isThere)
      await eachPhoto(archive, wanted, async (name, bytes) => void stored.set(name, await store(bytes, name)));
    for (const name of names)
      found.set(name, stored.get(name.toLowerCase()) ?? { why: `The photo ${name} did not come along` });
  }
  const addresses = [...new Set(refs.filter(isPhotoAddress))];
  for (let at = 0; at < addresses.length; at += sideBySide)
    await Promise.all(addresses.slice(at, at + sideBySide).map(async (one) => void found.set(one, await load(one))));
  return found;
}
