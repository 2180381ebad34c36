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
const demo = catalogue();
/** A strap is in the catalogues, so it fits where a single camera does not. */
const strap = demo.find((one) => one.fields.sku.startsWith('S-'));
const camera = demo.find((one) => one.fields.category === 'cameras/slr' && one.fields.condition !== 'parts');
if (!strap || !camera) throw new Error('the demo has neither strap nor camera');
const pictures = new Map([
  [strap, await photograph(strap.thing, 'front')],
  [camera, await photograph(camera.thing, 'front')],
]);
const probes = 20;
for (let index = 0; index < count; index++) {
  const model = index < probes ? strap : camera;
  const bytes = pictures.get(model);
  if (!bytes) continue;
  const { id } = await createItem(actor, {
    fields: { ...model.fields, sku: `L${String(index).padStart(5, '0')}`, price: 10_000 + index },
    quantity: 1,
  });
  await addPhoto(actor, id, { bytes, name: 'front.jpg' });
}
await closeDatabase();
