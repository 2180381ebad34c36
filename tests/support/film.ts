import { withCheckDigit } from '../../demo/barcodes';

/** A roll of film that every catalogue knows: it fits on every marketplace, also where a single camera does not. */
export const film = () => ({
  title: 'Saltmark Harbour 200 colour negative film 35 mm, ISO 200, fresh',
  brand: 'Saltmark',
  model: 'Harbour 200',
  category: 'film/colour',
  condition: 'new' as const,
  keywords: ['film', 'colour film', '35 mm film'],
  attributes: {
    'Film format': '35 mm',
    'Film speed': 'ISO 200',
    Exposures: '36',
    Decade: '2020s',
    'Expiry date': new Date(Date.now() + 500 * 86_400_000).toISOString().slice(0, 10),
  },
  barcode: withCheckDigit('204400000010'),
  weightGrams: 100,
  lengthMm: 120,
  widthMm: 80,
  heightMm: 40,
});
