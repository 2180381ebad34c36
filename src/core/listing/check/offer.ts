import { readPlan } from '../../artwork/print-plan';
import { formatMoney } from '../../measure/money';
import { readPhotoReference } from '../../photo/reference';
import { feesOf } from '../../price/fees';
import { labelFor } from '../../price/net';
import type { MarketRules } from '../../rules/rules';
import type { ListingInput } from '../context';
import type { Content, Issue, ListingValue } from '../fields';
import { chosenPhotos, isTooSmall } from '../fit/photos';
import { fixFor, here, master, problem } from './problem';

export function checkPrice(value: ListingValue, rules: MarketRules, input: ListingInput, content: Content): Issue[] {
  if (!rules.price) return [];
  const amount = typeof value.value === 'number' ? value.value : null;
  if (amount === null) {
    if (input.item.price !== null && value.origin !== 'override')
      return [
        problem(
          'price-rate',
          'price',
          input.account.rate === null && rules.currency !== input.item.currency
            ? `There is no rate from ${input.item.currency} to ${rules.currency} yet`
            : 'No price keeps what this account has to keep',
          { kind: 'pricing', label: 'Look at the account’s prices' },
        ),
      ];
    return [problem('price-missing', 'price', 'A price is needed', master('price', 'Set the price'))];
  }
  const { min, max, holds } = rules.price;
  const money = (minor: number) => formatMoney(minor, rules.currency);
  if (amount < min || amount > max)
    return [
      problem(
        'price-range',
        'price',
        `The price must be between ${money(min)} and ${money(max)}`,
        fixFor(value, 'price', 'Change the price'),
      ),
    ];
  const base = rules.fees.bases ? (rules.fees.bases.amounts[String(content[rules.fees.bases.field] ?? '')] ?? 0) : 0;
  if (amount < base)
    return [
      problem(
        'price-base',
        'price',
        `The price must be at least the base price of ${money(base)}`,
        fixFor(value, 'price', 'Raise the price'),
      ),
    ];
  if (holds) {
    const grams = typeof content.weightGrams === 'number' ? content.weightGrams : 0;
    const fees = feesOf(rules.fees, {
      total: amount,
      categoryId: String(content.category ?? ''),
      liveCount: 0,
      values: content,
    });
    const kept = (labelFor(rules.fees, grams)?.amount ?? 0) + fees.commission + fees.payment;
    if (amount <= kept)
      return [
        problem(
          'price-holds',
          'price',
          `The price must hold postage and fees of ${money(kept)}`,
          fixFor(value, 'price', 'Raise the price'),
        ),
      ];
  }
  return [];
}

export function checkPhotos(value: ListingValue, rules: MarketRules, input: ListingInput): Issue[] {
  if (value.origin === 'unused') return [];
  const chosen = Array.isArray(value.value) ? value.value.map((one) => readPhotoReference(String(one)).hash) : [];
  const { min, max, kind } = rules.photos;
  const what = kind === 'artwork' ? 'picture of artwork' : 'photo';
  if (chosen.length < min)
    return [
      problem(
        'photos-few',
        'photos',
        min === 1 ? `At least one ${what} is needed` : `At least ${min} photos are needed`,
        master('photos', 'Add photos'),
      ),
    ];
  // What is made for it says itself how many there may be.
  const most = value.max ?? max;
  if (chosen.length > most)
    return [
      problem(
        'photos-many',
        'photos',
        `${chosen.length} photos are chosen, ${most} ${most === 1 ? 'is' : 'are'} allowed`,
        here('photos', 'Choose fewer here'),
      ),
    ];
  const own = input.overrides.photos;
  const there = Array.isArray(own) ? chosenPhotos(own, input.item.photos) : input.item.photos;
  const files = (Array.isArray(value.value) ? value.value : []).flatMap((one) => {
    const { print } = readPhotoReference(String(one));
    const plan = print === null ? null : readPlan(print);
    return plan ? [plan.canvas] : [];
  });
  const sent = files.length ? files : there.filter((photo) => chosen.includes(photo.hash));
  const small = sent.filter((photo) => isTooSmall(photo, rules.photos));
  if (small.length) {
    const { minShortestSide = 0, minLongestSide } = rules.photos;
    const side =
      minShortestSide > 0 ? `${minShortestSide} pixels on each side` : `${minLongestSide} pixels on the longest side`;
    return [
      problem(
        'photos-small',
        'photos',
        `${small.length === 1 ? `A ${what} is` : `${small.length} photos are`} smaller than ${side}`,
        master('photos', 'Replace them'),
      ),
    ];
  }
  return [];
}

export function checkQuantity(value: ListingValue): Issue[] {
  if (typeof value.value === 'number' && value.value >= 1) return [];
  return [problem('quantity-none', 'quantity', 'Nothing is in stock', master('quantity', 'Add to stock'))];
}

export function checkParcel(value: ListingValue, rules: MarketRules): Issue[] {
  if (value.field === 'weightGrams') {
    if (!rules.weight?.required || value.value) return [];
    return [
      problem('weight-missing', 'weightGrams', 'The weight is needed for postage', master('weightGrams', 'Weigh it')),
    ];
  }
  if (!rules.size?.required || value.value) return [];
  return [problem('size-missing', 'size', 'The parcel size is needed for postage', master('lengthMm', 'Measure it'))];
}
