import { useState } from 'react';
import type { Field } from '@/core/field';
import type { Condition } from '@/core/filter';
import type { AccountView } from '@/services/accounts/find-accounts';
import type { CommonValue } from '@/services/changes/many/common-values';
import type { Selection } from '@/services/records/items/selection';
import { Failed, Loading } from '@/ui/controls/states';
import { apiLines } from '@/ui/data/api';
import { StepInput } from './step-input';
import { isSetting, type StepDraft } from './steps';
import { useCatalogues } from './use-catalogue';
import { useLines } from './use-lines';
import { verbInputs } from './verb-inputs';

const [valueInput] = verbInputs.set;

type Props = {
  selection: Selection;
  accounts: AccountView[];
  steps: readonly StepDraft[];
  /** A step that sets this field, with this typed; nothing typed takes it away. */
  set: (field: string, account: number | null, text: string) => void;
  /** Only those that have this value. */
  narrow: (condition: Condition) => void;
};

/** What the chosen items have in common, field by field; what is typed here is a step. */
export function CommonTable({ selection, accounts, steps, set, narrow }: Props) {
  const [account, setAccount] = useState<number | null>(null);
  const body = { selection, ...(account === null ? {} : { account }) };
  const { lines, isWhole, error, again } = useLines(JSON.stringify(body), (signal) =>
    apiLines('POST /edits/common', { body, signal }),
  );
  const here = account === null ? [] : [account];
  const catalogue = useCatalogues(here).of({ on: account === null ? 'item' : 'accounts', accounts: here });
  const fieldOf = (id: string) => (account === null ? catalogue.item(id) : catalogue.listing(id));
  const typed = (id: string) => steps.find((step) => isSetting(step, id, account))?.typed.value ?? '';
  return (
    <div className="p-3">
      <div className="mb-2 flex items-center gap-2">
        <p className="quiet">
          What they have in common. What is typed here is a step; what is left alone stays as it is.
        </p>
        <label className="ml-auto flex items-center gap-2 whitespace-nowrap">
          Written for
          <select
            className="select select-sm w-36"
            value={account ?? ''}
            onChange={(event) => setAccount(event.target.value === '' ? null : Number(event.target.value))}
          >
            <option value="">the item</option>
            {accounts.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name} alone
              </option>
            ))}
          </select>
        </label>
      </div>
      {error ? <Failed error={error} retry={again} /> : null}
      {lines.length === 0 && !isWhole && !error ? <Loading what="what they have in common" /> : null}
      {isWhole && lines.length === 0 ? <p className="quiet">Nothing is written for this account alone.</p> : null}
      <table className="w-full" aria-label="In common">
        <tbody>
          {lines.map((line) => {
            const field = fieldOf(line.field);
            return field ? (
              <tr key={line.field} className="border-t border-base-300 align-top">
                <th scope="row" className="w-36 py-1.5 pr-2 text-left font-normal">
                  {field.label}
                </th>
                <td className="py-1.5 pr-2">
                  <Values line={line} narrow={narrow} />
                </td>
                <td className="w-56 py-1">
                  <SetInput field={field} value={typed(line.field)} change={(text) => set(line.field, account, text)} />
                </td>
              </tr>
            ) : null;
          })}
        </tbody>
      </table>
    </div>
  );
}

function SetInput({ field, value, change }: { field: Field; value: string; change: (text: string) => void }) {
  if (!valueInput) return null;
  return (
    <StepInput
      input={{ ...valueInput, label: `Set ${field.label.toLowerCase()} to`, placeholder: 'as it is' }}
      field={field}
      fields={[]}
      value={value}
      isWrong={false}
      isBare
      change={change}
    />
  );
}

function Values({ line, narrow }: { line: CommonValue; narrow: (condition: Condition) => void }) {
  const [first] = line.commonest;
  if (!first) return null;
  if (line.different === 1)
    return first.shown ? <span className="break-words">{first.shown}</span> : <span className="quiet">nothing</span>;
  return (
    <div className="flex max-h-11 flex-wrap items-baseline gap-x-2 overflow-hidden">
      <b className="figures font-semibold whitespace-nowrap">{line.different.toLocaleString('en')} different</b>
      {/* Where each has its own there is nothing common to tell. */}
      {(first.count > 1 ? line.commonest : []).map((one) => {
        const text = (
          <>
            <span className="inline-block max-w-48 truncate align-bottom">{one.shown || 'nothing'}</span>{' '}
            <span className="quiet figures">{one.count.toLocaleString('en')}</span>
          </>
        );
        const { condition } = one;
        return condition ? (
          <button
            key={one.shown}
            type="button"
            className="link-hover text-left"
            title={`Only the ${one.count.toLocaleString('en')} of ${one.shown || 'nothing'}`}
            onClick={() => narrow(condition)}
          >
            {text}
          </button>
        ) : (
          <span key={one.shown}>{text}</span>
        );
      })}
    </div>
  );
}
