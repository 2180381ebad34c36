import { regenerate, type Variation } from '../src/core/item';
import type { Actor } from '../src/services/access/actor';
import { addPhoto } from '../src/services/items/add-photo';
import { createItem } from '../src/services/items/create-item';
import { saveCustomField } from '../src/services/items/save-custom-field';
import { photograph } from './photos';

/** Fields that Grainhouse has added for itself. */
export async function addCustomFields(): Promise<void> {
  const field = { choices: [], most: null, from: null, to: null, category: '', copied: true };
  await saveCustomField({
    ...field,
    key: 'serial',
    label: 'Serial number',
    type: 'text',
    most: 20,
    category: 'cameras',
    copied: false,
  });
  await saveCustomField({
    ...field,
    key: 'tested_by',
    label: 'Tested by',
    type: 'choice',
    choices: ['Ines', 'Marek', 'nobody yet'],
  });
}

const axes = [
  { name: 'Colour', values: ['black', 'brown', 'green', 'natural'] },
  { name: 'Length', values: ['90 cm', '110 cm', '130 cm'] },
];

/** One sheet for a strap in every colour and length, as the bench makes them. */
export async function addStrapToMeasure(actor: Actor, sku: string): Promise<void> {
  const variations = regenerate(axes, []).map((row, index): Variation => {
    const longer = ['90 cm', '110 cm', '130 cm'].indexOf(row.values[1] ?? '') * 300;
    return {
      ...row,
      sku: `S-${String(701 + index)}`,
      quantity: (index * 5) % 4,
      on: row.values[0] !== 'green' || row.values[1] !== '130 cm',
      price: longer ? { kind: 'difference', amount: longer } : null,
    };
  });
  const { id } = await createItem(actor, {
    fields: {
      sku,
      title: 'Grainhouse Pier leather camera strap, hand-stitched, in four colours and three lengths',
      brand: 'Grainhouse',
      model: 'Pier strap',
      category: 'straps',
      condition: 'new',
      price: 3_900,
      cost: 1_150,
      weightGrams: 120,
      description: '<p>Vegetable-tanned leather, cut and stitched on our bench in Osterlund.</p>',
      keywords: ['camera strap', 'leather strap', 'neck strap'],
      attributes: {
        Material: 'Leather',
        Decade: 'made to order',
        Maker: 'I made it',
        Materials: 'leather, brass, waxed thread',
        'Personalisation prompt': 'Up to eight letters for the tab',
      },
      axes,
      variations,
    },
  });
  const bytes = await photograph(
    { kind: 'strap', brand: 'Grainhouse', model: 'Pier strap', seed: 31, colour: 'brown' },
    'front',
  );
  await addPhoto(actor, id, { bytes, name: 'strap.jpg' });
}
