'use client';

import { useState } from 'react';
import { StepInput } from '@/app/(shop)/workbench/_bulk-editor/step-input';
import { isProblem, newStep, readStep, type StepDraft } from '@/app/(shop)/workbench/_bulk-editor/steps';
import { useArgumentFault } from '@/app/(shop)/workbench/_bulk-editor/use-argument-fault';
import { verbInputs } from '@/app/(shop)/workbench/_bulk-editor/verb-inputs';
import { verbsFor } from '@/core/edit/verbs';
import { fieldsFor } from '@/core/field';
import { lotStepFields } from '@/core/kit/steps-on-lot';
import type { LotView } from '@/services/kits/find-kit';
import { Dialog } from '@/ui/controls/dialog';
import { api } from '@/ui/data/api';
import { countedAre } from '@/ui/data/counted';
import { submitted, useCommand } from '@/ui/data/use-command';

const catalogue = fieldsFor();
const fields = lotStepFields.flatMap((id) => catalogue.item(id) ?? []);
/** What asks for more than a lot has. */
const elsewhere: readonly string[] = [
  'follow-sales',
  'solve',
  'as-first',
  'take',
  'fill',
  'translate',
  'suggest',
  'by-terms',
  'box',
];

type Props = { kitId: number; lots: LotView[]; close: () => void };

/** The steps of the workbench, on lots. */
export function StepsDialog({ kitId, lots, close }: Props) {
  const [drafts, setDrafts] = useState<StepDraft[]>([newStep(1)]);
  const faultOf = useArgumentFault(drafts);
  const read = drafts.map((draft) => readStep(draft, catalogue, faultOf));
  const steps = read.flatMap((one) => (isProblem(one) ? [] : [one]));
  const isWhole = steps.length === read.length;
  const [refused, setRefused] = useState<string[]>([]);
  const change = useCommand(
    async () => {
      const done = await api('POST /kits/{id}/steps', {
        params: { id: kitId },
        body: { lots: lots.map(({ id, version }) => ({ id, baseVersion: version })), steps },
      });
      const names = new Map(lots.map((lot) => [lot.id, lot.name]));
      setRefused(done.refused.map((one) => `${names.get(one.id) ?? ''}: ${one.why}`));
      if (done.refused.length === 0) close();
      return `${countedAre(done.changed.length, 'lot')} changed`;
    },
    {
      touches: [
        ['kit-lots', kitId],
        ['kit', kitId],
      ],
    },
  );
  const set = (key: number, part: Partial<StepDraft>) =>
    setDrafts(drafts.map((one) => (one.key === key ? { ...one, ...part } : one)));
  return (
    <Dialog title={`Change ${lots.length.toLocaleString('en')} lots`} close={close}>
      <form className="space-y-3" onSubmit={submitted(() => change.run())}>
        {drafts.map((draft, at) => {
          const field = fields.find((one) => one.id === draft.field);
          const problem = read[at];
          const wrong = problem && isProblem(problem) && !problem.isOpen ? problem : null;
          const verbs = field ? verbsFor(field.kind.is, field.id).filter((one) => !elsewhere.includes(one.name)) : [];
          return (
            <fieldset key={draft.key} className="space-y-2 rounded border border-base-300 p-2">
              <legend className="sr-only">Step {at + 1}</legend>
              <div className="grid grid-cols-2 gap-2">
                <select
                  className="select select-sm w-full"
                  aria-label={`Field of step ${at + 1}`}
                  value={draft.field}
                  onChange={(event) => {
                    const next = fields.find((one) => one.id === event.target.value);
                    const [first] = next ? verbsFor(next.kind.is, next.id) : [];
                    set(draft.key, { field: event.target.value, verb: first?.name ?? 'set', typed: {} });
                  }}
                >
                  {fields.map((one) => (
                    <option key={one.id} value={one.id}>
                      {one.id === 'conditionNote' ? 'Comment for buyers' : one.id === 'location' ? 'Place' : one.label}
                    </option>
                  ))}
                </select>
                <select
                  className="select select-sm w-full"
                  aria-label={`Step ${at + 1}`}
                  value={draft.verb}
                  onChange={
                    (event) => set(draft.key, { verb: event.target.value as StepDraft['verb'], typed: {} }) // one of the options below
                  }
                >
                  {verbs.map((one) => (
                    <option key={one.name} value={one.name}>
                      {one.label}
                    </option>
                  ))}
                </select>
              </div>
              {field ? (
                <div className="grid grid-cols-2 gap-2">
                  {verbInputs[draft.verb].map((input) => (
                    <StepInput
                      key={input.name}
                      input={input}
                      field={field}
                      fields={fields}
                      value={draft.typed[input.name] ?? ''}
                      isWrong={wrong?.input === input.name}
                      change={(text) => set(draft.key, { typed: { ...draft.typed, [input.name]: text } })}
                    />
                  ))}
                </div>
              ) : null}
              {wrong ? (
                <p role="alert" className="text-error">
                  {wrong.problem}
                </p>
              ) : null}
            </fieldset>
          );
        })}
        {refused.length ? (
          <div role="alert" className="max-h-40 overflow-auto rounded border border-warning p-2 text-[13px]">
            <p className="font-medium">{countedAre(refused.length, 'lot')} left as before</p>
            <ul>
              {refused.slice(0, 100).map((one) => (
                <li key={one}>{one}</li>
              ))}
            </ul>
          </div>
        ) : null}
        {change.problem ? (
          <p role="alert" className="text-error">
            {change.problem}
          </p>
        ) : null}
        <div className="flex gap-2">
          <button type="submit" className="btn btn-primary btn-sm" disabled={!isWhole || change.busy}>
            {change.busy ? 'Changing …' : 'Change them'}
          </button>
          <button
            type="button"
            className="btn btn-sm"
            onClick={() => setDrafts([...drafts, newStep(Math.max(...drafts.map((one) => one.key)) + 1)])}
          >
            Add a step
          </button>
        </div>
      </form>
    </Dialog>
  );
}
