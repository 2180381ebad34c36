import type { CustomField } from '../item/custom-fields';
import { customFieldFault } from '../item/custom-fields';
import { type Json, jsonSchema } from '../json';
import { type Field, makeField } from './field';
import type { Kind } from './kind';

function kindOf(field: CustomField): Kind {
  switch (field.type) {
    case 'text':
      return { is: 'text', most: field.most ?? 300 };
    case 'long':
      return { is: 'text', most: field.most ?? 10_000, lines: true };
    case 'number':
      return { is: 'number', least: field.from, most: field.to };
    case 'choice':
      return { is: 'choice', choices: field.choices.map((one) => ({ id: one, label: one })) };
    case 'date':
      return { is: 'date' };
    case 'tags':
      return { is: 'list', most: field.most ?? 60, each: 300, words: true };
  }
}

const isNothing = (value: Json) => value === '' || (Array.isArray(value) && value.length === 0);

/** What was typed as if it could be read, so that the field itself says what is wrong with it. */
const roughly = ({ type }: CustomField, text: string): Json =>
  type === 'number' ? Number(text.replace(',', '.')) : type === 'tags' ? text.split(',') : text;

/** A field that the sellers have added, as an entry of the catalogue: `own.<key>`. Nothing written is null. */
export function ownField(custom: CustomField): Field {
  const schema = jsonSchema.superRefine((value, context) => {
    const fault = customFieldFault(custom, value);
    if (fault) context.addIssue({ code: 'custom', message: fault });
  });
  const field = makeField('item', `own.${custom.key}`, {
    label: custom.label,
    kind: kindOf(custom),
    schema,
    empty: null,
    traits: { inside: true, copied: custom.copied },
  });
  const nothing = (value: Json | undefined): Json => (value === undefined || isNothing(value) ? null : value);
  return {
    ...field,
    read(text, context) {
      const read = field.read(text, context);
      if ('value' in read) return { value: nothing(read.value) };
      return { problem: customFieldFault(custom, roughly(custom, text)) ?? `${custom.label}: ${read.problem}` };
    },
    same: (a, b) => field.same(nothing(a), nothing(b)),
  };
}
