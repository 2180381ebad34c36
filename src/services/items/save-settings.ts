import { database } from '../../db/client';
import { setting } from '../../db/schema';
import type { Actor } from '../access/actor';
import type { ShopSettings } from '../records/read-settings';

export async function saveSettings(actor: Actor, input: ShopSettings): Promise<ShopSettings> {
  const set = { value: input.skuPattern, byName: actor.name, at: new Date() };
  await database()
    .insert(setting)
    .values({ name: 'skuPattern', ...set })
    .onDuplicateKeyUpdate({ set });
  return input;
}
