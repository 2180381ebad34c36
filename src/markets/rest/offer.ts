import { z } from 'zod';
import { offerStates } from '../../core/sync';
import type { RemoteOffer } from '../connector';

export const offerSchema = z.object({
  id: z.string().max(60),
  listing: z.string().max(60),
  amount: z.number().int().min(0),
  buyer: z.string().max(200),
  words: z.string().max(2_000),
  createdAt: z.iso.datetime(),
  deadline: z.iso.datetime(),
  state: z.enum(offerStates),
  counter: z.number().int().nullable(),
});

export const offerOf = (wire: z.infer<typeof offerSchema>): RemoteOffer => ({
  offerId: wire.id,
  remoteListingId: wire.listing,
  amount: wire.amount,
  buyer: wire.buyer.slice(0, 120),
  words: wire.words.slice(0, 1_000),
  madeAt: new Date(wire.createdAt),
  deadline: new Date(wire.deadline),
  state: wire.state,
  counter: wire.counter,
});
