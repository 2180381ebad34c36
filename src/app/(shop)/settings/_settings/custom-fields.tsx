'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { type CustomField, ownFieldTypes } from '@/core/item/custom-fields';
import { Chips } from '@/ui/controls/chips';
import { DataTable } from '@/ui/controls/data-table';
import { Failed, Loading } from '@/ui/controls/states';
import { ApiProblem, api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { useNotice } from '@/ui/frame/providers';

const kinds: Record<CustomField['type'], string> = {
  text: 'Text',
  long: 'Long text',
  number: 'Number',
  choice: 'Choice',
  date: 'Date',
  tags: 'Tags',
};
const empty: CustomField = {
  key: '',
  label: '',
  type: 'text',
  choices: [],
  most: null,
  from: null,
  to: null,
  category: '',
  copied: true,
};
const keyFrom = (label: string) =>
  label
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '_')
    .replace(/^[^a-z]+|_+$/g, '')
    .slice(0, 30);
const numberOrNull = (text: string) => (text.trim() === '' ? null : Number(text.replace(',', '.')));

/** Fields that the sellers add for themselves: what they are called, what they hold, where they are shown. */
export function CustomFields() {
  const client = useQueryClient();
  const notice = useNotice();
  const { data, isPending, isLoadingError, error, refetch } = useQuery({
    queryKey: ['custom-fields'],
    queryFn: () => api('GET /custom-fields'),
  });
  const [draft, setDraft] = useState<CustomField | null>(null);
  const [problem, setProblem] = useState<{ field?: string; text: string } | null>(null);
  const save = async (field: CustomField) => {
    const before = data?.fields.find((one) => one.key === field.key);
    try {
      await api('PUT /custom-fields', { body: field });
      await client.invalidateQueries({ queryKey: ['custom-fields'] });
      notice(
        `“${field.label}” stands on the sheets now`,
        before && { label: 'Take back', run: () => void save(before) },
      );
      setDraft(null);
      setProblem(null);
    } catch (refused) {
      setProblem(
        refused instanceof ApiProblem
          ? { field: refused.field, text: refused.errors[0]?.message ?? refused.message }
          : { text: 'Not saved' },
      );
    }
  };
  const remove = useCommand(
    async (field: CustomField) => {
      await api('POST /custom-fields/remove', { body: { key: field.key } });
      notice(`“${field.label}” is off the sheets; what items say in it is kept`, {
        label: 'Take back',
        run: () => void save(field),
      });
      return undefined;
    },
    { touches: [['custom-fields']], tells: true },
  );
  if (isPending) return <Loading what="your fields" />;
  if (isLoadingError) return <Failed error={error} retry={() => void refetch()} />;
  const isNew = draft !== null && !data.fields.some((field) => field.key === draft.key);
  return (
    <section aria-labelledby="own-fields">
      <div className="mb-2 flex items-center gap-3">
        <h2 id="own-fields" className="font-semibold">
          Fields of your own
        </h2>
        <button type="button" className="btn btn-sm" onClick={() => setDraft(empty)}>
          Add a field
        </button>
      </div>
      {data.fields.length === 0 && !draft ? (
        <p className="quiet">
          None yet. A serial number, who tested it, a shelf for returns: what you need to know of an item.
        </p>
      ) : null}
      {data.fields.length ? (
        <DataTable
          look="part"
          rows={data.fields}
          idOf={(field) => field.key}
          columns={[
            { id: 'name', head: 'Name', names: true, cell: (field) => field.label },
            { id: 'kind', head: 'Kind', cell: (field) => kinds[field.type] },
            { id: 'template', head: 'In templates', cellClass: 'mono', cell: (field) => `{{ own.${field.key} }}` },
            { id: 'for', head: 'Shown for', cell: (field) => field.category || 'everything' },
            { id: 'copied', head: 'Copied', cell: (field) => (field.copied ? 'yes' : 'no') },
            {
              id: 'do',
              head: 'What to do',
              isHeard: true,
              align: 'right',
              cell: (field) => (
                <>
                  <button type="button" className="btn btn-xs" onClick={() => setDraft(field)}>
                    Change
                  </button>{' '}
                  <button type="button" className="btn btn-ghost btn-xs" onClick={() => void remove.run(field)}>
                    Remove
                  </button>
                </>
              ),
            },
          ]}
        />
      ) : null}
      {draft ? (
        <form
          className="mt-3 grid grid-cols-[8rem_1fr] items-center gap-2 rounded border border-base-300 p-3"
          onSubmit={(event) => {
            event.preventDefault();
            void save(draft);
          }}
        >
          <label htmlFor="field-label">Name</label>
          <input
            id="field-label"
            // biome-ignore lint/a11y/noAutofocus: the form was just opened
            autoFocus
            className="input input-sm w-72"
            value={draft.label}
            onChange={(event) =>
              setDraft({
                ...draft,
                label: event.target.value,
                key: isNew ? keyFrom(event.target.value) : draft.key,
              })
            }
          />
          <label htmlFor="field-type">Kind</label>
          <select
            id="field-type"
            className="select select-sm w-72"
            disabled={!isNew}
            value={draft.type}
            onChange={(event) => {
              const type = ownFieldTypes.find((one) => one === event.target.value);
              if (type) setDraft({ ...draft, type });
            }}
          >
            {ownFieldTypes.map((type) => (
              <option key={type} value={type}>
                {kinds[type]}
              </option>
            ))}
          </select>
          {draft.type === 'choice' ? (
            <>
              <span>Choices</span>
              <Chips label="Choices" values={draft.choices} change={(choices) => setDraft({ ...draft, choices })} />
            </>
          ) : null}
          {draft.type === 'number' ? (
            <>
              <span>From, to</span>
              <span className="flex gap-2">
                <input
                  aria-label="At least"
                  className="input input-sm w-24"
                  defaultValue={draft.from ?? ''}
                  onChange={(event) => setDraft({ ...draft, from: numberOrNull(event.target.value) })}
                />
                <input
                  aria-label="At most"
                  className="input input-sm w-24"
                  defaultValue={draft.to ?? ''}
                  onChange={(event) => setDraft({ ...draft, to: numberOrNull(event.target.value) })}
                />
              </span>
            </>
          ) : null}
          {draft.type === 'text' || draft.type === 'long' || draft.type === 'tags' ? (
            <>
              <label htmlFor="field-most">{draft.type === 'tags' ? 'Most words' : 'Most characters'}</label>
              <input
                id="field-most"
                className="input input-sm w-24"
                inputMode="numeric"
                defaultValue={draft.most ?? ''}
                onChange={(event) => setDraft({ ...draft, most: numberOrNull(event.target.value) })}
              />
            </>
          ) : null}
          <label htmlFor="field-category">Shown for</label>
          <input
            id="field-category"
            className="input input-sm w-72"
            placeholder="everything, or a category such as cameras"
            value={draft.category}
            onChange={(event) => setDraft({ ...draft, category: event.target.value })}
          />
          <span />
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              className="checkbox checkbox-xs"
              checked={draft.copied}
              onChange={(event) => setDraft({ ...draft, copied: event.target.checked })}
            />
            A copy of an item takes it along
          </label>
          {problem ? (
            <p role="alert" className="col-span-2 text-error">
              {problem.text}
            </p>
          ) : null}
          <span />
          <span className="flex gap-2">
            <button type="submit" className="btn btn-primary btn-sm" disabled={!draft.key}>
              {isNew ? 'Add it' : 'Keep it'}
            </button>
            <button type="button" className="btn btn-ghost btn-sm" onClick={() => setDraft(null)}>
              Cancel
            </button>
          </span>
        </form>
      ) : null}
    </section>
  );
}
