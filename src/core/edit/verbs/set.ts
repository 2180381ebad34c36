import { z } from 'zod';
import type { KindName } from '../../field';
import { jsonSchema } from '../../json';
import { defineVerb } from './verb';

export const writableKinds: readonly KindName[] = [
  'text',
  'rich',
  'money',
  'whole',
  'number',
  'weight',
  'length',
  'date',
  'choice',
  'boolean',
  'list',
  'map',
  'priceRule',
];

/** The field holds this from now on. */
export const setVerb = defineVerb({
  name: 'set',
  label: 'Set to',
  kinds: writableKinds,
  schema: z.object({ verb: z.literal('set'), value: jsonSchema }).strict(),
  apply: ({ value }) => ({ to: value }),
  say: ({ value }, { field, currency }) => `set to ${quoted(field.show(value, { currency }))}`,
});

/** Nothing is written in the field from now on. */
export const clearVerb = defineVerb({
  name: 'clear',
  label: 'Clear',
  kinds: [...writableKinds, 'clip'],
  schema: z.object({ verb: z.literal('clear') }).strict(),
  apply: (_args, value, { field }) =>
    field.traits.ledger ? { refused: 'Stock is a number: set it to 0' } : { to: value === null ? null : field.empty },
  say: () => 'cleared',
});

/** Short enough to stand in a sentence. */
export const quoted = (text: string): string => `“${text.length > 40 ? `${text.slice(0, 39)}…` : text}”`;
