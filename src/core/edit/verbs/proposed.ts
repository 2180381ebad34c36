import { z } from 'zod';
import { translateByTerms } from '../../wording/glossary';
import { defineVerb } from './verb';

const sides = ['lengthMm', 'widthMm', 'heightMm'] as const;
const isSide = (id: string): id is (typeof sides)[number] => sides.some((one) => one === id);

/** The sides of the box that it goes into; its weight with that of the box. */
export const boxVerb = defineVerb({
  name: 'box',
  label: 'Take from the box it goes into',
  kinds: ['weight', 'length'],
  fields: [...sides, 'weightGrams'],
  schema: z.object({ verb: z.literal('box') }).strict(),
  apply(_args, value, { field, box }) {
    const found = box?.() ?? null;
    if (!found) return { refused: 'None of the boxes holds it, or its sides are not known' };
    if (isSide(field.id)) return { to: found[field.id] };
    return typeof value === 'number' ? { to: value + found.grams } : { refused: 'It has no weight to add the box to' };
  },
  say: (_args, { field }) => (isSide(field.id) ? 'taken from the box it goes into' : 'with the box it goes into'),
});

/** The category that is suggested there, where it is certain enough; else it stays as it is. */
export const suggestVerb = defineVerb({
  name: 'suggest',
  label: 'Take the suggested one',
  kinds: ['choice', 'text'],
  fields: ['category'],
  schema: z.object({ verb: z.literal('suggest'), certainty: z.number().int().min(50).max(100).default(70) }).strict(),
  apply({ certainty }, value, { suggested }) {
    if (!suggested) return { refused: 'Categories are suggested account by account: choose accounts' };
    const best = suggested();
    return { to: best && best.certainty >= certainty ? best.id : value };
  },
  say: ({ certainty }) => `taken as suggested, from ${certainty} % certainty`,
});

/** Texts with one's own terms put in, in the language of the account: word for word, and nothing else. */
export const byTermsVerb = defineVerb({
  name: 'by-terms',
  label: 'Translate by your own terms',
  kinds: ['text', 'rich', 'list'],
  fields: ['title', 'description', 'highlights', 'tags'],
  schema: z.object({ verb: z.literal('by-terms') }).strict(),
  apply(_args, value, { terms }) {
    if (!terms) return { refused: 'Texts are translated account by account: choose accounts' };
    const known = terms();
    if (known === null) return { refused: 'Say on the account’s page in which language its texts are' };
    if (known.length === 0) return { refused: 'There are no terms in this language yet: write them in the settings' };
    const made = (text: unknown) => translateByTerms(String(text ?? ''), known).text;
    return { to: Array.isArray(value) ? value.map(made) : made(value) };
  },
  say: () => 'translated by your own terms',
});

/** Every combination that is meant gets what the first of them has: filled downwards, as in a spreadsheet. */
export const asFirstVerb = defineVerb({
  name: 'as-first',
  label: 'Fill down from the first',
  kinds: ['priceRule', 'whole', 'boolean', 'text'],
  fields: ['price', 'quantity', 'on', 'barcode'],
  schema: z.object({ verb: z.literal('as-first') }).strict(),
  apply: (_args, _value, { first }) =>
    first === undefined ? { refused: 'Only combinations are filled down' } : { to: first },
  say: () => 'filled down from the first of them',
});
