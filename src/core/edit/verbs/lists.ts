import { z } from 'zod';
import { quoted } from './set';
import { defineVerb } from './verb';

const entry = z.string().trim().min(1).max(300);
const entries = z.array(entry).min(1, 'Name at least one').max(60);
const listOf = (value: unknown): string[] => (Array.isArray(value) ? value.map(String) : []);
const folded = (text: string) => text.trim().toLocaleLowerCase('en');
const said = (all: readonly string[]) => quoted(all.join(', '));

/** Each entry once, as it was first written. */
function once(all: readonly string[]): string[] {
  const seen = new Set<string>();
  return all.filter((one) => !seen.has(folded(one)) && seen.add(folded(one)));
}

export const addToVerb = defineVerb({
  name: 'add-to',
  label: 'Add',
  kinds: ['list'],
  schema: z.object({ verb: z.literal('add-to'), entries, first: z.boolean().default(false) }).strict(),
  apply({ entries: added, first }, value) {
    const now = listOf(value);
    const here = new Set(now.map(folded));
    const fresh = once(added).filter((one) => !here.has(folded(one)));
    return { to: first ? [...fresh, ...now] : [...now, ...fresh] };
  },
  say: ({ entries: added }) => `with ${said(added)}`,
});

export const removeFromVerb = defineVerb({
  name: 'remove-from',
  label: 'Remove',
  kinds: ['list'],
  schema: z.object({ verb: z.literal('remove-from'), entries }).strict(),
  apply({ entries: removed }, value) {
    const gone = new Set(removed.map(folded));
    return { to: listOf(value).filter((one) => !gone.has(folded(one))) };
  },
  say: ({ entries: removed }) => `without ${said(removed)}`,
});

export const replaceInVerb = defineVerb({
  name: 'replace-in',
  label: 'Replace',
  kinds: ['list'],
  schema: z.object({ verb: z.literal('replace-in'), find: entry, put: entry }).strict(),
  apply({ find, put }, value) {
    const now = listOf(value);
    if (!now.some((one) => folded(one) === folded(find))) return { to: now };
    return { to: once(now.map((one) => (folded(one) === folded(find) ? put : one))) };
  },
  say: ({ find, put }) => `with ${quoted(put)} for ${quoted(find)}`,
});

export const sortVerb = defineVerb({
  name: 'sort',
  label: 'Put in order',
  kinds: ['list'],
  schema: z.object({ verb: z.literal('sort'), by: z.enum(['name', 'name-back', 'length']) }).strict(),
  apply({ by }, value) {
    const name = (a: string, b: string) => a.localeCompare(b, 'en', { sensitivity: 'base', numeric: true });
    const order = by === 'name' ? name : by === 'name-back' ? (a: string, b: string) => name(b, a) : byLength;
    return { to: listOf(value).sort(order) };
  },
  say: ({ by }) => (by === 'length' ? 'shortest first' : by === 'name' ? 'from A to Z' : 'from Z to A'),
});
const byLength = (a: string, b: string) => a.length - b.length;

export const keepFirstVerb = defineVerb({
  name: 'keep-first',
  label: 'Keep the first',
  kinds: ['list', 'photos'],
  schema: z.object({ verb: z.literal('keep-first'), count: z.number().int().min(0).max(60) }).strict(),
  apply: ({ count }, value) => ({ to: listOf(value).slice(0, count) }),
  say: ({ count }) => `the first ${count} only`,
});
