import { ArrowDown, ArrowUp, Copy, GripVertical, X } from 'lucide-react';
import dynamic from 'next/dynamic';
import type { ReactNode } from 'react';
import { verbsFor } from '@/core/edit/verbs';
import type { Catalogue, Field } from '@/core/field';
import type { AccountView } from '@/services/accounts/find-accounts';
import { AccountChoice } from './account-choice';
import { StepInput } from './step-input';
import { fieldsAt, isProblem, readStep, type StepDraft, sameAt } from './steps';
import { useArgumentFault } from './use-argument-fault';
import { verbInputs } from './verb-inputs';

type Props = {
  step: StepDraft;
  number: number;
  catalogue: Catalogue;
  accounts: AccountView[];
  set: (part: Partial<StepDraft>) => void;
  copy: () => void;
  remove: (() => void) | null;
  up: (() => void) | null;
  down: (() => void) | null;
  /** Null where there is nothing to change places with. */
  drag: { begin: () => void; over: () => void; end: () => void; isOver: boolean } | null;
};

const GreySpot = dynamic(() => import('./photos/grey-spot').then((module) => module.GreySpot), {
  loading: () => null,
});

const places: [StepDraft['on'], string][] = [
  ['item', 'on the item'],
  ['accounts', 'on chosen accounts'],
  ['overrides', 'where an account has its own'],
  ['combinations', 'of combinations'],
];

const groupOf = (field: Field) =>
  field.id.startsWith('own.')
    ? 'Fields of your own'
    : field.on === 'item'
      ? 'The item'
      : field.on === 'combination'
        ? 'Combinations'
        : field.id.includes('.')
          ? 'Asked for there'
          : 'The listing';

/** Which verb a field begins with: the one that is wanted most. */
const firstVerb = (field: Field | undefined, now: StepDraft['verb']): StepDraft['verb'] => {
  const verbs = field ? verbsFor(field.kind.is, field.id) : [];
  if (verbs.some((one) => one.name === now)) return now;
  const liked = ['percent', 'add', 'after', 'add-to', 'more', 'photo-put'];
  return (verbs.find((one) => liked.includes(one.name)) ?? verbs[0])?.name ?? 'set';
};

/** One step: which field, where, what is done, and with what. */
export function StepCard({ step, number, catalogue, accounts, set, copy, remove, up, down, drag }: Props) {
  const fields = fieldsAt(step.on, catalogue);
  const field = fields.find((one) => one.id === step.field);
  const faultOf = useArgumentFault([step]);
  const read = readStep(step, catalogue, faultOf);
  const wrong = isProblem(read) && !read.isOpen ? read : null;
  const verbs = field
    ? verbsFor(field.kind.is, field.id).filter(
        // What a badge is drawn as is changed at the badge.
        ({ name }) => name !== 'photo-rebadge' && (name !== 'as-first' || step.on === 'combinations'),
      )
    : [];
  const groups = [...new Set(fields.map(groupOf))];
  const choose = (id: string) => {
    const next = fields.find((one) => one.id === id);
    set({ field: id, verb: firstVerb(next, step.verb), typed: {} });
  };
  const isAsked = (name: string) => {
    if (step.verb === 'formula') return field?.kind.is === 'money' || !['rounding', 'floor', 'ceiling'].includes(name);
    // Of a wanted net an amount, of a part of the price or the cost a percentage.
    if (step.verb === 'solve' && name === 'amount') return (step.typed.goal || 'net') === 'net';
    if (step.verb === 'solve' && name === 'basisPoints') return (step.typed.goal || 'net') !== 'net';
    return true;
  };
  const shownInputs = verbInputs[step.verb].filter((input) => isAsked(input.name));
  return (
    <li
      className={`relative space-y-1.5 rounded border p-2 ${step.off ? 'opacity-60' : ''} ${drag?.isOver ? 'border-primary' : 'border-base-300'}`}
      onDragOver={(event) => {
        event.preventDefault();
        drag?.over();
      }}
      onDrop={(event) => {
        event.preventDefault();
        drag?.end();
      }}
    >
      <div className="flex items-center gap-1 pr-24">
        {drag ? (
          <span
            draggable
            aria-hidden="true"
            title="Drag it to another place"
            data-grip={number}
            className="cursor-grab"
            onDragStart={(event) => {
              event.dataTransfer.effectAllowed = 'move';
              event.dataTransfer.setData('text/plain', String(number));
              drag.begin();
            }}
            onDragEnd={drag.end}
          >
            <GripVertical size={13} className="quiet" />
          </span>
        ) : null}
        <input
          type="checkbox"
          className="checkbox checkbox-xs"
          aria-label={`Carry out step ${number}`}
          title="Carried out; without the tick it is kept and left out"
          checked={!step.off}
          onChange={(event) => set({ off: !event.target.checked })}
        />
        <select
          aria-label={`Field of step ${number}`}
          data-step-field
          className="select select-sm min-w-0 grow"
          value={step.field}
          onChange={(event) => choose(event.target.value)}
        >
          {groups.map((group) => (
            <optgroup key={group} label={group}>
              {fields
                .filter((one) => groupOf(one) === group)
                .map((one) => (
                  <option key={one.id} value={one.id}>
                    {one.label}
                  </option>
                ))}
            </optgroup>
          ))}
        </select>
      </div>
      <div className="space-y-1.5">
        <select
          aria-label={`Step ${number}`}
          className="select select-sm w-full"
          value={step.verb}
          onChange={(event) => set({ verb: event.target.value as StepDraft['verb'], typed: {} })} // options of this very list
        >
          {verbs.map((one) => (
            <option key={one.name} value={one.name}>
              {one.label}
            </option>
          ))}
          {step.on === 'overrides' || step.on === 'accounts' ? (
            <option value="follow">Follow the item again</option>
          ) : null}
        </select>
        <select
          aria-label={`Where step ${number} works`}
          className="select select-sm w-full"
          value={step.on}
          onChange={(event) => {
            const on = event.target.value as StepDraft['on']; // options of the list above
            const id = sameAt(step.field, on, catalogue);
            const next = fieldsAt(on, catalogue).find((one) => one.id === id);
            const verb = firstVerb(next, step.verb);
            set({ on, field: id, verb, typed: verb === step.verb ? step.typed : {} });
          }}
        >
          {places.map(([on, label]) => (
            <option key={on} value={on}>
              {label}
            </option>
          ))}
        </select>
      </div>
      {step.on === 'accounts' ? (
        <AccountChoice
          number={number}
          accounts={accounts}
          chosen={step.accounts}
          choose={(ids) => set({ accounts: ids })}
        />
      ) : null}
      {step.on === 'combinations' ? (
        <label className="flex flex-col gap-0.5">
          <span className="quiet text-[12px]">Which, or all</span>
          <input
            className="input input-sm w-full"
            value={step.combinations}
            placeholder="Size: Large, XL"
            onChange={(event) => set({ combinations: event.target.value })}
          />
        </label>
      ) : null}
      {field ? (
        <div className="grid grid-cols-2 gap-1.5">
          {shownInputs.map((input) => (
            <StepInput
              key={input.name}
              input={input}
              field={field}
              fields={catalogue.fields.filter((one) => one.on === field.on || one.on === 'item')}
              value={step.typed[input.name] ?? ''}
              isWrong={wrong?.input === input.name}
              change={(text) => set({ typed: { ...step.typed, [input.name]: text } })}
            />
          ))}
          {step.verb === 'photo-light' ? (
            <GreySpot
              set={({ warmth, tint }) => set({ typed: { ...step.typed, warmth: String(warmth), tint: String(tint) } })}
            />
          ) : null}
        </div>
      ) : null}
      {wrong ? (
        <p role="alert" className="text-error">
          {wrong.problem}
        </p>
      ) : null}
      {/* At the end for the keyboard, which goes from box to box; at the head for the eye. */}
      <div className="absolute top-2 right-2 flex">
        <Tool label={`Move step ${number} up`} act={up}>
          <ArrowUp size={13} aria-hidden="true" />
        </Tool>
        <Tool label={`Move step ${number} down`} act={down}>
          <ArrowDown size={13} aria-hidden="true" />
        </Tool>
        <Tool label={`Copy step ${number}`} act={copy}>
          <Copy size={13} aria-hidden="true" />
        </Tool>
        <Tool label={`Remove step ${number}`} act={remove}>
          <X size={13} aria-hidden="true" />
        </Tool>
      </div>
    </li>
  );
}

function Tool({ label, act, children }: { label: string; act: (() => void) | null; children: ReactNode }) {
  if (!act) return null;
  return (
    <button type="button" aria-label={label} title={label} className="btn btn-ghost btn-xs btn-square" onClick={act}>
      {children}
    </button>
  );
}
