import { createHash, randomInt } from 'node:crypto';
import { networkInterfaces } from 'node:os';
import { toSVG } from 'bwip-js/node';
import { eq, lt } from 'drizzle-orm';
import { config } from '../config';
import { NettingError } from '../core/errors';
import { database } from '../db/client';
import { item, phoneCode } from '../db/schema';
import type { Actor } from './actor';
import { addPhoto } from './change-photos';

const minutes = 15;
/** Letters and digits that are not mistaken for one another; 31^10 of them cannot be guessed in a quarter of an hour. */
const signs = 'abcdefghjkmnpqrstuvwxyz23456789';
const hashOf = (code: string) => createHash('sha256').update(code).digest('hex');

/** The address under which this computer is seen on its own network; null when it listens for itself alone. */
function addressOnNetwork(): string | null {
  if (config.host === '127.0.0.1' || config.host === 'localhost') return null;
  if (config.host !== '0.0.0.0') return config.host;
  const all = Object.values(networkInterfaces()).flatMap((one) => one ?? []);
  return all.find((one) => one.family === 'IPv4' && !one.internal)?.address ?? null;
}

export type PhoneLink = {
  url: string;
  until: string;
  /** False when Netting listens for this computer alone. */
  reachable: boolean;
  /** The address as a QR code (ISO/IEC 18004), an SVG drawing. */
  code: string;
};

/** Lets a phone on the same network add photos to one item for a quarter of an hour. */
export async function invitePhone(actor: Actor, itemId: number): Promise<PhoneLink> {
  const db = database();
  const [row] = await db.select({ id: item.id }).from(item).where(eq(item.id, itemId));
  if (!row) throw new NettingError('not-found', `There is no item ${itemId}`);
  await db.delete(phoneCode).where(lt(phoneCode.until, new Date()));
  const code = Array.from({ length: 10 }, () => signs[randomInt(signs.length)]).join('');
  const until = new Date(Date.now() + minutes * 60_000);
  await db.insert(phoneCode).values({ hash: hashOf(code), itemId, byName: actor.name, until });
  const address = addressOnNetwork();
  const host = address ?? '127.0.0.1';
  const url = `http://${host}:${config.port}/phone/${code}`;
  return {
    url,
    until: until.toISOString(),
    reachable: address !== null,
    code: toSVG({ bcid: 'qrcode', text: url, scale: 4, paddingwidth: 4, paddingheight: 4, backgroundcolor: 'FFFFFF' }),
  };
}

/** The item that a code opens; null when there is no such code or its time is over. */
export async function itemOfCode(code: string): Promise<{ itemId: number; title: string; byName: string } | null> {
  if (!/^[a-z2-9]{10}$/.test(code)) return null;
  const [row] = await database()
    .select({ itemId: phoneCode.itemId, byName: phoneCode.byName, until: phoneCode.until, title: item.title })
    .from(phoneCode)
    .innerJoin(item, eq(item.id, phoneCode.itemId))
    .where(eq(phoneCode.hash, hashOf(code)));
  if (!row?.until || row.until < new Date()) return null;
  return { itemId: row.itemId, title: row.title, byName: row.byName };
}

/** Adds a picture that came from a phone. */
export async function addFromPhone(code: string, file: { bytes: Buffer; name: string }): Promise<{ count: number }> {
  const known = await itemOfCode(code);
  if (!known)
    throw new NettingError('not-signed-in', 'This code is over', { mend: 'Show a new one on the item’s sheet' });
  const { photos } = await addPhoto({ id: 'phone', name: `${known.byName} (phone)` }, known.itemId, file);
  return { count: photos.length };
}
