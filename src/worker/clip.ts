import { NettingError, rootWords } from '../core/errors';
import type { Content } from '../core/listing';
import { priorities } from '../core/sync';
import type { Connector } from '../markets';
import { hasClip, readClip } from '../photos/clip';
import type { JobRow } from './claim';
import { keepUpload, type Lane, uploadsOf } from './prepare';

/** So long a job waits for the task that makes its clip; then it makes it itself. In milliseconds. */
const clipPatienceMs = 60_000;
const clipPauseMs = 2_000;

/** A clip's bytes: one that is being made is waited for, as who makes films must not keep back what is sold. */
async function filmFor(row: JobRow, hash: string): Promise<Buffer> {
  const isPressing = row.priority <= priorities.quantity || Date.now() - row.createdAt.getTime() > clipPatienceMs;
  if (!isPressing && !(await hasClip(hash)))
    throw new NettingError('market-busy', 'Its clip is being made', { field: 'clip', retryAfterMs: clipPauseMs });
  return readClip(hash).catch((error: unknown) => {
    throw new NettingError('not-ready', `Its clip cannot be made: ${rootWords(error)}`, {
      field: 'clip',
      fix: 'Take the clip off, or make it anew',
    });
  });
}

/** The marketplace's number of the clip, which is uploaded first where they do not have it; undefined where there is none. */
export async function clipIdOf(
  lane: Lane,
  connector: Connector,
  row: JobRow,
  content: Content,
): Promise<string | undefined> {
  const hash = content.clip;
  if (typeof hash !== 'string' || hash === '' || !connector.uploadClip) return undefined;
  const [known] = await uploadsOf(lane, [hash]);
  if (known) return known.remoteId;
  const remoteId = await connector.uploadClip(lane.session, await filmFor(row, hash));
  await keepUpload(lane, hash, remoteId);
  return remoteId;
}
