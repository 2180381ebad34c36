import { amountToText, parseAmount } from '../../measure/money';
import { formatWeight, parseWeight } from '../../measure/weight';
import type { KindVerbs, Read } from '../kind';

const wholeNumber = (value: unknown): value is number => typeof value === 'number' && Number.isSafeInteger(value);
const nothing: Read = { value: null };
/** The most that an amount can be, in minor units. */
const mostMinor = 100_000_000_00;

export const moneyKind: KindVerbs<'money'> = {
  read(_kind, text, { currency }) {
    if (text.trim() === '') return nothing;
    const amount = parseAmount(text, currency);
    return amount === null || amount < 0 ? { problem: 'This is not an amount' } : { value: amount };
  },
  show: (_kind, value, { currency }) => (typeof value === 'number' ? amountToText(value, currency) : ''),
  fault: (_kind, value) =>
    !wholeNumber(value) || value < 0
      ? 'This is not an amount'
      : value > mostMinor
        ? `At most ${(mostMinor / 100).toLocaleString('en')}`
        : null,
};

const wholeSentence = (least: number) =>
  least < -1_000 ? 'A whole number is needed' : `A whole number from ${least} up`;

export const wholeKind: KindVerbs<'whole'> = {
  read(kind, text) {
    const clean = text.trim();
    if (clean === '') return nothing;
    if (!/^-?\d{1,12}$/.test(clean)) return { problem: wholeSentence(kind.least) };
    const fault = wholeKind.fault(kind, Number(clean));
    return fault ? { problem: fault } : { value: Number(clean) };
  },
  show: (_kind, value) => (value === null ? '' : String(value)),
  fault(kind, value) {
    if (!wholeNumber(value) || value < kind.least) return wholeSentence(kind.least);
    return value > kind.most ? `At most ${kind.most.toLocaleString('en')}` : null;
  },
};

export const numberKind: KindVerbs<'number'> = {
  read(kind, text) {
    const clean = text.trim();
    if (clean === '') return nothing;
    if (!/^-?(\d+([.,]\d*)?|[.,]\d+)(e[+-]?\d+)?$/i.test(clean)) return { problem: 'A number is needed' };
    const value = Number(clean.replace(',', '.'));
    const fault = numberKind.fault(kind, value);
    return fault ? { problem: fault } : { value };
  },
  show: (_kind, value) => (value === null ? '' : String(value)),
  fault(kind, value) {
    if (typeof value !== 'number' || !Number.isFinite(value)) return 'A number is needed';
    if (kind.least !== null && value < kind.least) return `At least ${kind.least}`;
    return kind.most !== null && value > kind.most ? `At most ${kind.most}` : null;
  },
};

export const weightKind: KindVerbs<'weight'> = {
  read(_kind, text) {
    if (text.trim() === '') return nothing;
    const grams = parseWeight(text);
    return grams === null ? { problem: 'Write 540 g, 1.2 kg or 1 lb 3 oz' } : { value: grams };
  },
  show: (_kind, value) => (typeof value === 'number' ? formatWeight(value) : ''),
  fault: (_kind, value) => (wholeNumber(value) && value >= 0 && value <= 1_000_000 ? null : 'A weight up to 1,000 kg'),
};
