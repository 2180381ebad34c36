import type { Operation } from '@/core/edit/operation';
import { amountToText, formatMoney, parseAmount } from '@/core/measure/money';
import type { RoundingName } from '@/core/measure/rounding';

export type StepDraft = { key: number; op: Operation['op']; value: string; rounding: RoundingName; floor: string };

export const opLabels: Record<Operation['op'], string> = {
  'price-percent': 'Change price by percent',
  'price-amount': 'Change price by an amount',
  'price-set': 'Set price to',
  'quantity-add': 'Add to stock',
  'quantity-set': 'Set stock to',
  'title-before': 'Put before the title',
};

export const units: Record<Operation['op'], string> = {
  'price-percent': '%',
  'price-amount': 'EUR',
  'price-set': 'EUR',
  'quantity-add': 'units',
  'quantity-set': 'units',
  'title-before': '',
};

export const roundingLabels: Record<RoundingName, string> = {
  none: 'As it is',
  whole: 'Whole',
  half: '.00, .50',
  ninetyNine: '.99',
  ninety: '.90',
};

/** What was typed as an operation, or why it is none yet. */
export function readStep(draft: StepDraft): Operation | string {
  const text = draft.value.trim().replace(/^\+/, '').replace('−', '-');
  const options = {
    rounding: draft.rounding,
    floor: draft.floor.trim() === '' ? null : parseAmount(draft.floor, 'EUR'),
  };
  switch (draft.op) {
    case 'price-percent': {
      const percent = Number(text.replace(',', '.').replace('%', ''));
      if (text === '' || !Number.isFinite(percent) || percent === 0) return 'Type a percentage such as -5';
      if (percent <= -99 || percent > 1_000) return 'Between -98 and 1000 percent';
      return { op: draft.op, basisPoints: Math.round(percent * 100), ...options };
    }
    case 'price-amount': {
      const amount = parseAmount(text, 'EUR');
      return amount === null || amount === 0 ? 'Type an amount such as -2.50' : { op: draft.op, amount, ...options };
    }
    case 'price-set': {
      const amount = parseAmount(text, 'EUR');
      return amount === null || amount < 1 ? 'Type a price' : { op: draft.op, amount };
    }
    case 'quantity-add':
      return /^-?\d{1,6}$/.test(text) && Number(text) !== 0
        ? { op: draft.op, delta: Number(text) }
        : 'Type a number such as 3 or -1';
    case 'quantity-set':
      return /^\d{1,6}$/.test(text) ? { op: draft.op, quantity: Number(text) } : 'Type a number';
    case 'title-before':
      return draft.value.trim() === '' ? 'Type a text' : { op: draft.op, text: `${draft.value.trim()} ` };
  }
}

/** A step in words, as it stands in the history. */
export function sayStep(step: Operation): string {
  switch (step.op) {
    case 'price-percent':
      return `price ${step.basisPoints > 0 ? '+' : '−'}${Math.abs(step.basisPoints) / 100} %`;
    case 'price-amount':
      return `price ${step.amount > 0 ? '+' : '−'}${amountToText(Math.abs(step.amount), 'EUR')}`;
    case 'price-set':
      return `price set to ${formatMoney(step.amount, 'EUR')}`;
    case 'quantity-add':
      return `stock ${step.delta > 0 ? '+' : '−'}${Math.abs(step.delta)}`;
    case 'quantity-set':
      return `stock set to ${step.quantity}`;
    case 'title-before':
      return `“${step.text.trim()}” before the title`;
  }
}
