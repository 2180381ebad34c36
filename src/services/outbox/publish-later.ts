import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import type { Actor } from '../access/actor';
import { publishSchema } from '../listings/publish/publish-schema';
import { startTask } from '../records/tasks/start-task';

export const publishLaterSchema = z.object({ publish: publishSchema, at: z.iso.datetime() }).strict();

/** Publishes at a time: what is ready then is sent then, as it is then. */
export async function publishLater(
  actor: Actor,
  input: z.infer<typeof publishLaterSchema>,
  title: string,
): Promise<{ id: number }> {
  const at = new Date(input.at);
  const now = new Date();
  if (at <= now) throw new NettingError('invalid', 'This time has passed', { field: 'at', fix: 'Choose a later time' });
  if (at.getTime() - now.getTime() > 366 * 86_400_000)
    throw new NettingError('invalid', 'At most a year ahead', { field: 'at' });
  const { id } = await startTask(database(), actor, {
    kind: 'publish',
    title,
    input: input.publish,
    total: 1,
    dueAt: at,
  });
  return { id };
}
