import { readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { gt } from 'drizzle-orm';
import { config } from '../../config';
import { database } from '../../db/client';
import { photoFile } from '../../db/schema';
import type { Finding } from './checks';

const portion = 5_000;
const most = 200;

/** Names in the folder of photos, with the hash that each begins with. */
async function inFolder(): Promise<Map<string, string[]>> {
  const root = join(config.dataFolder, 'photos');
  const found = new Map<string, string[]>();
  for (const part of await readdir(root).catch(() => [] as string[]))
    for (const name of await readdir(join(root, part)).catch(() => [] as string[])) {
      // One that is being written just now has a second ending.
      if (name.split('.').length > 2) continue;
      const hash = name.split(/[-.]/)[0] ?? '';
      found.set(hash, [...(found.get(hash) ?? []), name]);
    }
  return found;
}

/** Photos without a file, and files that no photo is of. */
export async function photoFiles(): Promise<{ missing: Finding[]; stray: Finding[] }> {
  const files = await inFolder();
  const missing: Finding[] = [];
  for (let after = ''; ; ) {
    const rows = await database()
      .select({ hash: photoFile.hash })
      .from(photoFile)
      .where(gt(photoFile.hash, after))
      .orderBy(photoFile.hash)
      .limit(portion);
    for (const { hash } of rows) {
      if (!files.has(hash) && missing.length < most) missing.push({ text: hash, item: null });
      files.delete(hash);
    }
    const last = rows.at(-1);
    if (!last) break;
    after = last.hash;
  }
  const stray = [...files.values()].flat().slice(0, most);
  return { missing, stray: stray.map((text) => ({ text, item: null })) };
}
