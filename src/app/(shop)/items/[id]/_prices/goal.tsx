'use client';

import { useMemo, useState } from 'react';
import { parseAmount } from '@/core/measure/money';
import { type RoundingName, roundingNames } from '@/core/measure/rounding';

const goals = [
  { id: 'net', label: 'Net of' },
  { id: 'margin', label: 'Margin of, %' },
  { id: 'return', label: 'Return on cost of, %' },
] as const;
const endings = [
  { id: 'none', label: 'to the cent' },
  { id: 'whole', label: 'whole' },
  { id: 'half', label: '.50' },
  { id: 'ninety', label: '.90' },
  { id: 'ninetyNine', label: '.99' },
] as const;

type GoalId = (typeof goals)[number]['id'];

/** What is to be left, how the price shall end, what it never goes under; amounts in the items' currency. */
export function useGoal(currency: string) {
  const [goal, setGoal] = useState<GoalId>('net');
  const [wanted, setWanted] = useState('');
  const [rounding, setRounding] = useState<RoundingName>('ninety');
  const [floor, setFloor] = useState('');
  const amount = wanted
    ? goal === 'net'
      ? parseAmount(wanted, currency)
      : Math.round(Number(wanted.replace(',', '.')) * 100)
    : null;
  const lowest = parseAmount(floor, currency);
  const query = useMemo(
    () => ({
      ...(amount === null || Number.isNaN(amount) ? {} : { goal, amount }),
      rounding,
      floor: lowest ?? undefined,
    }),
    [amount, goal, rounding, lowest],
  );
  return {
    query,
    typed: { goal, wanted, rounding, floor },
    isUnread: {
      wanted: wanted.trim() !== '' && (amount === null || Number.isNaN(amount)),
      floor: floor.trim() !== '' && lowest === null,
    },
    type: { goal: setGoal, wanted: setWanted, rounding: setRounding, floor: setFloor },
  };
}

/** The four fields in which a wanted net, margin or return is typed. */
export function GoalFields({
  goal: { typed, type, isUnread },
  currency,
}: {
  goal: ReturnType<typeof useGoal>;
  currency: string;
}) {
  return (
    <>
      <label className="flex flex-col text-[12px]">
        Price for a
        <select
          className="select select-sm w-40"
          value={typed.goal}
          onChange={(event) => type.goal(goals.find(({ id }) => id === event.target.value)?.id ?? 'net')}
        >
          {goals.map(({ id, label }) => (
            <option key={id} value={id}>
              {label}
            </option>
          ))}
        </select>
      </label>
      <label className="flex flex-col text-[12px]">
        {typed.goal === 'net' ? `Wanted, ${currency}` : 'Wanted, %'}
        <input
          className="input input-sm figures w-24"
          inputMode="decimal"
          aria-invalid={isUnread.wanted}
          value={typed.wanted}
          onChange={(event) => type.wanted(event.target.value)}
        />
      </label>
      <label className="flex flex-col text-[12px]">
        Ending
        <select
          className="select select-sm w-28"
          value={typed.rounding}
          onChange={(event) => type.rounding(roundingNames.find((one) => one === event.target.value) ?? 'none')}
        >
          {endings.map((one) => (
            <option key={one.id} value={one.id}>
              {one.label}
            </option>
          ))}
        </select>
      </label>
      <label className="flex flex-col text-[12px]">
        {`Never under, ${currency}`}
        <input
          className="input input-sm figures w-28"
          inputMode="decimal"
          aria-invalid={isUnread.floor}
          value={typed.floor}
          onChange={(event) => type.floor(event.target.value)}
        />
      </label>
    </>
  );
}
