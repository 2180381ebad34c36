import { sql } from 'drizzle-orm';
import { catalogue } from '../../demo/catalogue';
import { manyItems } from '../../demo/many';
import { photograph } from '../../demo/photos';
import { connectAccounts, ownerActor } from '../../demo/shop';
import { closeDatabase, database } from '../../src/db/client';
import { addPhoto } from '../../src/services/items/add-photo';
import { createItem } from '../../src/services/items/create-item';
import { addContents } from '../../src/services/kits/add-contents';
import { createKit } from '../../src/services/kits/save-kit';

/** A shop with so many items to be looked at. */
const actor = await ownerActor();
await connectAccounts(actor);
for (const one of catalogue().slice(0, 60)) {
  const { id } = await createItem(actor, { fields: one.fields, quantity: 5 });
  await addPhoto(actor, id, { bytes: await photograph(one.thing, 'front', 400), name: 'front.jpg' });
}
await manyItems(database(), Number(process.argv[2]), () => undefined);
const lots = 20_000;
const { id: kitId } = await createKit(actor, { name: 'Twenty thousand lots', account: null, totalCost: 1_000_000 });
await addContents(kitId, {
  from: { is: 'text', text: Array.from({ length: lots }, (_, at) => `${1 + (at % 9)} x part ${at + 1}`).join('\n') },
  times: 1,
  with: [],
  opensSets: false,
  condition: 'good',
  meant: 'add',
});
await database().execute(
  sql`update kit_lot set price = 50 + id % 900, grams = 5 + id % 300, place = concat('A', id % 600), finish = elt(1 + id % 4, 'black', 'chrome', 'plain', 'colour'), sort = concat('kind ', id % 12) where kit_id = ${kitId}`,
);
await closeDatabase();
