'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import type { AccountView } from '@/services/accounts/find-accounts';
import { usePageActions } from '@/ui/frame/actions';
import { StepCard } from './step-card';
import { newStep, type StepDraft } from './steps';
import type { CatalogueOf } from './use-catalogue';

/** The steps of a change, carried out from top to bottom. */
export function StepList({
  steps,
  change,
  catalogueOf,
  accounts,
}: {
  steps: StepDraft[];
  change: (steps: StepDraft[]) => void;
  catalogueOf: CatalogueOf;
  accounts: AccountView[];
}) {
  const set = (key: number, part: Partial<StepDraft>) =>
    change(steps.map((step) => (step.key === key ? { ...step, ...part } : step)));
  const nextKey = Math.max(0, ...steps.map((step) => step.key)) + 1;
  const move = (from: number, to: number) => {
    const moved = [...steps];
    const [one] = moved.splice(from, 1);
    if (one) moved.splice(to, 0, one);
    change(moved);
  };
  /** The step that is being dragged, and the one over which it is. */
  const [dragged, setDragged] = useState<number | null>(null);
  const [over, setOver] = useState<number | null>(null);
  const drop = () => {
    if (dragged !== null && over !== null && dragged !== over) move(dragged, over);
    setDragged(null);
    setOver(null);
  };
  // Where the hand goes next: the first box of a step that was just added here.
  const list = useRef<HTMLOListElement>(null);
  const [added, setAdded] = useState(0);
  useEffect(() => {
    // Of a new step the field, of a page that has just opened the value.
    const where = added ? '[data-step-field]' : '[data-step-input]';
    list.current?.querySelector<HTMLElement>(`li:nth-last-child(2) ${where}`)?.focus();
  }, [added]);
  const add = useRef(() => {});
  add.current = () => {
    change([...steps, newStep(nextKey, { field: 'quantity', verb: 'add' })]);
    setAdded(added + 1);
  };
  usePageActions(
    useMemo(
      () => [{ label: 'Add a step', hint: 'To the change of many', keys: 'Alt A', run: () => add.current() }],
      [],
    ),
  );
  return (
    <ol ref={list} className="space-y-3">
      {steps.map((step, index) => (
        <StepCard
          key={step.key}
          step={step}
          number={index + 1}
          catalogue={catalogueOf(step)}
          accounts={accounts}
          set={(part) => set(step.key, part)}
          copy={() => change([...steps.slice(0, index + 1), { ...step, key: nextKey }, ...steps.slice(index + 1)])}
          remove={steps.length > 1 ? () => change(steps.filter((one) => one.key !== step.key)) : null}
          up={index > 0 ? () => move(index, index - 1) : null}
          down={index < steps.length - 1 ? () => move(index, index + 1) : null}
          drag={
            steps.length > 1
              ? {
                  begin: () => setDragged(index),
                  over: () => dragged !== null && setOver(index),
                  end: drop,
                  isOver: dragged !== null && over === index && dragged !== index,
                }
              : null
          }
        />
      ))}
      <li>
        <button type="button" className="btn btn-sm" onClick={() => add.current()} title="Alt A">
          Add a step
        </button>
      </li>
    </ol>
  );
}
