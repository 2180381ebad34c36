import type { Answer } from '@/http/interface';

export type View = Answer<'GET /consignments/{id}'>;
export type Shipment = View['shipments'][number];
export type Plan = View['plans'][number];
export type BoxView = Shipment['boxes'][number];

export const kilograms = (grams: number): string =>
  `${(grams / 1_000).toLocaleString('en', { maximumFractionDigits: 2 })} kg`;

export const unitsText = (count: number): string => `${count.toLocaleString('en')} ${count === 1 ? 'unit' : 'units'}`;
