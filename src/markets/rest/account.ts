import { z } from 'zod';
import type { MarketRules } from '../../core/rules';
import type { RestManner } from './manner';

export const accountSchema = z.object({
  name: z.string().min(1).max(120),
  exceptions: z.record(z.string(), z.unknown()),
  lockedUntil: z.number().nullish(),
  warned: z.boolean().optional(),
});

export const ownListsSchema = z.record(z.string(), z.array(z.object({ id: z.string(), label: z.string() })));

/**
 * The parts of the rules that come out otherwise for one account: whichever limits it has of its own, and the sections,
 * collections, places and profiles that are named in its shop.
 */
export function partsWith(
  manner: Pick<RestManner, 'rules'>,
  published: unknown,
  own: { limits: Record<string, number>; lists: z.infer<typeof ownListsSchema> },
): Partial<MarketRules> | undefined {
  const rules = z
    .looseObject({ limits: z.record(z.string(), z.number()), lists: z.record(z.string(), z.unknown()) })
    .parse(published);
  const usual = manner.rules(published);
  const mine = manner.rules({
    ...rules,
    limits: { ...rules.limits, ...own.limits },
    lists: { ...rules.lists, ...own.lists },
  });
  const parts = Object.entries(mine).filter(
    ([part, value]) => JSON.stringify(value) !== JSON.stringify(usual[part as keyof MarketRules]), // keys of the same
  );
  return parts.length ? Object.fromEntries(parts) : undefined;
}
