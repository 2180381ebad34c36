import { like } from 'drizzle-orm';
import { database } from '../../db/client';
import { photoFile, printable } from '../../db/schema';
import { keysOf } from '../../photos/store';
import type { Finding } from './checks';

const most = 200;
/** Photos are looked through by the first two letters of their hash. */
const folders = Array.from({ length: 256 }, (_, at) => at.toString(16).padStart(2, '0'));

/** Names that begin so, by the hash that each begins with. */
async function inFolder(folder: string): Promise<Map<string, string[]>> {
  const found = new Map<string, string[]>();
  for (const name of await keysOf(folder)) {
    const hash = name.split(/[-.]/)[0] ?? '';
    found.set(hash, [...(found.get(hash) ?? []), name]);
  }
  return found;
}

/** Photos without a file, and files that no photo is of; folder by folder, so that never all of them are held. */
export async function photoFiles(): Promise<{ missing: Finding[]; stray: Finding[] }> {
  const missing: string[] = [];
  const stray: string[] = [];
  for (const folder of folders) {
    const files = await inFolder(folder);
    const rows = await database()
      .select({ hash: photoFile.hash })
      .from(photoFile)
      .where(like(photoFile.hash, `${folder}%`));
    for (const { hash } of rows) if (!files.delete(hash)) missing.push(hash);
    // What was made beforehand for printers is kept beside the photos.
    const prints = await database()
      .select({ key: printable.key })
      .from(printable)
      .where(like(printable.key, `${folder}%`));
    for (const { key } of prints) files.delete(key);
    stray.push(...[...files.values()].flat());
  }
  const named = (texts: string[]) => texts.slice(0, most).map((text) => ({ text, item: null }));
  return { missing: named(missing), stray: named(stray) };
}
