import { randomInt } from 'node:crypto';
import { networkInterfaces } from 'node:os';
import { toSVG } from 'bwip-js/node';
import { eq, lt } from 'drizzle-orm';
import { z } from 'zod';
import { config } from '../../config';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { item, phoneCode } from '../../db/schema';
import type { Actor } from '../access/actor';
import { hashOf } from './phone-code';

const minutes = 15;

/** Letters and digits that are not mistaken for one another; 31^10 of them cannot be guessed in a quarter of an hour. */
const signs = 'abcdefghjkmnpqrstuvwxyz23456789';

/** The address under which this computer is seen on its own network; null when it listens for itself alone. */
function addressOnNetwork(): string | null {
  if (config.host === '127.0.0.1' || config.host === 'localhost') return null;
  if (config.host !== '0.0.0.0') return config.host;
  const all = Object.values(networkInterfaces()).flatMap((one) => one ?? []);
  return all.find((one) => one.family === 'IPv4' && !one.internal)?.address ?? null;
}

export const phoneLinkSchema = z.object({
  url: z.string(),
  until: z.string(),
  /** False when Netting listens for this computer alone. */
  reachable: z.boolean(),
  /** The address as a QR code (ISO/IEC 18004), an SVG drawing. */
  code: z.string(),
});
export type PhoneLink = z.infer<typeof phoneLinkSchema>;

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
