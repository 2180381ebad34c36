import { z } from 'zod';
import { NettingError } from '../../../core/errors';
import { connectorOf } from '../../../markets';
import type { Actor } from '../../access/actor';
import { type StoredAccount, storeAccount } from './store-account';

export const connectByKeySchema = z
  .object({ market: z.string(), key: z.string().trim().min(8, 'This is too short for a key').max(200) })
  .strict();

export async function connectByKey(
  actor: Actor,
  { market, key }: z.infer<typeof connectByKeySchema>,
): Promise<StoredAccount> {
  if (connectorOf(market).access !== 'key')
    throw new NettingError('invalid', `${connectorOf(market).name} is connected on its own page`);
  return storeAccount(actor, market, { kind: 'key', key });
}
