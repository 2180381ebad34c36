import type { S3Client } from '@aws-sdk/client-s3';
import type { ObjectSettings } from '../config';
import { checkedKey } from './file-store';
import type { PhotoStore } from './photo-store';

/** A store that is away for a minute loses nothing: what was asked is asked again so long, in milliseconds. */
const patienceMs = 75_000;
const firstPauseMs = 150;
const longestPauseMs = 3_000;

type Sdk = typeof import('@aws-sdk/client-s3');
type Link = { sdk: Sdk; client: S3Client };
const links = new Map<string, Promise<Link>>();

/** One client a process for each store; the package is loaded only where one is named. */
export function linkTo(settings: ObjectSettings): Promise<Link> {
  const name = `${settings.endpoint} ${settings.keyId}`;
  const known = links.get(name);
  if (known) return known;
  const made = import('@aws-sdk/client-s3').then((sdk) => ({
    sdk,
    client: new sdk.S3Client({
      endpoint: settings.endpoint,
      region: settings.region,
      credentials: { accessKeyId: settings.keyId, secretAccessKey: settings.secretKey },
      // The bucket in the path: also stores without names of their own for each bucket answer to that.
      forcePathStyle: true,
      // Not every store knows the newer checksums; where they are not asked for, they are left out.
      requestChecksumCalculation: 'WHEN_REQUIRED',
      responseChecksumValidation: 'WHEN_REQUIRED',
      maxAttempts: 1,
      requestHandler: { connectionTimeout: 2_000, requestTimeout: 20_000 },
    }),
  }));
  links.set(name, made);
  return made;
}

type Told = { name?: string; $metadata?: { httpStatusCode?: number } };
const statusOf = (error: unknown): number | undefined => (error as Told).$metadata?.httpStatusCode;
export const isNotThere = (error: unknown) => statusOf(error) === 404;
/** No answer, or one that says: later. What a store refuses for good is not asked again. */
const mayPass = (error: unknown) => {
  const status = statusOf(error);
  return status === undefined || status === 429 || status >= 500;
};

export async function patiently<T>(work: () => Promise<T>): Promise<T> {
  const end = Date.now() + patienceMs;
  for (let pauseMs = firstPauseMs; ; pauseMs = Math.min(longestPauseMs, pauseMs * 2)) {
    try {
      return await work();
    } catch (error) {
      if (!mayPass(error) || Date.now() + pauseMs > end) throw error;
      await new Promise((resolve) => setTimeout(resolve, pauseMs));
    }
  }
}

/**
 * Photos as objects in a bucket of any store that speaks the S3 interface.
 * @throws what the store said, after it was away for longer than a minute
 */
export function objectStore(settings: ObjectSettings): PhotoStore {
  const place = (key: string) => ({ Bucket: settings.bucket, Key: settings.prefix + checkedKey(key) });
  return {
    async has(key) {
      const at = place(key);
      const { sdk, client } = await linkTo(settings);
      return patiently(async () => {
        try {
          await client.send(new sdk.HeadObjectCommand(at));
          return true;
        } catch (error) {
          if (isNotThere(error)) return false;
          throw error;
        }
      });
    },
    async read(key) {
      const at = place(key);
      const { sdk, client } = await linkTo(settings);
      // A body that breaks off in the middle is read again from its beginning.
      return patiently(async () => {
        const { Body, ContentLength } = await client.send(new sdk.GetObjectCommand(at));
        const parts: Uint8Array[] = [];
        for await (const part of Body as AsyncIterable<Uint8Array>) parts.push(part); // in Node.js it is a stream
        const bytes = Buffer.concat(parts);
        if (ContentLength !== undefined && bytes.length !== ContentLength) throw new Error(`${key} broke off`);
        return bytes;
      });
    },
    async write(key, bytes) {
      const at = place(key);
      const { sdk, client } = await linkTo(settings);
      await patiently(() => client.send(new sdk.PutObjectCommand({ ...at, Body: bytes, ContentLength: bytes.length })));
    },
    async remove(key) {
      const at = place(key);
      const { sdk, client } = await linkTo(settings);
      await patiently(async () => {
        try {
          await client.send(new sdk.DeleteObjectCommand(at));
        } catch (error) {
          if (!isNotThere(error)) throw error;
        }
      });
    },
  };
}

/** The keys in the bucket that begin so. */
export async function objectNames(settings: ObjectSettings, start: string): Promise<string[]> {
  const { sdk, client } = await linkTo(settings);
  const names: string[] = [];
  for (let after: string | undefined; ; ) {
    const page = await patiently(() =>
      client.send(
        new sdk.ListObjectsV2Command({
          Bucket: settings.bucket,
          Prefix: settings.prefix + start,
          ...(after ? { ContinuationToken: after } : {}),
        }),
      ),
    );
    names.push(...(page.Contents ?? []).map((one) => (one.Key ?? '').slice(settings.prefix.length)));
    if (!page.IsTruncated) return names;
    after = page.NextContinuationToken;
  }
}
