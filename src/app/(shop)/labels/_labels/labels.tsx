'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import type { LabelKind } from '@/core/label/label';
import { builtInSizes } from '@/core/label/size';
import { ChoiceButtons } from '@/ui/controls/choice-buttons';
import { Failed, Loading, PageHead } from '@/ui/controls/states';
import { useAccounts } from '@/ui/data/accounts';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { DrawnPages } from './drawn-pages';
import { OwnSize } from './own-size';
import { OwnSizes } from './own-sizes';
import { Queue } from './queue';
import { useWhat } from './use-what';

const kinds: Record<LabelKind, string> = {
  item: 'Items',
  price: 'Prices',
  shelf: 'Shelves',
  command: 'Commands for scanning',
};
const kindNames = Object.keys(kinds) as LabelKind[]; // the keys of the record above
const lastSize = 'netting.label-size';
const usualSize = 'roll-58x32';

/** Labels of items, prices, shelves and commands: drawn as they will be printed, then printed or kept as a PDF. */
export function Labels() {
  const what = useWhat();
  const { accounts } = useAccounts();
  const settings = useQuery({ queryKey: ['settings'], queryFn: () => api('GET /settings'), staleTime: 10_000 });
  const hasItems = what.batch !== null || what.items.length > 0;
  const [kind, setKind] = useState<LabelKind | null>(null);
  const shown = kind ?? (hasItems ? 'item' : 'shelf');
  const [size, setSizeHere] = useState(usualSize);
  useEffect(() => setSizeHere((now) => localStorage.getItem(lastSize) ?? now), []);
  const setSize = (next: string) => {
    localStorage.setItem(lastSize, next);
    setSizeHere(next);
  };
  const [code, setCode] = useState<'sku' | 'barcode' | number>('sku');
  const [copies, setCopies] = useState<'units' | number>('units');
  const [startAt, setStartAt] = useState(1);
  const [prefers, setPrefers] = useState<'linear' | 'square'>('linear');
  const [places, setPlaces] = useState('');
  const [isOwn, setIsOwn] = useState(false);
  const sizes = { ...builtInSizes, ...settings.data?.labelSizes };
  const body = useMemo(
    () => ({
      kind: shown,
      size,
      items: what.items,
      batch: what.batch,
      places: places
        .split('\n')
        .map((one) => one.trim())
        .filter(Boolean),
      code,
      copies,
      startAt,
      prefers,
    }),
    [shown, size, what.items, what.batch, places, code, copies, startAt, prefers],
  );
  const isAsked = shown === 'command' || (shown === 'shelf' ? body.places.length > 0 : hasItems);
  const preview = useQuery({
    queryKey: ['labels', body],
    queryFn: ({ signal }) => api('POST /labels/preview', { body, signal }),
    enabled: isAsked && !what.isPending,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const print = useCommand(
    async () => {
      const { count } = await api('POST /labels/print', { body });
      return count === 1 ? 'One label goes to the printer' : `${count} labels go to the printer`;
    },
    { touches: [['print-queue']] },
  );
  const keep = useCommand(
    async () => {
      const answer = await fetch('/api/v1/labels/file', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      });
      if (!answer.ok) {
        const said = (await answer.json().catch(() => ({}))) as { title?: string }; // problem details, RFC 9457
        throw new Error(said.title ?? 'The file could not be made');
      }
      const url = URL.createObjectURL(await answer.blob());
      const link = document.createElement('a');
      link.href = url;
      link.download = 'labels.pdf';
      link.click();
      URL.revokeObjectURL(url);
      return undefined;
    },
    { touches: [] },
  );
  const isSheet = sizes[size]?.sheet !== null;
  const isReady = isAsked && preview.isSuccess && !preview.isError;
  return (
    <div className="flex flex-col lg:h-[calc(100dvh-var(--frame))]">
      <PageHead title="Labels">
        <ChoiceButtons
          legend="Labels of"
          options={kindNames}
          words={kinds}
          value={shown}
          choose={(next) => setKind(next)}
        />
        <span role="status" className="quiet figures ml-auto">
          {isReady && preview.data
            ? `${preview.data.count.toLocaleString('en')} ${preview.data.count === 1 ? 'label' : 'labels'} on ${preview.data.pageCount} ${preview.data.pageCount === 1 ? 'page' : 'pages'}`
            : ''}
        </span>
      </PageHead>
      <div className="grid min-h-0 flex-1 grid-cols-[19rem_minmax(0,1fr)_19rem] max-lg:grid-cols-1">
        <form
          aria-label="How they are printed"
          className="space-y-3 border-r border-base-300 p-4 lg:overflow-y-auto"
          onSubmit={(event) => {
            event.preventDefault();
            void print.run();
          }}
        >
          <label className="block">
            Size
            <select className="select select-sm w-full" value={size} onChange={(event) => setSize(event.target.value)}>
              {Object.entries(sizes).map(([id, one]) => (
                <option key={id} value={id}>
                  {one.name}
                </option>
              ))}
            </select>
          </label>
          <OwnSizes
            size={size}
            own={settings.data?.labelSizes[size]}
            choose={(id = usualSize) => setSize(id)}
            add={() => setIsOwn(true)}
          />
          {isSheet ? (
            <label className="block">
              The first free label is number
              <input
                className="input input-sm figures w-24"
                type="number"
                min={1}
                max={800}
                value={startAt}
                onChange={(event) => {
                  const next = Number(event.target.value);
                  if (Number.isInteger(next) && next >= 1 && next <= 800) setStartAt(next);
                }}
              />
            </label>
          ) : null}
          <fieldset>
            <legend>Code</legend>
            <label className="flex items-center gap-2">
              <input
                type="radio"
                className="radio radio-sm"
                checked={prefers === 'linear'}
                onChange={() => setPrefers('linear')}
              />
              bars, where they fit
            </label>
            <label className="flex items-center gap-2">
              <input
                type="radio"
                className="radio radio-sm"
                checked={prefers === 'square'}
                onChange={() => setPrefers('square')}
              />
              a square
            </label>
          </fieldset>
          {shown === 'item' || shown === 'price' ? (
            <>
              <label className="block">
                The code says
                <select
                  className="select select-sm w-full"
                  value={String(code)}
                  onChange={(event) => {
                    const { value } = event.target;
                    setCode(value === 'sku' || value === 'barcode' ? value : Number(value));
                  }}
                >
                  <option value="sku">the stock number</option>
                  <option value="barcode">the barcode</option>
                  {accounts.map((one) => (
                    <option key={one.id} value={one.id}>
                      the number on {one.name}
                    </option>
                  ))}
                </select>
              </label>
              <label className="block">
                Labels
                <select
                  className="select select-sm w-full"
                  value={String(copies)}
                  onChange={(event) => setCopies(event.target.value === 'units' ? 'units' : Number(event.target.value))}
                >
                  <option value="units">one for each unit</option>
                  {[1, 2, 3, 4, 5].map((count) => (
                    <option key={count} value={count}>
                      {count} for each item
                    </option>
                  ))}
                </select>
              </label>
            </>
          ) : null}
          {shown === 'shelf' ? (
            <label className="block">
              Places, one a line
              <textarea
                className="textarea mono w-full"
                rows={8}
                value={places}
                placeholder={'A-01\nA-02'}
                onChange={(event) => setPlaces(event.target.value)}
              />
            </label>
          ) : null}
          <div className="flex gap-2">
            <button type="submit" className="btn btn-primary btn-sm" disabled={!isReady || print.busy}>
              Print
            </button>
            <button
              type="button"
              className="btn btn-sm"
              disabled={!isReady || keep.busy}
              onClick={() => void keep.run()}
            >
              Keep as a PDF
            </button>
          </div>
          {print.problem || keep.problem ? (
            <p role="alert" className="text-error">
              {print.problem || keep.problem}
            </p>
          ) : null}
        </form>
        <section
          aria-label="As they will be printed"
          tabIndex={0}
          className="relative bg-base-200 p-4 lg:overflow-y-auto"
        >
          {!isAsked ? (
            <p className="quiet py-8 text-center">
              {shown === 'shelf'
                ? 'Write the places at the left, and their labels are drawn here.'
                : 'Choose items in the inventory, then Labels; or open a batch and print the labels of its pieces.'}
            </p>
          ) : null}
          {isAsked && (preview.isPending || what.isPending) ? <Loading what="the labels" /> : null}
          {isAsked && preview.error ? <Failed error={preview.error} retry={() => void preview.refetch()} /> : null}
          {isReady && preview.data ? <DrawnPages preview={preview.data} /> : null}
        </section>
        <Queue />
      </div>
      {isOwn ? (
        <OwnSize
          close={() => setIsOwn(false)}
          made={(id) => {
            setIsOwn(false);
            setSize(id);
          }}
        />
      ) : null}
    </div>
  );
}
