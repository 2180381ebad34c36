import type { FoundPage } from '../../src/services/gathering/find-found';
import type { GatheringView } from '../../src/services/gathering/find-gathering';
import { call, until } from './stack';

/** Reads what is listed on an account, and what of it is not in yet. */
export async function survey(account: number): Promise<FoundPage> {
  await call('POST', `/accounts/${account}/found`);
  return until(
    async () => (await call<FoundPage>('GET', `/found?account=${account}&only=open&limit=100`)).body,
    (page) => page.reading === null,
    60_000,
  );
}

/** Begins to bring these in; null where there is nothing to bring in. */
export async function bringIn(ids: number[]): Promise<number | null> {
  const { status, body } = await call<{ id: number }>('POST', '/gatherings', { choices: [{ ids }], mode: 'at-once' });
  return status < 300 ? body.id : null;
}

/** A bringing in once it is over, or asks. */
export const settled = (id: number): Promise<GatheringView> =>
  until(
    async () => (await call<GatheringView>('GET', `/gatherings/${id}`)).body,
    (one) => one.state !== 'working',
    120_000,
  );

/** Answers every question as it is known, and goes on until nothing is asked any more. */
export async function decided(
  id: number,
  isSame: (a: string, b: string) => boolean,
): Promise<{ view: GatheringView; asked: number }> {
  let view = await settled(id);
  let asked = 0;
  for (let round = 0; round < 6 && view.state === 'asking'; round++) {
    for (const { id: question, a, b } of view.questions) {
      asked++;
      await call('PUT', `/match-questions/${question}`, { answer: isSame(a.key, b.key) ? 'same' : 'different' });
    }
    await call('POST', `/gatherings/${id}/go-on`);
    view = await settled(id);
  }
  return { view, asked };
}
