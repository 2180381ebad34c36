import { randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { rename, rm, stat } from 'node:fs/promises';
import { basename } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { config } from '../config';
import { isNotThere, linkTo, patiently } from './object-store';

/**
 * Large files of the data folder that another machine may have to read: where the settings name a store of objects they are
 * kept there as well, under their name. Without one there is one machine, and nothing is to be done.
 */
const place = (path: string) =>
  config.objects ? { Bucket: config.objects.bucket, Key: `${config.objects.prefix}files/${basename(path)}` } : null;

const isHere = (path: string) =>
  stat(path).then(
    () => true,
    () => false,
  );

/** Lets others have a file that is whole; streamed. */
export async function shareFile(path: string): Promise<void> {
  const at = place(path);
  if (!at || !config.objects) return;
  const { sdk, client } = await linkTo(config.objects);
  const { size } = await stat(path);
  await patiently(() =>
    client.send(new sdk.PutObjectCommand({ ...at, Body: createReadStream(path), ContentLength: size })),
  );
}

/** Has a file here that was shared elsewhere; false where there is none. */
export async function fetchShared(path: string): Promise<boolean> {
  if (await isHere(path)) return true;
  const at = place(path);
  if (!at || !config.objects) return false;
  const { sdk, client } = await linkTo(config.objects);
  const aside = `${path}.${randomUUID()}`;
  try {
    await patiently(async () => {
      const { Body } = await client.send(new sdk.GetObjectCommand(at));
      await pipeline(Body as Readable, createWriteStream(aside)); // in Node.js it is a stream
    });
    await rename(aside, path);
    return true;
  } catch (error) {
    await rm(aside, { force: true });
    if (isNotThere(error)) return false;
    throw error;
  }
}

/** Takes a file away, here and where it was shared. */
export async function removeShared(path: string): Promise<void> {
  await rm(path, { force: true });
  const at = place(path);
  if (!at || !config.objects) return;
  const { sdk, client } = await linkTo(config.objects);
  await patiently(() => client.send(new sdk.DeleteObjectCommand(at)));
}
