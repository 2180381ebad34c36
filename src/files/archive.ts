import { createWriteStream } from 'node:fs';
import { buffer } from 'node:stream/consumers';
import { pipeline } from 'node:stream/promises';
import { unreadable } from './errors';
import { limits } from './limits';
import { eachPacked } from './unpack';

const isTable = (name: string) => /\.(csv|tsv|txt|xlsx|json|ndjson|xml)$/i.test(name);
const isPhoto = (name: string) => /\.(jpe?g|png|webp)$/i.test(name);
const isHidden = (name: string) => name.split('/').some((part) => part.startsWith('.') || part === '__MACOSX');
export const bareName = (name: string): string => name.split('/').at(-1) ?? name;

/** Whether a ZIP is a workbook by itself, or a table with what belongs to it. */
export async function archiveKind(path: string): Promise<'workbook' | 'archive'> {
  let kind: 'workbook' | 'archive' = 'archive';
  await eachPacked(path, async ({ name }) => {
    if (/^xl\/workbook\.xml$/i.test(name)) kind = 'workbook';
  });
  return kind;
}

/** Takes the table out of a ZIP; its photos stay in it until they are wanted. */
export async function takeTable(path: string, to: string): Promise<{ table: string; photos: number }> {
  const tables: string[] = [];
  let photos = 0;
  await eachPacked(path, async ({ name, read }) => {
    if (isHidden(name)) return;
    if (isPhoto(name)) photos++;
    if (!isTable(name)) return;
    tables.push(bareName(name));
    if (tables.length === 1) await pipeline(await read(), createWriteStream(to));
  });
  const [table] = tables;
  if (!table) throw unreadable('There is no table in this ZIP', 'Put a CSV or a workbook into it');
  if (tables.length > 1) throw unreadable(`There are several tables in this ZIP: ${tables.slice(0, 3).join(', ')}`);
  if (photos > limits.photos) throw unreadable(`At most ${limits.photos.toLocaleString('en')} photos can come along`);
  return { table, photos };
}

/** The photos of these names in a ZIP, without their folders; each is handed on by itself. */
export async function eachPhoto(
  path: string,
  wanted: ReadonlySet<string>,
  take: (name: string, bytes: Buffer) => Promise<void>,
): Promise<void> {
  await eachPacked(path, async ({ name, bytes, read }) => {
    const bare = bareName(name);
    if (isHidden(name) || !wanted.has(bare.toLowerCase()) || bytes > limits.photoBytes) return;
    await take(bare.toLowerCase(), await buffer(await read()));
  });
}
