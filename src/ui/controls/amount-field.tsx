'use client';

import { useEffect, useId, useState } from 'react';
import { amountToText, homeCurrency, parseAmount } from '@/core/measure/money';

const textOf = (amount: number | null) => (amount === null ? '' : amountToText(amount, homeCurrency));

/** An amount of the shop's own currency, or nothing; what is none says so and changes nothing. */
export function AmountField({
  label,
  amount,
  set,
}: {
  label: string;
  amount: number | null;
  set: (amount: number | null) => void;
}) {
  const [text, setText] = useState(textOf(amount));
  const [isWrong, setIsWrong] = useState(false);
  const id = useId();
  useEffect(() => setText((now) => (parseAmount(now, homeCurrency) === amount ? now : textOf(amount))), [amount]);
  return (
    <label className="block text-[12px]">
      {label}
      <input
        className="input input-sm figures w-full"
        inputMode="decimal"
        aria-invalid={isWrong || undefined}
        aria-describedby={isWrong ? id : undefined}
        value={text}
        onChange={(event) => {
          const typed = event.target.value;
          const read = typed.trim() === '' ? null : parseAmount(typed, homeCurrency);
          const isNone = typed.trim() !== '' && (read === null || read < 0);
          setText(typed);
          setIsWrong(isNone);
          if (!isNone) set(read);
        }}
      />
      {isWrong ? (
        <span id={id} className="text-error">
          No amount; write it as in 1.50
        </span>
      ) : null}
    </label>
  );
}
