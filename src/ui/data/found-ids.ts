import type { FoundPage } from '@/services/records/items/find-items';
import { api, type RequestOf } from './api';

const atOnce = 500;

/** The numbers of the first items that a search finds, in its order, so many at most; some may be left out. */
export async function foundIds(
  search: RequestOf<'GET /items'>['query'],
  most: number,
  without: ReadonlySet<number> = new Set(),
): Promise<number[]> {
  const ids: number[] = [];
  for (let after: string | null = ''; after !== null && ids.length < most; ) {
    const limit = Math.min(atOnce, most - ids.length);
    const page: FoundPage = await api('GET /items', { query: { ...search, limit, after: after || undefined } });
    ids.push(...page.items.map((one) => one.id).filter((id) => !without.has(id)));
    after = page.next;
  }
  return ids;
}
