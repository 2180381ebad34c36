import { listingField } from '../field/listing-fields';
import { type Json, sameJson } from '../json';
import type { Content, Overrides } from '../listing';
import { compared } from '../sync/compared';

export type KeptAsShown = {
  /** Written for this account alone, so that what is live there stays what it is. */
  overrides: Overrides;
  /** What stands for the last thing sent: what they show, and of what they never show what would be sent. */
  sent: Content;
};

/** These follow from the item and the ledger; nothing is written for one account in their place. */
const never = new Set(['quantity', 'sku', 'variations', 'photos', 'target']);

/** An empty list says as little as none. */
const something = (value: Json | undefined): Json =>
  Array.isArray(value) && value.length === 0 ? null : (value ?? null);

const isSame = (field: string, a: Json | undefined, b: Json | undefined): boolean =>
  sameJson(compared(field, something(a), true), compared(field, something(b), true));

/** What one look at both sides asks for. */
function differing(shown: Content, wanted: Content, hides: (field: string) => boolean): KeptAsShown {
  const overrides: Overrides = {};
  const sent: Content = {};
  for (const field of new Set([...Object.keys(shown), ...Object.keys(wanted)])) {
    const there = shown[field];
    const isHidden = there === undefined && (hides(field) || field === 'photos');
    if (isHidden || isSame(field, there, wanted[field])) {
      if (wanted[field] !== undefined) sent[field] = wanted[field];
      continue;
    }
    if (there !== undefined) sent[field] = there;
    if (!never.has(field) && listingField(field) !== undefined) overrides[field] = there ?? null;
  }
  // Under which number it stands there is not known, or is theirs: it keeps it.
  if (sent.sku === undefined && wanted.sku !== undefined) sent.sku = wanted.sku;
  return { overrides, sent };
}

/** So often what is written for an account may change what is asked for, such as another category's attributes. */
const rounds = 4;

/**
 * What has to be written for one account so that a listing that is there already stays as it is, although the item says
 * something else by now.
 * @param shown what the marketplace shows
 * @param wanted what would be sent with this written for the account
 * @param hides whether this marketplace never shows a field: what is there is not known, and left as it is
 * @param first written already, such as which photos are chosen
 */
export function keptAsShown(
  shown: Content,
  wanted: (overrides: Overrides) => Content,
  hides: (field: string) => boolean,
  first: Overrides = {},
): KeptAsShown {
  let kept: KeptAsShown = { overrides: first, sent: shown };
  for (let round = 0; round < rounds; round++) {
    const { overrides, sent } = differing(shown, wanted(kept.overrides), hides);
    kept = { overrides: { ...kept.overrides, ...overrides }, sent };
    if (Object.keys(overrides).length === 0) return kept;
  }
  return kept;
}
