'use client';

import { useRef, useState } from 'react';
import { choicesOf } from '@/core/field/kind';
import type { Item, ItemPatch } from '@/core/item/item';
import { unitsOf, type Variation } from '@/core/item/variations';
import type { SheetColumn } from '@/services/items/item-sheet';
import { api, photoUrl } from '@/ui/data/api';
import { counted } from '@/ui/data/counted';
import { useNotice } from '@/ui/frame/providers';
import { Axes } from './axes';
import { VariationTable } from './variation-table';

type Props = {
  item: Item;
  columns: SheetColumn[];
  change: (patch: ItemPatch) => void;
  settle: () => Promise<unknown>;
  again: () => Promise<unknown>;
  place: (column: SheetColumn, here: boolean) => void;
  back: () => void;
};

/** Axes, the table of combinations, a photo by value of an axis, and what marketplaces that cannot take them shall get. */
export function Variations({ item, columns, change, settle, again, place, back }: Props) {
  const notice = useNotice();
  const undoList = useRef<Pick<Item, 'axes' | 'variations'>[]>([]);
  const [photoAxis, setPhotoAxis] = useState(0);
  const write = (patch: Partial<Pick<Item, 'axes' | 'variations'>>) => {
    undoList.current.push({ axes: item.axes, variations: item.variations });
    change({ axes: item.axes, variations: item.variations, ...patch });
  };
  const undo = () => {
    const last = undoList.current.pop();
    if (last) change(last);
    else notice('Nothing to take back');
  };
  const known = [
    ...new Map(
      columns
        .flatMap((column) => column.fields)
        .filter((field) => /^(attr|extra)\./.test(field.field) && choicesOf(field.kind).length > 0)
        .map((field) => [field.label, choicesOf(field.kind).map((choice) => choice.label)] as const),
    ),
  ].map(([name, values]) => ({ name, values }));
  const troubled = columns.filter(
    (column) =>
      !column.leftOut && column.fields.some((field) => field.field === 'variations' && field.issues.length > 0),
  );
  const split = async () => {
    await settle();
    const combinations = item.variations.filter((row) => row.on && row.quantity > 0).map((row) => row.values);
    const { items } = await api('POST /items/{id}/split', {
      params: { id: item.id },
      body: { combinations: combinations.slice(0, 100) },
    });
    notice(`${counted(items.length, 'item')} made; the units moved there`);
    await again();
  };
  const axis = item.axes[Math.min(photoAxis, item.axes.length - 1)];
  return (
    <section aria-label="Variations" className="min-h-0 flex-1 space-y-4 overflow-auto p-4">
      <div className="flex items-baseline gap-3">
        <h2 className="font-semibold">Variations</h2>
        <span className="quiet">
          {item.variations.length
            ? `${item.variations.filter((row) => row.on).length} of ${item.variations.length} offered, ${unitsOf(item.variations)} units`
            : 'Name what the pieces differ in; the table of combinations is made of it.'}
        </span>
        <button type="button" className="btn btn-sm ml-auto" onClick={back}>
          Back to the fields
        </button>
      </div>
      <Axes
        axes={item.axes}
        rows={item.variations}
        known={known}
        change={(axes, made) => {
          // What is in stock already stands at the first combination until it is spread: nothing is sold out by naming an axis.
          const first = item.axes.length === 0 && item.quantity > 0;
          if (first && made.length) notice(`The ${item.quantity} in stock stand at the first combination; spread them`);
          write({
            axes,
            variations: first ? made.map((row, at) => (at === 0 ? { ...row, quantity: item.quantity } : row)) : made,
          });
        }}
      />
      {item.variations.length ? (
        <>
          <VariationTable
            axes={item.axes}
            rows={item.variations}
            itemPrice={item.price}
            currency={item.currency}
            change={(variations: Variation[]) => write({ variations })}
            undo={undo}
          />
          <p className="quiet text-[12px]">
            Price: 12.90 is an own price, +2.00 or -1.50 a difference from the item’s; empty follows the item. Shift and
            arrows choose a block, Ctrl+D fills it down, Ctrl+C and Ctrl+V work with spreadsheets.
          </p>
        </>
      ) : null}
      {axis && item.photos.length ? (
        <fieldset>
          <legend className="mb-1 font-medium">
            A photo for each{' '}
            {item.axes.length > 1 ? (
              <select
                aria-label="Axis with photos"
                className="select select-xs w-auto"
                value={photoAxis}
                onChange={(event) => setPhotoAxis(Number(event.target.value))}
              >
                {item.axes.map((one, index) => (
                  <option key={one.name} value={index}>
                    {one.name}
                  </option>
                ))}
              </select>
            ) : (
              axis.name
            )}
          </legend>
          <div className="flex flex-wrap gap-2">
            {axis.values.map((value) => {
              const hash = axis.photos?.[value];
              return (
                <label key={value} className="flex items-center gap-1 text-[12px]">
                  {hash ? <img src={photoUrl(hash, 'thumb')} alt="" className="h-7 w-7 rounded object-cover" /> : null}
                  <span className="max-w-24 truncate">{value}</span>
                  <select
                    aria-label={`Photo of ${value}`}
                    className="select select-xs w-20"
                    value={hash ?? ''}
                    onChange={(event) => {
                      const { [value]: _old, ...rest } = axis.photos ?? {};
                      const photos = event.target.value ? { ...rest, [value]: event.target.value } : rest;
                      write({ axes: item.axes.map((one) => (one === axis ? { ...one, photos } : one)) });
                    }}
                  >
                    <option value="">none</option>
                    {item.photos.map((photo, index) => (
                      <option key={`${photo.hash}-${index}`} value={photo.hash}>
                        photo {index + 1}
                      </option>
                    ))}
                  </select>
                </label>
              );
            })}
          </div>
        </fieldset>
      ) : null}
      {troubled.length ? (
        <section aria-label="Marketplaces that cannot take them" className="rounded border border-base-300 p-3">
          <h3 className="mb-1 font-medium">Not like this everywhere</h3>
          <ul className="space-y-1">
            {troubled.map((column) => (
              <li key={column.accountId} className="flex items-baseline gap-2">
                <span className="w-40 truncate">{column.name}</span>
                <span className="flex-1 text-[12px] text-warning">
                  {column.fields.find((field) => field.field === 'variations')?.issues[0]?.message}
                </span>
                <button type="button" className="btn btn-xs" onClick={() => place(column, false)}>
                  Leave it out there
                </button>
              </li>
            ))}
          </ul>
          <p className="quiet mt-2 text-[12px]">
            Or choose what is offered there in its column, row Variations. Or make items of their own of all
            combinations in stock: their {unitsOf(item.variations)} units move to them and are no longer offered here.
          </p>
          <div className="mt-2 flex gap-2">
            <button
              type="button"
              className="btn btn-sm"
              onClick={() => {
                for (const column of troubled) place(column, false);
              }}
            >
              Leave out all {troubled.length}
            </button>
            <button
              type="button"
              className="btn btn-sm"
              disabled={unitsOf(item.variations) === 0}
              onClick={() =>
                void split().catch((error: unknown) => notice(error instanceof Error ? error.message : 'Not made'))
              }
            >
              Make {counted(item.variations.filter((row) => row.on && row.quantity > 0).length, 'item')} of them
            </button>
          </div>
        </section>
      ) : null}
    </section>
  );
}
