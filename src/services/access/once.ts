import { createHash } from 'node:crypto';
import { setTimeout } from 'node:timers/promises';
import { eq } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { database, isDuplicate } from '../../db/client';
import { type Keyed, within } from '../../db/kept-once';
import { requestKey } from '../../db/schema';

const hashOf = (...parts: string[]) => createHash('sha256').update(JSON.stringify(parts)).digest('hex');

/** Longer answers are not kept: that the command was carried out is. */
const longestAnswer = 200_000;
/** So long who comes a second time waits for the answer of the first, and looks for it so often, in milliseconds. */
const patienceMs = 8_000;
const lookEveryMs = 100;

export type Told = { status: number; body: unknown };

/**
 * What a command was answered that came with this key before; null when nothing of it was done. The first may still be at
 * it, its connection cut: its answer is waited for, unless it is so old that it is not to come.
 */
async function before({ hash, what }: Keyed, keepsAnswer: boolean): Promise<Told | null> {
  const look = async () => (await database().select().from(requestKey).where(eq(requestKey.hash, hash)))[0];
  let row = await look();
  if (!row) return null;
  if (row.what !== what) throw new NettingError('conflict', 'This key was sent with another request before');
  const till = row.at.getTime() + patienceMs;
  while (keepsAnswer && row && row.status === null && Date.now() < till) {
    await setTimeout(lookEveryMs);
    row = await look();
  }
  if (row && row.answer !== null && row.status !== null) return { status: row.status, body: JSON.parse(row.answer) };
  throw new NettingError('too-late', 'This was begun already; its answer was lost on the way, or is yet to come', {
    fix: 'Look whether it is done before you ask for it anew',
  });
}

/**
 * Carries a command out once, however often it is sent with the same key: its first transaction keeps the key, so that who
 * comes again is told what came of it. A command that was refused did nothing, and may be sent again.
 * @param command the key as who asks made it up, who that is, and what is asked for
 * @param keepsAnswer what is shown once is kept nowhere: who asks again is told that it was begun
 */
export async function once(
  { key, whose, asked }: { key: string; whose: string; asked: string },
  keepsAnswer: boolean,
  run: () => Promise<Told>,
): Promise<Told> {
  const command: Keyed = { hash: hashOf(whose, key), what: hashOf(asked), state: 'open' };
  const known = await before(command, keepsAnswer);
  if (known) return known;
  let told: Told;
  try {
    told = await within(command, run);
  } catch (error) {
    // Somebody who came with the same key at the same moment was first.
    if (command.state === 'open' && isDuplicate(error)) {
      const first = await before(command, keepsAnswer);
      if (first) return first;
    }
    throw error;
  }
  if (command.state === 'kept' && keepsAnswer) {
    const whole = JSON.stringify(told.body ?? null);
    const answer = whole.length <= longestAnswer ? whole : null;
    await database().update(requestKey).set({ answer, status: told.status }).where(eq(requestKey.hash, command.hash));
  }
  return told;
}
