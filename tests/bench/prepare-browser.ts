import { catalogue } from '../../demo/catalogue';
import { manyItems } from '../../demo/many';
import { photograph } from '../../demo/photos';
import { connectAccounts, ownerActor } from '../../demo/shop';
import { closeDatabase, database } from '../../src/db/client';
import { addPhoto } from '../../src/services/items/add-photo';
import { createItem } from '../../src/services/items/create-item';

/** A shop with so many items to be looked at. */
const actor = await ownerActor();
await connectAccounts(actor);
for (const one of catalogue().slice(0, 60)) {
  const { id } = await createItem(actor, { fields: one.fields, quantity: 5 });
  await addPhoto(actor, id, { bytes: await photograph(one.thing, 'front', 400), name: 'front.jpg' });
}
await manyItems(database(), Number(process.argv[2]), () => undefined);
await closeDatabase();
