import { catalogue } from '../../demo/catalogue';
import { photograph } from '../../demo/photos';
import { connectAccounts, ownerActor } from '../../demo/shop';
import { closeDatabase } from '../../src/db/client';
import { addPhoto } from '../../src/services/change-photos';
import { createItem } from '../../src/services/create-item';

/** A shop with many plain items of one piece, and some that fit as many marketplaces as the demo's own do. */
const count = Number(process.argv[2]);
const actor = await ownerActor();
await connectAccounts(actor);
const demo = catalogue().filter((one) => one.fields.category === 'cameras/slr' && one.fields.condition !== 'parts');
const model = demo[0];
if (!model) throw new Error('the demo has no camera');
const bytes = await photograph(model.thing, 'front');
for (let index = 0; index < count; index++) {
  const { id } = await createItem(actor, {
    fields: { ...model.fields, sku: `L${String(index).padStart(5, '0')}`, price: 10_000 + index },
    quantity: 1,
  });
  await addPhoto(actor, id, { bytes, name: 'front.jpg' });
}
await closeDatabase();
