import { z } from 'zod';
import { ownValue } from '../../json';
import { quoted, writableKinds } from './set';
import { defineVerb } from './verb';

export const translateVerb = defineVerb({
  name: 'translate',
  label: 'Turn one into another',
  kinds: ['choice', 'text'],
  schema: z.object({ verb: z.literal('translate'), from: z.string().max(300), to: z.string().max(300) }).strict(),
  apply: ({ from, to }, value) => ({ to: (value ?? '') === from ? to : value }),
  say: ({ from, to }, { field, currency }) =>
    `${quoted(field.show(to, { currency }))} where it was ${quoted(field.show(from, { currency }))}`,
});

export const shiftVerb = defineVerb({
  name: 'shift',
  label: 'Shift by days',
  kinds: ['date'],
  schema: z.object({ verb: z.literal('shift'), days: z.number().int().min(-36_500).max(36_500) }).strict(),
  apply({ days }, value, { field, engines }) {
    const to = typeof value === 'string' ? engines.shiftDay(value, days) : null;
    return to === null ? { refused: `It has no ${field.label.toLowerCase()} to shift` } : { to };
  },
  say: ({ days }) => `${days > 0 ? '+' : '−'}${Math.abs(days)} ${Math.abs(days) === 1 ? 'day' : 'days'}`,
});

const name = z.string().trim().min(1, 'Name it').max(60);
const mapOf = (value: unknown): Record<string, string> =>
  typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Record<string, string>) : {}; // a map field holds texts by name

export const setNameVerb = defineVerb({
  name: 'set-name',
  label: 'Set one of them',
  kinds: ['map'],
  schema: z.object({ verb: z.literal('set-name'), name, text: z.string().trim().min(1).max(300) }).strict(),
  apply: ({ name: key, text }, value) => ({ to: { ...mapOf(value), [key]: text } }),
  say: ({ name: key, text }) => `${key} set to ${quoted(text)}`,
});

export const removeNameVerb = defineVerb({
  name: 'remove-name',
  label: 'Remove one of them',
  kinds: ['map'],
  schema: z.object({ verb: z.literal('remove-name'), name }).strict(),
  apply: ({ name: key }, value) => ({
    to: Object.fromEntries(Object.entries(mapOf(value)).filter(([one]) => one !== key)),
  }),
  say: ({ name: key }) => `without ${key}`,
});

export const renameValueVerb = defineVerb({
  name: 'rename-value',
  label: 'Rename a value',
  kinds: ['map'],
  schema: z
    .object({
      verb: z.literal('rename-value'),
      name,
      from: z.string().trim().min(1),
      to: z.string().trim().min(1).max(300),
    })
    .strict(),
  apply({ name: key, from, to }, value) {
    const now = mapOf(value);
    return { to: ownValue(now, key) === from ? { ...now, [key]: to } : now };
  },
  say: ({ name: key, from, to }) => `${key}: ${quoted(to)} where it was ${quoted(from)}`,
});

export const takeVerb = defineVerb({
  name: 'take',
  label: 'Take from another field',
  kinds: writableKinds,
  schema: z.object({ verb: z.literal('take'), from: z.string().min(1).max(80) }).strict(),
  apply({ from }, _value, { field, fieldAt, engines }) {
    const other = fieldAt(from);
    if (other === undefined) return { refused: `There is no field ${from} to take from` };
    if (field.kind.is === 'text' && typeof other === 'string' && other.includes('<'))
      return { to: engines.toPlainText(other) };
    if (field.kind.is === 'text' && typeof other === 'number') return { to: String(other) };
    return { to: other };
  },
  say: ({ from }) => `taken from ${from}`,
});

const isRule = (value: unknown): value is { kind: 'own' | 'difference'; amount: number } =>
  typeof value === 'object' && value !== null && 'kind' in value && 'amount' in value;

export const priceRuleVerb = defineVerb({
  name: 'more',
  label: 'Cost more or less',
  kinds: ['priceRule'],
  schema: z.object({ verb: z.literal('more'), amount: z.number().int().min(-100_000_000).max(100_000_000) }).strict(),
  apply({ amount }, value) {
    const now = isRule(value) ? value : { kind: 'difference' as const, amount: 0 };
    const sum = now.amount + amount;
    return { to: now.kind === 'difference' && sum === 0 ? null : { kind: now.kind, amount: sum } };
  },
  say: ({ amount }, { field, currency }) => field.show({ kind: 'difference', amount }, { currency }),
});
