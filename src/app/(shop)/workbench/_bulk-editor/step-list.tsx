'use client';

import { X } from 'lucide-react';
import { useEffect, useRef } from 'react';
import type { Operation } from '@/core/edit/operation';
import type { RoundingName } from '@/core/measure/rounding';
import { opLabels, readStep, roundingLabels, type StepDraft, units } from './steps';

/** The steps of a change, carried out from top to bottom. */
export function StepList({ steps, change }: { steps: StepDraft[]; change: (steps: StepDraft[]) => void }) {
  const set = (key: number, part: Partial<StepDraft>) =>
    change(steps.map((step) => (step.key === key ? { ...step, ...part } : step)));
  // Where the hand goes next: the value of the first step, and of one that was just added.
  const last = useRef<HTMLInputElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another number of steps means another last one
  useEffect(() => last.current?.focus(), [steps.length]);
  return (
    <ol className="space-y-3">
      {steps.map((step, index) => {
        const read = readStep(step);
        const wrong = step.value !== '' && typeof read === 'string' ? read : '';
        const priced = step.op === 'price-percent' || step.op === 'price-amount';
        return (
          <li key={step.key} className="space-y-1.5 rounded border border-base-300 p-2">
            <div className="flex items-center gap-1">
              <select
                aria-label={`Step ${index + 1}`}
                className="select select-sm w-full"
                value={step.op}
                onChange={(event) => set(step.key, { op: event.target.value as Operation['op'] })}
              >
                {Object.entries(opLabels).map(([op, label]) => (
                  <option key={op} value={op}>
                    {label}
                  </option>
                ))}
              </select>
              {steps.length > 1 ? (
                <button
                  type="button"
                  aria-label={`Remove step ${index + 1}`}
                  className="btn btn-ghost btn-sm btn-square"
                  onClick={() => change(steps.filter((one) => one.key !== step.key))}
                >
                  <X size={14} aria-hidden="true" />
                </button>
              ) : null}
            </div>
            <label className="flex items-center gap-2">
              <span className="sr-only">{opLabels[step.op]}</span>
              <input
                ref={index === steps.length - 1 ? last : undefined}
                className={step.op === 'title-before' ? 'input input-sm w-full' : 'input input-sm figures w-28'}
                value={step.value}
                aria-invalid={wrong ? true : undefined}
                placeholder={step.op === 'price-percent' ? '-5' : ''}
                onChange={(event) => set(step.key, { value: event.target.value })}
              />
              <span className="quiet">{units[step.op]}</span>
            </label>
            {wrong ? (
              <p role="alert" className="text-error">
                {wrong}
              </p>
            ) : null}
            {priced ? (
              <div className="grid grid-cols-2 gap-2">
                <label className="flex flex-col gap-0.5">
                  <span className="quiet text-[12px]">Ending</span>
                  <select
                    className="select select-sm"
                    value={step.rounding}
                    onChange={(event) => set(step.key, { rounding: event.target.value as RoundingName })}
                  >
                    {Object.entries(roundingLabels).map(([name, label]) => (
                      <option key={name} value={name}>
                        {label}
                      </option>
                    ))}
                  </select>
                </label>
                <label className="flex flex-col gap-0.5">
                  <span className="quiet text-[12px]">Never under</span>
                  <input
                    className="input input-sm figures"
                    value={step.floor}
                    placeholder="no floor"
                    onChange={(event) => set(step.key, { floor: event.target.value })}
                  />
                </label>
              </div>
            ) : null}
          </li>
        );
      })}
      <li>
        <button
          type="button"
          className="btn btn-sm"
          onClick={() =>
            change([
              ...steps,
              {
                key: Math.max(0, ...steps.map((step) => step.key)) + 1,
                op: 'quantity-add',
                value: '',
                rounding: 'none',
                floor: '',
              },
            ])
          }
        >
          Add a step
        </button>
      </li>
    </ol>
  );
}
