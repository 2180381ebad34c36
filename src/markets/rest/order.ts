import { z } from 'zod';
import { shareOut } from '../../core/price';
import type { RemoteOrder } from '../connector';

const lineSchema = z.object({
  listing: z.string().max(60),
  reference: z.string().max(100),
  title: z.string().max(1_000),
  quantity: z.number().int().positive(),
  unitPrice: z.number().int(),
  total: z.number().int(),
  fee: z.number().int(),
  variant: z.object({ values: z.array(z.string().max(100)).max(5), number: z.string().max(60) }).nullish(),
});
export const orderSchema = lineSchema.extend({
  id: z.string().max(60),
  currency: z.string().length(3),
  /** Of the whole order: what the buyer paid for postage, and what was taken off. */
  postage: z.number().int().min(0).optional(),
  discount: z.number().int().min(0).optional(),
  label: z.number().int().min(0).optional(),
  collected: z.boolean().optional(),
  personal: z.string().max(1_000).optional(),
  buyerTown: z.string().max(200),
  createdAt: z.number(),
  updatedAt: z.number().optional(),
  /** They have more states than we know: unpaid, partly refunded. */
  state: z.string().max(200).default('paid'),
  /** Everything that was bought, where it is more than the order itself names. */
  lines: z.array(lineSchema).min(1).max(500).optional(),
});

export const orderPageSchema = z.object({
  orders: z.array(z.looseObject({ id: z.string().max(60) })),
  serverTime: z.iso.datetime(),
  next: z.string().max(60).nullish(),
});

export function linesOf(wire: z.infer<typeof orderSchema>): RemoteOrder[] {
  const lines = wire.lines ?? [wire];
  const weights = lines.map((one) => one.total);
  const postage = shareOut(wire.postage ?? 0, weights);
  const discount = shareOut(wire.discount ?? 0, weights);
  const parcel = shareOut(1_000_000, weights);
  const label = shareOut(wire.label ?? 0, weights);
  return lines.map((one, line) => ({
    orderId: wire.id,
    line,
    remoteListingId: one.listing,
    sku: one.reference.slice(0, 40),
    title: one.title.slice(0, 300),
    quantity: one.quantity,
    unitPrice: one.unitPrice,
    total: one.total,
    fee: one.fee,
    buyerPostage: postage[line] ?? 0,
    discount: discount[line] ?? 0,
    parcelShare: (parcel[line] ?? 0) / 1_000_000,
    label: label[line] ?? 0,
    collected: wire.collected ?? false,
    personal: wire.personal?.slice(0, 400) ?? null,
    currency: wire.currency,
    buyerTown: wire.buyerTown.slice(0, 80),
    variation: one.variant ?? null,
    soldAt: new Date(wire.createdAt),
    changedAt: new Date(wire.updatedAt ?? wire.createdAt),
    cancelled: wire.state === 'cancelled',
    rawState: wire.state === 'paid' || wire.state === 'cancelled' ? null : wire.state.slice(0, 40),
  }));
}
