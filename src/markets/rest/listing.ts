import { z } from 'zod';
import type { RemoteListing } from '../connector';
import type { RestManner } from './manner';

const listingSchema = z.looseObject({
  id: z.string(),
  state: z.enum(['live', 'ended', 'sold', 'review', 'refused', 'paused', 'off']),
  reasons: z.array(z.object({ detail: z.string().max(1_000), pointer: z.string().max(200).optional() })).optional(),
  link: z.url({ protocol: /^https?$/ }),
  called: z.string().max(1_000).optional(),
  photoLinks: z
    .array(z.object({ id: z.string().max(80), link: z.url({ protocol: /^https?$/ }).max(500) }))
    .max(200)
    .optional(),
  createdAt: z.iso.datetime().nullish(),
  renewsAt: z.iso.datetime().nullish(),
  offersOpen: z.number().int().min(0).max(30_000).optional(),
  endsAt: z.iso.datetime().nullish(),
  bids: z.number().int().min(0).max(30_000).optional(),
  highestBid: z.number().int().nullish(),
});
export const pageSchema = z.object({ listings: z.array(listingSchema), next: z.string().nullable() });

/** The parts of a manner that read listings and orders, for connectors that send in another way. */
export function listingReader(
  manner: Pick<RestManner, 'skuOf' | 'fromWire' | 'wireFields'>,
): (wire: unknown) => RemoteListing {
  return (wire) => {
    const parsed = listingSchema.parse(wire);
    return {
      remoteId: parsed.id,
      url: parsed.link,
      state: parsed.state === 'paused' ? 'ended' : parsed.state,
      reasons: parsed.reasons?.map(({ detail, pointer }) => ({
        text: detail,
        field: pointer === undefined ? undefined : (manner.wireFields.back(pointer) ?? undefined),
      })),
      called: parsed.called ?? '',
      photos: (parsed.photoLinks ?? []).map(({ id, link }) => ({ id, url: link })),
      madeAt: parsed.createdAt ? new Date(parsed.createdAt) : null,
      renewsAt: parsed.renewsAt ? new Date(parsed.renewsAt) : null,
      offersOpen: parsed.offersOpen ?? 0,
      endsAt: parsed.endsAt ? new Date(parsed.endsAt) : null,
      bids: parsed.bids ?? 0,
      highestBid: parsed.highestBid ?? null,
      sku: manner.skuOf(parsed),
      content: manner.fromWire(parsed),
    };
  };
}
