import { randomUUID } from 'node:crypto';
import type { KitView, LotView } from '../../src/services/kits/find-kit';
import { accounts, call, until } from './stack';

/** The account whose catalogue says what sets hold. */
export async function lotAccount(): Promise<number> {
  const found = (await accounts()).find((one) => one.market === 'lotbarn');
  if (!found) throw new Error('no account with sets');
  return found.id;
}

export async function newKit(more: Record<string, unknown> = {}): Promise<number> {
  const { status, body } = await call<{ id: number }>('POST', '/kits', {
    name: `Outfits ${randomUUID().slice(0, 8)}`,
    ...more,
  });
  if (status >= 300) throw new Error(`no sets were begun: ${JSON.stringify(body)}`);
  return body.id;
}

export const kitOf = async (id: number): Promise<KitView> => (await call<KitView>('GET', `/kits/${id}`)).body;

export const lotsIn = async (id: number): Promise<LotView[]> =>
  (await call<{ lots: LotView[] }>('GET', `/kits/${id}/lots?limit=2000`)).body.lots;

type Contents = { text: string } | { entry: string } | { file: string } | { kit: number };
export type Added = {
  pieces: number;
  made: number;
  added: number;
  joined: { name: string; lines: number }[];
  renumbered: { was: string; now: string }[];
};

export async function put(id: number, contents: Contents, more: Record<string, unknown> = {}) {
  const from =
    'text' in contents
      ? { is: 'text', ...contents }
      : 'file' in contents
        ? { is: 'file', text: contents.file }
        : 'kit' in contents
          ? { is: 'kit', ...contents }
          : { is: 'catalogue', ...contents };
  return call<Added & { title: string; field?: string }>('POST', `/kits/${id}/contents`, {
    from,
    times: 1,
    with: ['spare'],
    condition: 'good',
    ...more,
  });
}

/** Writes the same into every lot that fits. */
export async function setLots(
  id: number,
  set: (lot: LotView, index: number) => Record<string, unknown> | null,
): Promise<{ changed: { id: number }[]; refused: { id: number; why: string }[] }> {
  const lots = (await lotsIn(id)).flatMap((lot, index) => {
    const some = set(lot, index);
    return some ? [{ id: lot.id, baseVersion: lot.version, set: some }] : [];
  });
  const { status, body } = await call<{ changed: { id: number }[]; refused: { id: number; why: string }[] }>(
    'PATCH',
    `/kits/${id}/lots`,
    { lots },
  );
  if (status >= 300) throw new Error(`not changed: ${JSON.stringify(body)}`);
  return body;
}

export type Begun = { taskId: number; runId: number; lots: number; title: string; fix?: string };
export type Came = { made: number; added: number; changed: number; left: { name: string; why: string }[] };

/** Begins long work on sets and waits until it is over; what came of it. */
export async function worked<T = Came>(
  id: number,
  what: 'pricing' | 'stock' | 'there',
  body: Record<string, unknown> = {},
): Promise<T & { runId: number }> {
  const begun = await call<Begun>('POST', `/kits/${id}/${what}`, body);
  if (begun.status >= 300) throw new Error(`nothing was begun: ${JSON.stringify(begun.body)}`);
  const { task } = await until(
    () => kitOf(id),
    (kit) => kit.task?.id === begun.body.taskId && ['done', 'failed', 'stopped'].includes(kit.task.state),
  );
  if (task?.state !== 'done') throw new Error(`it ended as ${task?.state}: ${task?.message}`);
  return { ...(task.result as T), runId: begun.body.runId };
}
