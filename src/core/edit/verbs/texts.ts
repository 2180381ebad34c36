import { z } from 'zod';
import { toRichText } from '../../listing/fit/rich-text';
import { cutAtWord } from './cut-at-word';
import { quoted } from './set';
import { defineVerb } from './verb';

const kinds = ['text', 'rich'] as const;
const piece = z.string().min(1, 'Type a text').max(10_000);
const textOf = (value: unknown): string => (typeof value === 'string' ? value : '');

/** A text put before or after one in HTML stands in a paragraph of its own when it looks like one. */
const joined = (before: string, after: string) => ({ to: before + after });

export const beforeVerb = defineVerb({
  name: 'before',
  label: 'Put before',
  kinds,
  schema: z.object({ verb: z.literal('before'), text: piece }).strict(),
  apply: ({ text }, value, { field }) =>
    field.kind.is === 'rich' ? joined(asParagraph(text), textOf(value)) : joined(text, textOf(value)),
  say: ({ text }) => `with ${quoted(text.trim())} before it`,
});

export const afterVerb = defineVerb({
  name: 'after',
  label: 'Put after',
  kinds,
  schema: z.object({ verb: z.literal('after'), text: piece }).strict(),
  apply: ({ text }, value, { field }) =>
    field.kind.is === 'rich' ? joined(textOf(value), asParagraph(text)) : joined(textOf(value), text),
  say: ({ text }) => `with ${quoted(text.trim())} after it`,
});

/** Plain words as HTML; what is HTML already stays. */
const asParagraph = (text: string): string => (/^\s*<(p|ul|ol|h[1-6])\b/i.test(text) ? text : toRichText(text));

/** Find and replace. Patterns are RE2's: they cannot backtrack for ever; `$1` in what is put is the first group. */
export const replaceVerb = defineVerb({
  name: 'replace',
  label: 'Find and replace',
  kinds,
  schema: z
    .object({
      verb: z.literal('replace'),
      find: z.string().min(1, 'Type what is looked for').max(500),
      put: z.string().max(10_000),
      /** `words`: as it stands; `pattern`: a regular expression, matched in linear time. */
      as: z.enum(['words', 'pattern']).default('words'),
      matchCase: z.boolean().default(false),
    })
    .strict(),
  apply: (args, value, { engines }) => engines.replaceIn(textOf(value), args),
  say: ({ find, put }) => (put ? `with ${quoted(put)} for ${quoted(find)}` : `without ${quoted(find)}`),
});

const cases = {
  upper: (text: string) => text.toLocaleUpperCase('en'),
  lower: (text: string) => text.toLocaleLowerCase('en'),
  words: (text: string) =>
    text
      .toLocaleLowerCase('en')
      .replace(/(^|[\s(/-])(\p{L})/gu, (_all, before: string, first: string) => before + first.toLocaleUpperCase('en')),
  sentence: (text: string) =>
    text
      .toLocaleLowerCase('en')
      .replace(
        /(^\s*|[.!?]\s+)(\p{L})/gu,
        (_all, before: string, first: string) => before + first.toLocaleUpperCase('en'),
      ),
};
export const caseLabels = { upper: 'CAPITALS', lower: 'small letters', words: 'Each Word', sentence: 'As a sentence' };

export const caseVerb = defineVerb({
  name: 'case',
  label: 'Change case',
  kinds: ['text'],
  schema: z.object({ verb: z.literal('case'), to: z.enum(['upper', 'lower', 'words', 'sentence']) }).strict(),
  apply: ({ to }, value) => ({ to: cases[to](textOf(value)) }),
  say: ({ to }) => `in ${caseLabels[to]}`,
});

export const cutVerb = defineVerb({
  name: 'cut',
  label: 'Cut to a length',
  kinds: ['text'],
  schema: z.object({ verb: z.literal('cut'), most: z.number().int().min(1).max(60_000) }).strict(),
  apply: ({ most }, value) => ({ to: cutAtWord(textOf(value), most) }),
  say: ({ most }) => `cut to ${most} characters`,
});
