import type { Actor } from '../../access/actor';
import { keepProducts } from './keep-products';

/** What is recognised within so long is kept together: each time it is, every account has to be read anew. */
const gatherMs = 1_000;

type Found = Parameters<typeof keepProducts>[2][number];
type Gathered = { actor: Actor; market: string; found: Map<string, Found> };

let gathered = new Map<string, Gathered>();
let kept: Promise<void> | null = null;

/** The same as `keepProducts` a moment later, with what is recognised meanwhile. Ends when it is kept. */
export function keepProductsSoon(actor: Actor, market: string, found: readonly Found[]): Promise<void> {
  if (found.length === 0) return Promise.resolve();
  const key = JSON.stringify([actor.name, market]);
  const some = gathered.get(key) ?? { actor, market, found: new Map<string, Found>() };
  gathered.set(key, some);
  for (const one of found) some.found.set(one.key, one);
  kept ??= keepGathered();
  return kept;
}

async function keepGathered(): Promise<void> {
  await new Promise((resolve) => setTimeout(resolve, gatherMs));
  const all = [...gathered.values()];
  gathered = new Map();
  kept = null;
  for (const { actor, market, found } of all) await keepProducts(actor, market, [...found.values()]);
}
