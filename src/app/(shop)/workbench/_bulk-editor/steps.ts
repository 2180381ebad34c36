import type { argumentFault } from '@/core/edit/argument-fault';
import { type Step, stepFault, stepSchema, type Where } from '@/core/edit/step';
import type { VerbName } from '@/core/edit/verbs';
import { type Catalogue, type Field, fieldsFor } from '@/core/field';
import type { Json } from '@/core/json';
import { parseAmount } from '@/core/measure/money';
import { type VerbInput, verbInputs } from './verb-inputs';

/** A step as it is being written: what stands in its boxes. */
export type StepDraft = {
  key: number;
  field: string;
  on: Where['on'];
  accounts: number[];
  /** `Size: Large, XL; Colour: Tan`; empty for all combinations. */
  combinations: string;
  verb: VerbName | 'follow';
  typed: Record<string, string>;
  /** Kept, and not carried out. */
  off: boolean;
};

export const newStep = (key: number, part: Partial<StepDraft> = {}): StepDraft => ({
  key,
  field: 'price',
  on: 'item',
  accounts: [],
  combinations: '',
  verb: 'percent',
  typed: {},
  off: false,
  ...part,
});

/** Whether a step is the one that sets a field of the item, or of one account, to one value. */
export const isSetting = (step: StepDraft, field: string, account: number | null): boolean =>
  step.field === field &&
  step.verb === 'set' &&
  (account === null ? step.on === 'item' : step.on === 'accounts' && step.accounts.join() === String(account));

/** Nothing was typed into it, and nothing chosen. */
const isUntouched = (step: StepDraft): boolean =>
  step.verb === 'percent' && Object.values(step.typed).every((one) => !one);

/** Steps with one that sets a field to what was typed; nothing typed takes it away again. */
export function withSet(steps: StepDraft[], field: string, account: number | null, text: string): StepDraft[] {
  const known = steps.find((step) => isSetting(step, field, account));
  if (known && text !== '')
    return steps.map((step) => (step === known ? { ...step, typed: { ...step.typed, value: text } } : step));
  const others = steps.filter((step) => step !== known && !(text !== '' && isUntouched(step)));
  if (text === '') return others.length ? others : [newStep(1)];
  const key = Math.max(0, ...steps.map((step) => step.key)) + 1;
  const where = account === null ? {} : { on: 'accounts' as const, accounts: [account] };
  return [...others, newStep(key, { field, verb: 'set', typed: { value: text }, ...where })];
}

/** Why a step is none yet, and which box it is about. `isOpen`: nothing was typed there so far. */
export type StepProblem = { problem: string; input: string | null; isOpen: boolean };
export const isProblem = (read: Step | StepProblem): read is StepProblem => 'problem' in read;

const currency = 'EUR';
const closed = ['combinations', 'size'];

/** Fields that steps may change at a place, in the order of the sheet. */
export const fieldsAt = (on: Where['on'], catalogue: Catalogue): Field[] => {
  const place = on === 'item' ? 'item' : on === 'combinations' ? 'combination' : 'listing';
  return catalogue.fields.filter(
    (field) => field.on === place && !closed.includes(field.kind.is) && field.id !== 'own' && !field.traits.byItself,
  );
};

/** The field of another place that holds the same: an item's keywords are a listing's tags. */
export function sameAt(id: string, on: Where['on'], catalogue: Catalogue): string {
  const fields = fieldsAt(on, catalogue);
  const item = catalogue.item(id);
  const found =
    fields.find((field) => field.id === id) ??
    fields.find((field) => field.id === item?.traits.sent || field.traits.sent === id) ??
    fields[0];
  return found?.id ?? id;
}

/** Boxes that are not typed into. */
const chosen: readonly string[] = ['picture', 'layer', 'badge'];

function jsonOf(text: string): Json {
  try {
    return JSON.parse(text) as Json; // whatever it is, the step's own schema checks it
  } catch {
    return null;
  }
}

const signed = (text: string) => text.trim().replace(/^\+/, '').replace('−', '-');

/** One box, read; a string is what is wrong with it. */
function readInput(input: VerbInput, text: string, field: Field, verb: string): { value: Json } | string {
  const clean = text.trim();
  if (input.as === 'check') return { value: clean === 'yes' };
  if (input.as === 'choice') return { value: clean || (input.choices?.[0]?.[0] ?? '') };
  if (input.as === 'apart') return { value: clean ? (jsonOf(clean) ?? {}) : {} };
  if (clean === '' && input.optional) return { value: input.as === 'words' ? '' : null };
  if (clean === '' && !(verb === 'translate' || (input.as === 'value' && field.kind.is === 'text')))
    return `${chosen.includes(input.as) ? 'Choose' : 'Type'} ${input.label.toLowerCase()}`;
  switch (input.as) {
    case 'value': {
      const read = field.read(text, { currency });
      return 'value' in read ? { value: verb === 'translate' ? (read.value ?? '') : read.value } : read.problem;
    }
    case 'text':
      return { value: field.kind.is === 'rich' ? text : verb === 'before' ? `${clean} ` : beside(clean) };
    case 'words':
      return { value: verb === 'replace' ? text : clean };
    case 'money': {
      const amount = parseAmount(clean, currency);
      return amount === null || amount < 0 ? 'This is not an amount' : { value: amount };
    }
    case 'net': {
      const sum = parseAmount(signed(clean).replace(/^-/, ''), currency);
      return sum === null ? 'This is not an amount' : { value: signed(clean).startsWith('-') ? -sum : sum };
    }
    case 'signed money': {
      const amount = parseAmount(signed(clean), currency);
      return amount === null || amount === 0 ? 'Type an amount such as -2.50' : { value: amount };
    }
    case 'percent': {
      const percent = Number(signed(clean).replace(',', '.').replace('%', ''));
      if (!Number.isFinite(percent) || percent === 0) return 'Type a percentage such as -5';
      return percent <= -99 || percent > 1_000 ? 'Between -98 and 1000 percent' : { value: Math.round(percent * 100) };
    }
    case 'share': {
      const percent = Number(clean.replace(',', '.').replace('%', ''));
      return percent > 0 ? { value: Math.round(percent * 100) } : 'Type a percentage such as 95';
    }
    case 'number': {
      const number = Number(signed(clean).replace(',', '.'));
      return Number.isFinite(number) ? { value: number } : 'Type a number';
    }
    case 'change': {
      const sign = signed(clean).startsWith('-') ? -1 : 1;
      const read = field.read(signed(clean).replace(/^-/, ''), { currency });
      if ('problem' in read) return read.problem;
      return typeof read.value === 'number' && read.value !== 0
        ? { value: sign * read.value }
        : 'Type a number such as 3 or -1';
    }
    case 'entries':
      return { value: clean.split(/[,\n]/).flatMap((one) => (one.trim() ? [one.trim()] : [])) };
    case 'field':
    case 'picture':
      return { value: clean };
    case 'badge':
      return { value: Number(clean) };
    case 'layer':
      return { value: jsonOf(clean) };
    case 'places':
    case 'order': {
      const places = clean.split(/[\s,;]+/).map((one) => Number(signed(one)));
      return places.every((one) => Number.isInteger(one) && one !== 0)
        ? { value: places }
        : 'Write places such as 3, 1, 2';
    }
    case 'axes': {
      const of = namedValues(clean);
      return of
        ? { value: Object.entries(of).map(([name, values]) => ({ name, values })) }
        : 'Write Size: Small, Large; Colour: tan';
    }
  }
}

/** Words after a text stand apart from it; a sign such as a comma does not. */
const beside = (text: string) => (/^[,.;:!?)]/.test(text) ? text : ` ${text}`);

function readWhere({ on, accounts, combinations }: StepDraft): Where | string {
  if (on === 'accounts') return accounts.length ? { on, accounts } : 'Choose an account';
  if (on !== 'combinations') return { on };
  const of = namedValues(combinations);
  return of ? { on, of } : 'Write Size: Large, XL';
}

/** `Size: Large, XL; Colour: tan` as names with their values; null where it is not written so. */
function namedValues(text: string): Record<string, string[]> | null {
  const of: Record<string, string[]> = {};
  for (const part of text.split(';').filter((one) => one.trim())) {
    const [name = '', values = ''] = part.split(':');
    const wanted = values.split(',').flatMap((one) => (one.trim() ? [one.trim()] : []));
    if (!name.trim() || wanted.length === 0) return null;
    of[name.trim()] = wanted;
  }
  return of;
}

/** Values under their names, as they are typed. */
export const saidNamed = (of: Record<string, readonly string[]>): string =>
  Object.entries(of)
    .map(([name, values]) => `${name}: ${values.join(', ')}`)
    .join('; ');

const plain = fieldsFor();

/** What was written as a step, or why it is none yet. `faultOf`: what cannot be read in its arguments. */
export function readStep(
  draft: StepDraft,
  catalogue: Catalogue = plain,
  faultOf?: typeof argumentFault,
): Step | StepProblem {
  const where = readWhere(draft);
  if (typeof where === 'string') return { problem: where, input: null, isOpen: draft.on === 'accounts' };
  const field = fieldsAt(draft.on, catalogue).find((one) => one.id === draft.field) ?? catalogue.item(draft.field);
  if (!field) return { problem: 'Choose a field', input: null, isOpen: true };
  const args: Record<string, Json> = {};
  for (const input of verbInputs[draft.verb]) {
    if (['rounding', 'floor', 'ceiling'].includes(input.name) && field.kind.is !== 'money' && draft.verb === 'formula')
      continue;
    const text = draft.typed[input.name] ?? '';
    const read = readInput(input, text, field, draft.verb);
    if (typeof read === 'string') return { problem: read, input: input.name, isOpen: text.trim() === '' };
    args[input.name] = read.value;
  }
  const step = stepSchema.safeParse({ field: draft.field, where, do: { verb: draft.verb, ...args } });
  if (!step.success) {
    const [issue] = step.error.issues;
    return {
      problem: issue?.message ?? 'This cannot be done',
      input: String(issue?.path.at(-1) ?? '') || null,
      isOpen: false,
    };
  }
  const fault = stepFault(step.data, catalogue);
  if (fault) return { problem: fault, input: null, isOpen: false };
  const wrong = step.data.do.verb === 'follow' ? null : faultOf?.(step.data.do);
  return wrong ? { problem: wrong.message, input: wrong.argument, isOpen: false } : step.data;
}
