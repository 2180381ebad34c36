'use client';

import { useState } from 'react';
import type { AccountView } from '@/services/accounts/find-accounts';
import type { TemplateView } from '@/services/listings/templates/find-templates';
import type { TemplateInput } from '@/services/listings/templates/template-input';
import type { TriedTemplate } from '@/services/listings/templates/try-template';
import { ConditionList } from '@/ui/controls/condition-list';
import { ApiProblem, api } from '@/ui/data/api';
import { bringBack } from '@/ui/data/bring-back';
import { sentenceWithFix } from '@/ui/data/sentence';
import { useCommand } from '@/ui/data/use-command';
import { useNotice } from '@/ui/frame/providers';
import { OwnFields } from './own-fields';
import { PrintPart } from './print-part';
import { Trial } from './trial';

export type Draft = TemplateInput;
export const emptyDraft: Draft = { name: '', accounts: [], conditions: [], fields: {}, print: null, for: 'all' };

/** Field, its name, how many lines it has, and what an item gets where nothing is written. */
const texts: [string, string, number, string][] = [
  ['title', 'Title', 1, 'now the item’s own title, made to fit'],
  ['description', 'Description', 5, 'now the item’s own description'],
  ['footer', 'Line under the description', 1, 'now the account’s own line'],
  ['conditionNote', 'Condition note', 2, 'now the item’s own note'],
  ['highlights', 'Highlights, one a line', 3, 'now the item’s own'],
  ['tags', 'Tags besides the item’s own', 1, 'now the item’s own alone'],
];

type Props = {
  id: number | null;
  /** As it is kept; `previous` is what it says for older items, where it was changed for new ones only. */
  start: Draft & { previous?: TemplateView['previous'] };
  accounts: AccountView[];
  /** It is kept, or removed; `isBack` where what is written here was taken back. */
  kept: (id: number | null, isBack?: boolean) => Promise<void>;
};

/** One template: for which items, on which accounts, what it says; tried out before it is kept. */
export function TemplateEditor({ id, start, accounts, kept }: Props) {
  const notice = useNotice();
  const [draft, setDraft] = useState<Draft>({
    name: start.name,
    accounts: start.accounts,
    conditions: start.conditions,
    fields: start.fields,
    print: start.print,
    for: 'all',
    version: start.version,
  });
  const [problem, setProblem] = useState<{ field: string; message: string } | null>(null);
  const [tried, setTried] = useState<TriedTemplate | null>(null);
  const [busy, setBusy] = useState(false);
  const set = (part: Partial<Draft>) => setDraft((now) => ({ ...now, ...part }));
  const setField = (field: string, text: string) => {
    const fields = { ...draft.fields };
    if (text === '') delete fields[field];
    else fields[field] = text;
    set({ fields });
  };
  const asked = async (work: () => Promise<void>) => {
    setBusy(true);
    setProblem(null);
    try {
      await work();
    } catch (error) {
      const first = error instanceof ApiProblem ? error.errors[0] : undefined;
      // It was said that somebody else changed it: the next time it is meant.
      if (error instanceof ApiProblem && error.code === 'conflict' && !error.field) set({ version: undefined });
      setProblem({
        field: (error instanceof ApiProblem ? error.field : undefined) ?? first?.field ?? '',
        message: sentenceWithFix(error),
      });
    } finally {
      setBusy(false);
    }
  };
  const save = () =>
    asked(async () => {
      const saved =
        id === null
          ? await api('POST /templates', { body: draft })
          : await api('PUT /templates/{id}', { params: { id }, body: draft });
      set({ version: saved.version });
      const { previous, name, accounts: on, conditions, fields, print } = start;
      const before = { name, accounts: on, conditions, fields, print, for: 'all' as const, version: saved.version };
      // What it said for older items alone cannot be said again this way.
      const isReturnable = id !== null && !previous;
      notice(
        `“${draft.name}” is kept; listings are computed anew`,
        isReturnable ? { label: 'Take it back', run: () => void takeBack(id, before) } : undefined,
      );
      await kept(saved.id);
    });
  const takeBack = (which: number, before: Draft) =>
    asked(async () => {
      await api('PUT /templates/{id}', { params: { id: which }, body: before });
      await kept(which, true);
    });
  const tryOut = () =>
    asked(async () =>
      setTried(await api('POST /templates/try', { body: { ...draft, name: draft.name || 'Draft', id } })),
    );
  const remove = useCommand(
    async (which: number) => {
      await api('DELETE /templates/{id}', { params: { id: which } });
      await kept(null);
      return {
        text: `“${start.name}” is removed; listings are computed without it`,
        back: () => bringBack('template', which),
      };
    },
    { touches: [['templates'], ['removed']], tells: true },
  );
  const problemAt = (field: string) =>
    problem?.field === field || problem?.field === `fields.${field}` ? problem.message : '';
  return (
    <section aria-label={draft.name || 'New template'} className="grid grid-cols-2 gap-6 p-4 max-xl:grid-cols-1">
      <div className="space-y-3">
        <label className="flex flex-col gap-1">
          Name
          <input
            className="input input-sm w-full"
            value={draft.name}
            onChange={(event) => set({ name: event.target.value })}
          />
          {problemAt('name') ? <span className="text-error">{problemAt('name')}</span> : null}
        </label>
        <fieldset>
          <legend className="mb-1">On these accounts; none chosen means all</legend>
          <div className="flex flex-wrap gap-x-4 gap-y-1">
            {accounts.map((account) => (
              <label key={account.id} className="flex items-center gap-1.5">
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs"
                  checked={draft.accounts.includes(account.id)}
                  onChange={(event) =>
                    set({
                      accounts: event.target.checked
                        ? [...draft.accounts, account.id]
                        : draft.accounts.filter((one) => one !== account.id),
                    })
                  }
                />
                {account.name}
              </label>
            ))}
          </div>
        </fieldset>
        <ConditionList
          legend="For items of which; none means it is the default"
          conditions={draft.conditions}
          set={(conditions) => set({ conditions })}
        />
        {texts.map(([field, label, rows, now]) => (
          <label key={field} htmlFor={`text-${field}`} className="flex flex-col gap-1">
            {label}
            {rows === 1 ? (
              <input
                id={`text-${field}`}
                className="input input-sm w-full"
                placeholder={now}
                value={draft.fields[field] ?? ''}
                onChange={(event) => setField(field, event.target.value)}
              />
            ) : (
              <textarea
                id={`text-${field}`}
                className="textarea textarea-sm w-full"
                rows={rows}
                placeholder={now}
                value={draft.fields[field] ?? ''}
                onChange={(event) => setField(field, event.target.value)}
              />
            )}
            {problemAt(field) ? <span className="text-error">{problemAt(field)}</span> : null}
          </label>
        ))}
        <OwnFields
          accounts={draft.accounts.length ? accounts.filter((one) => draft.accounts.includes(one.id)) : accounts}
          fields={draft.fields}
          set={setField}
          problemAt={problemAt}
        />
        <PrintPart
          accounts={draft.accounts.length ? accounts.filter((one) => draft.accounts.includes(one.id)) : accounts}
          print={draft.print}
          set={(print) => set({ print })}
          problem={problemAt('print')}
        />
        <p className="quiet text-[12px]">
          Variables stand in double braces:{' '}
          {
            '{{ title }}, {{ brand }}, {{ model }}, {{ condition }}, {{ condition_note }}, {{ description }}, {{ price }}, {{ weight }}, {{ stock_number }}, {{ file_name }}, {{ shop }}'
          }
          , and every attribute by its name in small letters, as in {'{{ film_format }}'}. One that an item does not say
          is told as an issue; {'{% if decade %} … {% endif %}'} skips a part.
        </p>
        <fieldset className="flex flex-wrap items-center gap-4">
          <legend className="sr-only">Meant for</legend>
          {(['all', 'new'] as const).map((one) => (
            <label key={one} className="flex items-center gap-1.5">
              <input
                type="radio"
                name="for"
                className="radio radio-xs"
                checked={draft.for === one}
                onChange={() => set({ for: one })}
              />
              {one === 'all' ? 'for all items' : 'for items recorded from now on'}
            </label>
          ))}
        </fieldset>
        {problem && !problemAt('name') && !problemAt('print') && !texts.some(([field]) => problemAt(field)) ? (
          <p role="alert" className="text-error">
            {problem.message}
          </p>
        ) : null}
        <div className="flex gap-2">
          <button type="button" className="btn btn-sm" disabled={busy} onClick={() => void tryOut()}>
            Try it out
          </button>
          <button type="button" className="btn btn-primary btn-sm" disabled={busy} onClick={() => void save()}>
            Keep the template
          </button>
          {id === null ? null : (
            <button
              type="button"
              className="btn btn-ghost btn-sm ml-auto"
              disabled={busy || remove.busy}
              onClick={() => void remove.run(id)}
            >
              Remove
            </button>
          )}
        </div>
      </div>
      <Trial tried={tried} accounts={accounts} />
    </section>
  );
}
