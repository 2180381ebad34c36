import { toldBy } from '../../../core/gather';
import { conditionGrades } from '../../../core/item';
import { nothingKnown, type Thing } from '../../../core/match';
import type { RemoteListing } from '../../../markets';
import type { LoadedAccount } from '../../records/accounts/load-accounts';
import type { CandidateItem } from './candidate-items';

/** What of a listing says which thing it is. */
export type Said = Pick<RemoteListing, 'remoteId' | 'sku' | 'content' | 'called'>;

export const textOf = (value: unknown) => (typeof value === 'string' ? value : '');

/** A grade and its neighbours: marketplaces' steps are wider than ours, and people grade as they feel. */
function nearGrades(condition: string | null): string[] {
  const at = conditionGrades.findIndex((one) => one.id === condition);
  return at < 0 ? [] : conditionGrades.slice(Math.max(0, at - 1), at + 2).map((one) => one.id);
}

/** What is known of an item of ours; its photos, and where it is live, stand elsewhere. */
export const thingOfItem = (
  id: string,
  { sku, title, brand, model, barcode, price, condition }: CandidateItem,
): Thing => ({
  ...nothingKnown,
  id,
  place: 'inventory',
  sku,
  title,
  brand,
  model,
  barcode,
  price,
  grades: nearGrades(condition),
});

/** What a listing says of the thing that it offers; its photos are elsewhere. */
export function thingOfListing(
  id: string,
  place: string,
  { sku, content, called }: Said,
  account: LoadedAccount,
): Thing {
  const { fields, grades } = toldBy(content, account, called);
  const product = textOf(content.product);
  return {
    ...nothingKnown,
    id,
    place,
    sku,
    barcode: fields.barcode ?? '',
    product: product ? `${account.row.market}:${product}` : '',
    title: textOf(content.title) || called,
    brand: fields.brand ?? '',
    model: fields.model ?? '',
    price: fields.price ?? null,
    grades,
  };
}
