import { eq, sql } from 'drizzle-orm';
import type { NettingError } from '../../core/errors';
import { transaction } from '../../db/client';
import { listing } from '../../db/schema';
import type { JobRow } from '../claim';
import { close, told } from './close';

/** Nobody can mend it by waiting: the reason stays with the listing until a person did something. */
export async function finishFailed(
  row: JobRow,
  worker: string,
  error: Pick<NettingError, 'code' | 'message' | 'facts'>,
): Promise<void> {
  const { facts } = error;
  // A refusal settles it, also that of a repeat: nothing was made. Otherwise it may be open still, and the next job for the
  // listing looks before it repeats.
  const isOpen = row.request?.kind === 'create' && error.code !== 'market-refused';
  await transaction(async (tx) => {
    const closed = await close(tx, row, worker, {
      state: 'failed',
      errorCode: error.code,
      message: error.message.slice(0, 500),
      fix: facts.fix?.slice(0, 300) ?? null,
      field: facts.field?.slice(0, 80) ?? null,
      request: isOpen ? row.request : null,
      story: told(row, error.message),
    });
    if (closed && !isOpen)
      await tx
        .update(listing)
        .set({ remote: sql`if(remote = 'maybe', 'none', remote)` })
        .where(eq(listing.id, row.listingId));
  });
}
