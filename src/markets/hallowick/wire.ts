import type { Content } from '../../core/listing';
import { amountToText, fromInches, fromPounds, parseAmount, toInches, toPounds } from '../../core/measure';
import { amount, attributes, attributesBack, extra, fieldsFrom, number, said, sidesFrom, text } from '../content';
import { variationsFromWire, variationsToWire } from '../variations';

const currency = 'EUR';

const euros = (value: unknown): string | null => (typeof value === 'number' ? amountToText(value, currency) : null);

/** Our content as Hallowick's fields: decimal prices, pounds and inches. */
export function toWire(content: Content, photoIds: string[]): Record<string, unknown> {
  const size = Array.isArray(content.size) ? content.size.map((side) => toInches(Number(side))) : null;
  const note = text(content, 'conditionNote');
  const price = amount(content, 'price');
  const isTimed = extra(content, 'format') === 'timed';
  return {
    reference: text(content, 'sku'),
    heading: text(content, 'title'),
    story: text(content, 'description'),
    brand: text(content, 'brand') || null,
    category: text(content, 'category'),
    details: attributes(content),
    condition: { grade: text(content, 'condition'), ...(note ? { note } : {}) },
    price: { value: price === null ? null : amountToText(price, currency), currency },
    stock: number(content, 'quantity'),
    pictures: photoIds,
    parcel: { pounds: toPounds(number(content, 'weightGrams')), ...(size ? { inches: size } : {}) },
    terms: {
      returns: extra(content, 'returns'),
      postage: extra(content, 'postage'),
      collection: extra(content, 'collection') === true,
      handlingDays: extra(content, 'handlingDays'),
    },
    offers: extra(content, 'offers') === true,
    declineBelow: euros(extra(content, 'declineBelow')),
    format: isTimed ? 'timed' : 'fixed',
    timed: isTimed ? { days: extra(content, 'timedDays'), reserve: euros(extra(content, 'reserve')) } : null,
    advertisingPercent: extra(content, 'advertising'),
    section: extra(content, 'section'),
    versions: variationsToWire(content, photoIds),
  };
}

export const wireFields = fieldsFrom(
  {
    variations: ['versions'],
    sku: ['reference'],
    title: ['heading'],
    description: ['story'],
    brand: ['brand'],
    category: ['category', 'details'],
    condition: ['condition/grade'],
    conditionNote: ['condition/note'],
    price: ['price'],
    quantity: ['stock'],
    photos: ['pictures'],
    weightGrams: ['parcel/pounds'],
    size: ['parcel/inches'],
    'extra.returns': ['terms/returns'],
    'extra.postage': ['terms/postage'],
    'extra.collection': ['terms/collection'],
    'extra.handlingDays': ['terms/handlingDays'],
    'extra.advertising': ['advertisingPercent'],
    'extra.offers': ['offers'],
    'extra.declineBelow': ['declineBelow'],
    'extra.format': ['format'],
    'extra.timedDays': ['timed/days'],
    'extra.reserve': ['timed/reserve'],
    'extra.section': ['section'],
  },
  'details',
);

type Nested = Record<string, unknown> | undefined;

/** What Hallowick shows, in our fields. */
export function fromWire(wire: Record<string, unknown>): Content {
  const price = wire.price as Nested;
  const condition = wire.condition as Nested;
  const parcel = wire.parcel as Nested;
  const timed = wire.timed as Nested;
  const terms = wire.terms as Nested; // nested objects of theirs; single values are checked by `said` and the comparisons
  return said({
    variations: variationsFromWire(wire.versions),
    sku: wire.reference,
    title: wire.heading,
    description: wire.story,
    brand: wire.brand,
    category: wire.category,
    condition: condition?.grade,
    conditionNote: condition?.note,
    price: parseAmount(String(price?.value ?? ''), currency),
    quantity: wire.stock,
    weightGrams: typeof parcel?.pounds === 'number' ? fromPounds(parcel.pounds) : null,
    size: sidesFrom(parcel?.inches, fromInches),
    'extra.returns': terms?.returns,
    'extra.postage': terms?.postage,
    'extra.collection': terms?.collection,
    'extra.handlingDays': terms?.handlingDays,
    'extra.advertising': wire.advertisingPercent,
    'extra.offers': wire.offers,
    'extra.declineBelow': parseAmount(String(wire.declineBelow ?? ''), currency),
    'extra.format': wire.format ?? 'fixed',
    'extra.timedDays': timed?.days,
    'extra.reserve': parseAmount(String(timed?.reserve ?? ''), currency),
    'extra.section': wire.section,
    ...attributesBack(wire.details),
  });
}
