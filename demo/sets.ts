import { database } from '../src/db/client';
import { kit } from '../src/db/schema';
import type { Actor } from '../src/services/access/actor';
import { addContents } from '../src/services/kits/add-contents';
import { changeLots } from '../src/services/kits/change-lots';
import { findLots } from '../src/services/kits/find-kit';
import { setAccounts } from '../src/services/kits/find-kits';
import { createKit } from '../src/services/kits/save-kit';

/** Three darkroom outfits that are being taken apart: a few lots are priced and have their drawers, most wait. */
export async function setUpSets(actor: Actor): Promise<void> {
  const [known] = await database().select({ id: kit.id }).from(kit).limit(1);
  const [account] = await setAccounts();
  if (known || !account) return;
  const { id } = await createKit(actor, {
    name: 'Three outfits from Aldern',
    supplier: 'Estate Aldern',
    account: account.id,
    totalCost: 24_000,
  });
  await addContents(id, {
    from: { is: 'catalogue', entry: 'LB4032' },
    times: 3,
    with: ['spare'],
    opensSets: true,
    condition: 'good',
    meant: 'add',
  });
  const { lots } = await findLots(id, { after: 0, limit: 16 });
  await changeLots(id, {
    lots: lots.map(({ id: lot, version, grams }, at) => ({
      id: lot,
      baseVersion: version,
      set:
        at < 9
          ? {
              price: 80 + (grams ?? 0),
              place: `A${at + 1}`,
              ...(at % 4 === 2 ? { comment: 'Washed, no stains' } : {}),
            }
          : { state: at === 12 ? 'later' : 'open' },
    })),
  });
}
