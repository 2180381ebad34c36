import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { catalogue } from '../../demo/catalogue';
import { photograph } from '../../demo/photos';
import { connectAccounts, ownerActor } from '../../demo/shop';
import { config } from '../../src/config';
import { closeDatabase } from '../../src/db/client';
import { addPhoto } from '../../src/services/items/add-photo';
import { createItem } from '../../src/services/items/create-item';
import { film } from '../support/film';

/** The demo's shop with some of its items, none of them listed yet. */
const count = Number(process.argv[2]);
const actor = await ownerActor();
await connectAccounts(actor);
const demo = catalogue().filter((one) => one.fields.condition !== 'parts');
for (let index = 0; index < count; index++) {
  const one = demo[index % demo.length];
  if (!one) break;
  const { id } = await createItem(actor, {
    fields: { ...one.fields, sku: `F${index}-${one.fields.sku}`.slice(0, 40) },
    quantity: 5,
  });
  await addPhoto(actor, id, { bytes: await photograph(one.thing, 'front'), name: 'front.jpg' });
}
// What fits on every marketplace, for those who record it themselves.
writeFileSync(join(config.dataFolder, 'film.json'), JSON.stringify(film()));
await closeDatabase();
