'use client';

import { skipToken, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { type ConditionGrade, conditionGrades } from '@/core/item/condition';
import type { Interface } from '@/http/interface';
import type { KitView } from '@/services/kits/find-kit';
import { Dialog } from '@/ui/controls/dialog';
import { Field } from '@/ui/controls/field';
import { api } from '@/ui/data/api';
import { counted } from '@/ui/data/counted';
import { submitted, useCommand } from '@/ui/data/use-command';

const besides = [
  ['spare', 'spares'],
  ['paper', 'papers'],
  ['box', 'the box'],
] as const;

const wayWords = {
  catalogue: 'From the catalogue',
  text: 'Written',
  file: 'A file',
  kit: 'As other sets',
} as const;

type Source = NonNullable<Interface['POST /kits/{id}/contents']['body']>['from'];

/** Where a person says that it stands, as it is sent. */
async function sourceOf(is: keyof typeof wayWords, form: FormData): Promise<Source> {
  if (is === 'text') return { is, text: String(form.get('text') ?? '') };
  if (is === 'kit') return { is, kit: Number(form.get('kit')) };
  if (is === 'catalogue') return { is, entry: String(form.get('entry') ?? '').trim() };
  const file = form.get('file');
  return { is, text: file instanceof File ? await file.text() : '' };
}

/** Which set it is, or what it holds, and how many of them there are. */
export function AddContents({ kit, close }: { kit: KitView; close: () => void }) {
  const { id, accountId } = kit;
  const ways = ['catalogue', 'text', 'file', 'kit'] as const;
  const [is, setIs] = useState<(typeof ways)[number]>(accountId === null ? 'text' : 'catalogue');
  const others = useQuery({
    queryKey: ['kits', 'to-copy'],
    queryFn: is === 'kit' ? () => api('GET /kits', { query: {} }) : skipToken,
  });
  const put = useCommand(
    async (form: FormData) => {
      const body: Interface['POST /kits/{id}/contents']['body'] = {
        from: await sourceOf(is, form),
        times: Number(form.get('times')),
        with: besides.flatMap(([kind]) => (form.get(kind) ? [kind] : [])),
        opensSets: form.get('opens') !== null,
        condition: (String(form.get('condition') ?? '') || null) as ConditionGrade | null, // one of the options below
        meant: form.get('meant') === 'change' ? 'change' : 'add',
      };
      const { pieces, made, added, joined, renumbered } = await api('POST /kits/{id}/contents', {
        params: { id },
        body,
      });
      close();
      const said = [
        counted(pieces, 'piece'),
        made ? counted(made, 'new lot') : '',
        added ? `more in ${counted(added, 'lot')}` : '',
        joined.length ? `equal lines joined in ${counted(joined.length, 'lot')}` : '',
        ...renumbered.slice(0, 3).map((one) => `${one.was} is ${one.now} now`),
      ];
      return said.filter(Boolean).join(', ');
    },
    { touches: [['kit', id], ['kit-lots', id], ['kits']] },
  );
  return (
    <Dialog title="Add contents" close={close}>
      <form className="space-y-4" onSubmit={submitted((form) => void put.run(form))}>
        <fieldset className="flex gap-4">
          <legend className="sr-only">Where the contents are from</legend>
          {ways
            .filter((way) => way !== 'catalogue' || accountId !== null)
            .map((way) => (
              <label key={way} className="flex items-center gap-2">
                <input
                  type="radio"
                  className="radio radio-sm"
                  name="is"
                  checked={is === way}
                  onChange={() => setIs(way)}
                />
                {wayWords[way]}
              </label>
            ))}
        </fieldset>
        {is === 'catalogue' ? (
          <Field label="Number of the set there" name="entry" required maxLength={60} placeholder="LB4031" data-first />
        ) : is === 'file' ? (
          <label className="block font-medium">
            <span className="mb-1 block">A CSV file</span>
            <input
              className="file-input file-input-sm w-full"
              type="file"
              name="file"
              accept=".csv,.tsv,.txt"
              required
            />
            <span className="quiet mt-1 block text-[12px] font-normal">
              Its first row names the columns: entry, name, finish, pieces, condition, price, drawer, comment, weight,
              kind
            </span>
          </label>
        ) : is === 'kit' ? (
          <label className="block font-medium">
            <span className="mb-1 block">What these hold now</span>
            <select className="select select-sm w-full" name="kit" required key={others.data?.kits.length ?? 0}>
              {(others.data?.kits ?? [])
                .filter((one) => one.id !== id)
                .map((one) => (
                  <option key={one.id} value={one.id}>
                    {one.name}, {one.lots.toLocaleString('en')} lots
                  </option>
                ))}
            </select>
          </label>
        ) : (
          <label className="block font-medium">
            <span className="mb-1 block">One thing a line</span>
            <textarea
              className="textarea h-40 w-full font-normal"
              name="text"
              required
              placeholder={'2 x tray 18 × 24\nfilm clip x 4\nfilm clip (spare)'}
              data-first
            />
          </label>
        )}
        <div className="grid grid-cols-2 gap-4">
          <Field label="How many sets" name="times" type="number" min={1} max={10_000} required defaultValue={1} />
          <label className="block font-medium">
            <span className="mb-1 block">Condition</span>
            <select className="select select-sm w-full" name="condition" defaultValue="good">
              {conditionGrades.map((grade) => (
                <option key={grade.id} value={grade.id}>
                  {grade.label}
                </option>
              ))}
              <option value="">said later</option>
            </select>
          </label>
        </div>
        <fieldset className="flex flex-wrap gap-4">
          <legend className="mb-1 font-medium">Besides the parts</legend>
          {besides.map(([kind, words]) => (
            <label key={kind} className="flex items-center gap-2">
              <input type="checkbox" className="checkbox checkbox-sm" name={kind} defaultChecked={kind === 'spare'} />
              {words}
            </label>
          ))}
          <label className="flex items-center gap-2">
            <input type="checkbox" className="checkbox checkbox-sm" name="opens" defaultChecked />
            open sets within it
          </label>
        </fieldset>
        <label className="flex items-center gap-2">
          <input type="checkbox" className="checkbox checkbox-sm" name="meant" value="change" />A list of what is in
          stock already: it changes that, and adds no pieces
        </label>
        {put.problem ? (
          <p role="alert" className="text-error">
            {put.problem}
          </p>
        ) : null}
        <button type="submit" className="btn btn-primary btn-sm" disabled={put.busy}>
          {put.busy ? 'Reading …' : 'Add'}
        </button>
      </form>
    </Dialog>
  );
}
