import { catalogue } from '../../demo/catalogue';
import { control } from '../../demo/marketplaces';
import { photograph } from '../../demo/photos';
import { connectAccounts, ownerActor } from '../../demo/shop';
import { config } from '../../src/config';
import { closeDatabase, database } from '../../src/db/client';
import { findProducts } from '../../src/services/accounts/mapping/find-products';
import { refreshRates } from '../../src/services/accounts/rates/refresh-rates';
import { addPhoto } from '../../src/services/items/add-photo';
import { createItem } from '../../src/services/items/create-item';
import { loadAccounts } from '../../src/services/records/accounts/load-accounts';
import { film } from '../support/film';

/** A shop with many plain items of one piece, and some that fit as many marketplaces as the demo's own do. */
const count = Number(process.argv[2]);
const actor = await ownerActor();
// Both sets of pieces whose sale is timed are made on the same day.
for (const market of ['lanesend', 'glintfeed'])
  await control(config.marketsUrl, market, 'rule', { path: 'pacing.newPerDay', value: 100 });
await connectAccounts(actor);
const camera = catalogue().find((one) => one.fields.category === 'cameras/slr' && one.fields.condition !== 'parts');
if (!camera) throw new Error('the demo has no camera');
const bytes = await photograph(camera.thing, 'front');
const roll = { ...film(), description: '<p>Fresh, kept cool.</p>' };
const probes = 40;
await refreshRates();
const first: number[] = [];
for (let index = 0; index < count; index++) {
  const model = index < probes ? roll : camera.fields;
  const { id } = await createItem(actor, {
    fields: { ...model, sku: `L${String(index).padStart(5, '0')}`, price: index < probes ? 1_990 : 10_000 + index },
    quantity: 1,
  });
  if (index < probes) first.push(id);
  await addPhoto(actor, id, { bytes, name: 'front.jpg' });
}
for (const { id, compiled } of await loadAccounts(database()))
  if (['crateway', 'lotbarn'].includes(compiled.rules.market))
    await findProducts(actor, { accountId: id, itemIds: first });
await closeDatabase();
