import { z } from 'zod';
import { config } from '../../../config';
import { NettingError } from '../../../core/errors';
import type { Tariff } from '../../../core/price';
import { database } from '../../../db/client';
import { tariff } from '../../../db/schema';
import { recheckPostage } from '../../records/listings/recheck-postage';

const tariffAnswerSchema = z.object({
  currency: z.literal('EUR'),
  carriers: z.array(
    z.object({
      id: z.string().max(40),
      name: z.string().max(80),
      volumeDivisor: z.number().positive(),
      steps: z.array(z.object({ upToGrams: z.number().int(), cents: z.number().int() })).min(1),
      bands: z.record(z.string(), z.number()),
      longestMm: z.number().int(),
    }),
  ),
});

/** Reads how the carriers compute, so that quotes need no request each. */
export async function refreshTariffs(): Promise<Tariff[]> {
  const answer = await fetch(`${config.marketsUrl}/carriers/api/tariff`, {
    signal: AbortSignal.timeout(10_000),
    redirect: 'error',
  }).catch(() => null);
  if (!answer?.ok) throw new NettingError('market-unreachable', 'The carriers did not answer');
  const { carriers } = tariffAnswerSchema.parse(await answer.json());
  for (const doc of carriers)
    await database()
      .insert(tariff)
      .values({ carrier: doc.id, doc, readAt: new Date() })
      .onDuplicateKeyUpdate({ set: { doc, readAt: new Date() } });
  await recheckPostage();
  return carriers;
}
