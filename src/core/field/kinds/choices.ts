import { z } from 'zod';
import type { KindVerbs } from '../kind';

const isDay = (value: unknown) => z.iso.date().safeParse(value).success;

export const dateKind: KindVerbs<'date'> = {
  read(_kind, text) {
    const clean = text.trim();
    if (clean === '') return { value: null };
    return isDay(clean) ? { value: clean } : { problem: 'Write 2026-11-23' };
  },
  show: (_kind, value) => (value === null ? '' : String(value)),
  fault: (_kind, value) => (isDay(value) ? null : 'This is not a day'),
};

export const choiceKind: KindVerbs<'choice'> = {
  read({ choices }, text) {
    const clean = text.trim();
    if (clean === '') return { value: null };
    const low = clean.toLowerCase();
    // The id first: one choice may be called as another is numbered.
    const found = choices.find((one) => one.id === clean) ?? choices.find((one) => one.label.toLowerCase() === low);
    return found ? { value: found.id } : { problem: `“${clean}” is not in the list` };
  },
  show({ choices }, value) {
    const found = choices.find((one) => one.id === value);
    if (!found) return value === null ? '' : String(value);
    // A label that does not lead back to the choice is no way to write it.
    const label = found.label.trim();
    const again = choiceKind.read({ is: 'choice', choices }, label, { currency: '' });
    return label && 'value' in again && again.value === found.id ? label : found.id;
  },
  fault: ({ choices }, value) =>
    typeof value === 'string' && choices.some((one) => one.id === value) ? null : 'One of the list is needed',
};

export const booleanKind: KindVerbs<'boolean'> = {
  read({ words = ['Yes', 'No'] }, text) {
    const clean = text.trim();
    if (clean === '') return { value: null };
    const said = words.findIndex((word) => word.toLowerCase() === clean.toLowerCase());
    if (said >= 0) return { value: said === 0 };
    if (/^(yes|true|1|on|x)$/i.test(clean)) return { value: true };
    if (/^(no|false|0|off|-)$/i.test(clean)) return { value: false };
    return { problem: `Write ${words[0].toLowerCase()} or ${words[1].toLowerCase()}` };
  },
  show: ({ words = ['Yes', 'No'] }, value) => (value === null ? '' : value ? words[0] : words[1]),
  fault: (_kind, value) => (typeof value === 'boolean' ? null : 'Yes or no is needed'),
};
