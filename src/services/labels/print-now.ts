import type { LabelRequest } from '../../core/label';
import { database } from '../../db/client';
import type { Actor } from '../access/actor';
import { previewLabels } from './print-labels';
import { queuePrint } from './print-queue';
import { printWaiting } from './print-waiting';

/** Puts labels into the printer's queue, and begins to print. What the first pages show cannot be made is refused before; further on the job is stopped with its reason. */
export async function printLabels(actor: Actor, request: LabelRequest): Promise<{ id: number; count: number }> {
  const { count } = await previewLabels(request);
  const title = `${count} ${count === 1 ? 'label' : 'labels'}`;
  const { id } = await queuePrint(database(), actor.name, request, title);
  void printWaiting().catch(() => undefined);
  return { id, count };
}
