import { and, eq, gte, like } from 'drizzle-orm';
import { firstSettings, type IntakeSettings } from '../src/core/batch';
import { database } from '../src/db/client';
import { batch, consignment, item } from '../src/db/schema';
import type { Actor } from '../src/services/access/actor';
import { chooseUnits } from '../src/services/consignments/choose-units';
import { inboundAccounts } from '../src/services/consignments/find-consignments';
import { createConsignment } from '../src/services/consignments/save-consignment';
import { createBatch } from '../src/services/intake/save-batch';
import { savePreset } from '../src/services/intake/save-preset';
import { saveSettings } from '../src/services/items/save-settings';

const conditionSnippets = {
  'very-good': ['Hardly a trace of use', 'Dust jacket complete', 'Owner’s stamp inside'],
  good: ['Spine lightly creased', 'Edges rubbed', 'Name inside the cover', 'A few pages with pencil marks'],
  fair: ['Spine creased', 'Cover stained', 'Pages yellowed', 'Pencil marks throughout', 'Smells of the cellar'],
};

const paperbacks: IntakeSettings = {
  ...firstSettings,
  grade: 'good',
  snippets: ['Spine lightly creased'],
  category: 'books/manuals',
  price: { by: 'sales', days: 365, times: 95 },
  place: 'BOX-01',
  leastNet: 150,
  mostDays: 90,
};

/** What somebody needs who stands before a pile: sentences for the notes, two kept settings, and a batch that is just begun. */
export async function setUpIntake(actor: Actor): Promise<void> {
  const [known] = await database().select({ id: batch.id }).from(batch).limit(1);
  if (known) return;
  await saveSettings(actor, {
    conditionSnippets,
    lookUps: [{ name: 'Osterlund library', address: 'https://library.osterlund.example/find?isbn={barcode}' }],
  });
  await savePreset(actor, { name: 'Paperbacks, by what they sold for', settings: paperbacks });
  await savePreset(actor, {
    name: 'Film, new in its box',
    settings: {
      ...firstSettings,
      grade: 'new',
      category: 'film/colour',
      quantity: 5,
      place: 'COLD-1',
      asksPrice: true,
    },
  });
  await createBatch(actor, {
    name: 'Handbooks from the Aldern estate',
    supplier: 'Estate of I. Aldern',
    boughtOn: new Date().toISOString().slice(0, 10),
    invoice: 'AE-118',
    totalCost: 4_500,
    shareBy: 'price',
    skuPattern: 'AL-',
    settings: paperbacks,
  });
}

/** Film that is to go to a marketplace's warehouse, chosen and not planned yet. */
export async function setUpConsignment(actor: Actor): Promise<void> {
  const [known] = await database().select({ id: consignment.id }).from(consignment).limit(1);
  const [account] = await inboundAccounts();
  if (known || !account) return;
  const rolls = await database()
    .select({ id: item.id })
    .from(item)
    .where(and(like(item.category, 'film/%'), gte(item.quantity, 6), eq(item.isVaried, false)))
    .limit(4);
  if (rolls.length === 0) return;
  const { id } = await createConsignment(actor, { name: 'Film for the holidays', account: account.id });
  for (const roll of rolls) await chooseUnits(id, { set: { item: roll.id, quantity: 6 } });
}
