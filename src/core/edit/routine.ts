import { z } from 'zod';
import { filterSchema } from '../filter';
import { stepSchema } from './step';

const isZone = (name: string): boolean => {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name });
    return true;
  } catch {
    return false;
  }
};

/** When a routine is carried out by itself. */
export const routinePlanSchema = z
  .object({
    every: z.enum(['day', 'week']),
    /** 0 is Sunday; of a daily plan it says nothing. */
    weekday: z.number().int().min(0).max(6),
    /** Of the clock of `zone`. */
    time: z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'Write a time such as 07:30'),
    /** IANA time zone, such as Europe/Lisbon. */
    zone: z.string().max(60).refine(isZone, 'There is no such time zone'),
    /** Where more items than that would change, nothing is done, and a person is told. */
    most: z.number().int().min(1).max(1_000_000),
    /** It is only counted, and nothing changed, until a person has seen what it would do. */
    isTrial: z.boolean(),
  })
  .strict();
export type RoutinePlan = z.infer<typeof routinePlanSchema>;

/** A series of steps with what they are for, under a name. */
export const routineSchema = z
  .object({
    name: z.string().trim().min(1, 'Give it a name').max(80),
    filter: filterSchema,
    steps: z.array(stepSchema).min(1, 'Add a step').max(20),
    /** Also send what it changes. */
    send: z.boolean(),
  })
  .strict();
export type Routine = z.infer<typeof routineSchema>;

export const routineFileFormat = 'netting-routine-1';

/**
 * A routine as a file, for another shop. Accounts have numbers only here, so they are said by their marketplace and name,
 * in the order of `accounts`; steps and filter name them by their place in it, beginning with 1.
 */
export const routineFileSchema = z
  .object({
    format: z.literal(routineFileFormat),
    accounts: z.array(z.object({ market: z.string().max(40), name: z.string().max(80) }).strict()).max(100),
    routine: routineSchema,
  })
  .strict();
export type RoutineFile = z.infer<typeof routineFileSchema>;

/** The offset of a zone's clock from UTC at a moment, in milliseconds. */
function offsetAt(zone: string, at: number): number {
  const parts = new Intl.DateTimeFormat('en-US', {
    timeZone: zone,
    hourCycle: 'h23',
    year: 'numeric',
    month: 'numeric',
    day: 'numeric',
    hour: 'numeric',
    minute: 'numeric',
    second: 'numeric',
  }).formatToParts(at);
  const of = (type: string) => Number(parts.find((part) => part.type === type)?.value);
  const local = Date.UTC(of('year'), of('month') - 1, of('day'), of('hour'), of('minute'), of('second'));
  return local - Math.floor(at / 1_000) * 1_000;
}

const dayMs = 86_400_000;

/** The next time of a plan after a moment. An hour that the clock leaves out in spring comes an hour later. */
export function nextDue({ every, weekday, time, zone }: RoutinePlan, after: Date): Date {
  const [hours = 0, minutes = 0] = time.split(':').map(Number);
  const localDay = Math.floor((after.getTime() + offsetAt(zone, after.getTime())) / dayMs);
  for (let day = localDay; ; day++) {
    // The first of January 1970 was a Thursday.
    if (every === 'week' && (day + 4) % 7 !== weekday) continue;
    const local = day * dayMs + hours * 3_600_000 + minutes * 60_000;
    const guess = local - offsetAt(zone, local);
    const due = local - offsetAt(zone, guess);
    if (due > after.getTime()) return new Date(due);
  }
}

/** Steps and filter with other numbers of accounts; undefined where an account has none. */
export function withAccounts<T>(value: T, numberOf: (account: number) => number | undefined): T | undefined {
  let isLost = false;
  const number = (one: number) => {
    const found = numberOf(one);
    if (found === undefined) isLost = true;
    return found ?? 0;
  };
  const walk = (part: unknown): unknown => {
    if (Array.isArray(part)) return part.map(walk);
    if (typeof part !== 'object' || part === null) return part;
    return Object.fromEntries(
      Object.entries(part).map(([key, inner]) => {
        if (key === 'where' && isOnAccounts(inner)) return [key, { ...inner, accounts: inner.accounts.map(number) }];
        if (key === 'listing' && isOfAccount(inner)) return [key, { ...inner, account: number(inner.account) }];
        return [key, walk(inner)];
      }),
    );
  };
  const walked = walk(value);
  return isLost ? undefined : (walked as T); // the same shape, with other numbers in it
}

const isOnAccounts = (part: unknown): part is { accounts: number[] } =>
  typeof part === 'object' && part !== null && 'accounts' in part && Array.isArray(part.accounts);
const isOfAccount = (part: unknown): part is { account: number } =>
  typeof part === 'object' && part !== null && 'account' in part && typeof part.account === 'number';

/** The accounts that steps and filter name, each once. */
export function accountsIn(value: unknown): number[] {
  const found = new Set<number>();
  withAccounts(value, (account) => {
    found.add(account);
    return account;
  });
  return [...found];
}
