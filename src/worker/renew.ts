import { NettingError } from '../core/errors';
import { planListing } from '../core/sync';
import type { Connector } from '../markets';
import type { computeRow } from '../services/records/listings/compute-row';
import type { JobRow } from './claim';
import { takePlace } from './new-listings';
import { finishFailed } from './outcome/finish-failed';
import { finishGone } from './outcome/finish-gone';
import { postpone } from './outcome/postpone';
import { storeEnded } from './outcome/store-ended';
import { freeze, type Lane, type ListingRow } from './prepare';

/**
 * The first half of a renewal. Nothing is ended that could not be made anew right away.
 * @returns whether it is ended and its second half may begin; else the job has been closed or put off
 */
export async function endForRenewal(
  lane: Lane,
  connector: Connector,
  row: JobRow,
  stored: ListingRow,
  computed: ReturnType<typeof computeRow>,
): Promise<boolean> {
  const { worker, account } = lane;
  const fresh = planListing({ wanted: 'live', remote: 'none' }, computed, null);
  if (fresh.kind !== 'create') {
    const issue = computed.issues.find((one) => one.blocks);
    const why = `It could not be made anew, so it stays: ${issue?.message ?? 'it is not ready'}`;
    await finishFailed(row, worker, new NettingError('not-ready', why, { field: issue?.field, fix: issue?.fix.label }));
    return false;
  }
  const pause = await takePlace(account, row.id);
  if (pause) {
    await postpone(row, worker, pause.ms, new NettingError('market-busy', pause.why), { countsAsAttempt: false });
    return false;
  }
  const remoteId = stored.remoteId ?? '';
  const now = await connector.read(lane.session, remoteId);
  if (now.state === 'sold') {
    await finishGone(row, worker, stored.itemId, 'sold');
    return false;
  }
  if (now.state === 'live' && now.offersOpen > 0) {
    const offers = `${now.offersOpen} open ${now.offersOpen === 1 ? 'offer' : 'offers'}`;
    throw new NettingError('market-blocked', `${account.compiled.rules.name}: ${offers} there, so it is not ended`, {
      fix: 'Settle the offers on the marketplace, then try again',
    });
  }
  if (now.state === 'live') {
    const { key } = await freeze(lane, row, {
      kind: 'end',
      content: {},
      fields: [],
      photoIds: [],
      firstSentAt: new Date().toISOString(),
    });
    await (connector.remove ?? connector.end)(lane.session, remoteId, key);
  }
  await storeEnded(row, worker, 'renewed');
  return true;
}
