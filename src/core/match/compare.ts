import { alikeWithin, sharedPhotos } from './photos';
import type { Thing } from './thing';
import { numbersApart, titleLikeness, type WordWeights } from './words';

/** What speaks for two things being one, or against it, with its weight and in words. */
export type Evidence = { kind: EvidenceKind; weight: number; said: string };
export type EvidenceKind =
  | 'sku'
  | 'barcode'
  | 'product'
  | 'photos'
  | 'alike'
  | 'title'
  | 'numbers'
  | 'brand'
  | 'model'
  | 'price'
  | 'condition';

export type Verdict = 'same' | 'unsure' | 'different';
export type Comparison = { score: number; verdict: Verdict; evidence: Evidence[] };

/** From this sum on two things are taken for one without a question; below the other they are two. */
export const limits = { same: 8, different: 3 };

const plain = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '');

function told(a: Thing, b: Thing, weights: WordWeights): Evidence[] {
  const found: Evidence[] = [];
  const add = (kind: EvidenceKind, weight: number, said: string) => void found.push({ kind, weight, said });
  if (a.sku && plain(a.sku) === plain(b.sku)) add('sku', 11, `the same stock number, ${a.sku}`);
  if (a.barcode && b.barcode)
    a.barcode === b.barcode
      ? add('barcode', 4, `the same barcode, ${a.barcode}`)
      : add('barcode', -6, 'different barcodes');
  if (a.product && b.product && a.product.split(':')[0] === b.product.split(':')[0])
    a.product === b.product
      ? add('product', 4, 'the same catalogue product')
      : add('product', -6, 'different catalogue products');
  const photos = sharedPhotos(a.photos, b.photos);
  if (photos)
    add('photos', Math.min(6, 4 + photos - 1), photos === 1 ? 'a photo in common' : `${photos} photos in common`);
  else if (sharedPhotos(a.photos, b.photos, alikeWithin)) add('alike', 2, 'photos much alike');
  else if (a.photos.length && b.photos.length) add('photos', -2, 'no photo in common');
  if (a.title && b.title) {
    const likeness = titleLikeness(a.title, b.title, weights);
    add('title', Math.round((likeness - 0.4) * 80) / 10, `titles alike by ${Math.round(likeness * 100)} %`);
    const apart = numbersApart(a.title, b.title);
    if (apart.length) add('numbers', -5, `other numbers: ${apart.slice(0, 4).join(', ')}`);
  }
  if (a.brand && b.brand)
    plain(a.brand) === plain(b.brand) ? add('brand', 0.5, `both ${a.brand}`) : add('brand', -3, 'different brands');
  if (a.model && b.model)
    plain(a.model) === plain(b.model) ? add('model', 1, `both ${a.model}`) : add('model', -4, 'different models');
  if (a.price && b.price) {
    const apart = Math.abs(a.price - b.price) / Math.max(a.price, b.price);
    if (apart <= 0.15) add('price', 1, 'prices near each other');
    else if (apart > 0.5) add('price', -2, 'prices far apart');
  }
  if (a.grades.length && b.grades.length)
    a.grades.some((grade) => b.grades.includes(grade))
      ? add('condition', 0.5, 'conditions alike')
      : add('condition', -1.5, 'conditions apart');
  return found;
}

/** What names a single piece, or shows it: without one of these two things are never taken for one unasked. */
const proves = ({ kind, weight }: Evidence) => weight > 0 && (kind === 'sku' || kind === 'photos');
const denies = ({ kind, weight }: Evidence) =>
  weight < 0 && ['barcode', 'product', 'numbers', 'model', 'brand'].includes(kind);

/**
 * Whether two things are one: evidence is weighed and added up. Certain are only those that the stock number or a photo
 * proves and nothing denies; twins that merely look alike are asked about. The same from either side.
 */
export function compareThings(a: Thing, b: Thing, weights: WordWeights): Comparison {
  const evidence = told(a, b, weights).sort(
    (x, y) => Math.abs(y.weight) - Math.abs(x.weight) || (x.kind < y.kind ? -1 : 1),
  );
  const score = Math.round(evidence.reduce((sum, one) => sum + one.weight, 0) * 10) / 10;
  const verdict: Verdict =
    score >= limits.same && evidence.some(proves) && !evidence.some(denies)
      ? 'same'
      : score >= limits.different
        ? 'unsure'
        : 'different';
  return { score, verdict, evidence };
}
