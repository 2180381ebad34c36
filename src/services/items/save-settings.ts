import { database } from '../../db/client';
import { setting } from '../../db/schema';
import type { Actor } from '../access/actor';
import { readSettings, type ShopSettings } from '../records/accounts/read-settings';
import { recheckAccounts } from '../records/listings/recheck-accounts';

const packing = ['packaging', 'packingCost', 'packingPerKilo', 'packingMinutes', 'hourlyRate'] as const;

/** Keeps the settings that are given; the others stay. */
export async function saveSettings(actor: Actor, input: Partial<ShopSettings>): Promise<ShopSettings> {
  for (const [name, value] of Object.entries(input)) {
    if (value === undefined) continue;
    const set = { value, byName: actor.name, at: new Date() };
    await database()
      .insert(setting)
      .values({ name, ...set })
      .onDuplicateKeyUpdate({ set });
  }
  // Weights that are told, and prices that hold postage, follow from how parcels are packed.
  if (packing.some((name) => input[name] !== undefined)) await recheckAccounts([]);
  return readSettings();
}
