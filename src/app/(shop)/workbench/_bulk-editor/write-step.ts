import type { Step } from '@/core/edit';
import { type Catalogue, type Field, fieldsFor } from '@/core/field';
import type { Axis } from '@/core/item/variations';
import type { Json } from '@/core/json';
import { amountToText } from '@/core/measure/money';
import { fieldsAt, newStep, type StepDraft, saidNamed } from './steps';
import { type VerbInput, verbInputs } from './verb-inputs';

const currency = 'EUR';
const sign = (value: number, text: string) => (value > 0 ? `+${text}` : text);

/** One argument as it is typed. */
function typedAs(input: VerbInput, value: Json, field: Field): string {
  if (value === null) return '';
  switch (input.as) {
    case 'check':
      return value === true ? 'yes' : '';
    case 'value':
      // A choice stands there by its own name, whatever it is called.
      if (field.kind.is === 'choice') return String(value);
      return field.show(value, { currency });
    case 'money':
    case 'net':
      return typeof value === 'number' ? amountToText(value, currency) : '';
    case 'signed money':
      return typeof value === 'number' ? sign(value, amountToText(value, currency)) : '';
    case 'percent':
    case 'share':
      return typeof value === 'number' ? String(value / 100) : '';
    case 'change':
      return typeof value === 'number' ? `${value < 0 ? '-' : ''}${field.show(Math.abs(value), { currency })}` : '';
    case 'layer':
    case 'apart':
      return JSON.stringify(value);
    case 'places':
    case 'order':
      return Array.isArray(value) ? value.join(', ') : '';
    case 'entries':
      return Array.isArray(value) ? value.join(', ') : '';
    case 'text':
      return String(value).trim();
    case 'axes':
      return saidNamed(Object.fromEntries((value as Axis[]).map((axis) => [axis.name, axis.values]))); // the step's own axes
    default:
      return String(value);
  }
}

const plain = fieldsFor();

/** A step as it stands in the boxes: what `readStep` reads as the same step again. */
export function writeStep(step: Step, key: number, catalogue: Catalogue = plain): StepDraft {
  const { field: id, where, do: what } = step;
  const field = fieldsAt(where.on, catalogue).find((one) => one.id === id);
  const args = what as unknown as Record<string, Json>; // arguments of steps are JSON
  const typed = field
    ? Object.fromEntries(
        verbInputs[what.verb].map((input) => [input.name, typedAs(input, args[input.name] ?? null, field)]),
      )
    : {};
  return newStep(key, {
    field: id,
    on: where.on,
    accounts: where.on === 'accounts' ? where.accounts : [],
    combinations: where.on === 'combinations' ? saidNamed(where.of) : '',
    verb: what.verb,
    typed,
  });
}
