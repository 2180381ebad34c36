'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Item, ItemPatch } from '@/core/item/item';
import { parseLength, parseSides } from '@/core/measure/length';
import { boxTaken } from '@/core/measure/parcel';
import { type Band, bandLabels } from '@/core/price/postage';
import { Price } from '@/ui/controls/format';
import { api } from '@/ui/data/api';
import { Typed } from './typed';

type Props = { id: string; item: Item; change: (patch: ItemPatch) => void; flush: () => void };

const centimetres = (millimetres: number | null) => (millimetres === null ? '' : `${millimetres / 10} cm`);

/** The parcel's sides: one by one, all three in one go, or those of a box; with what the carriers ask for it. */
export function SizeCell({ id, item, change, flush }: Props) {
  const boxes = useQuery({
    queryKey: ['boxes'],
    queryFn: () => api('GET /boxes'),
    staleTime: 60_000,
  });
  const side = (field: 'lengthMm' | 'widthMm' | 'heightMm', name: string) => (
    <Typed
      id={`${id}-${field}`}
      label={name}
      placeholder={name}
      value={centimetres(item[field])}
      parse={(text) =>
        text.trim() === '' || parseLength(text) !== null || (field === 'lengthMm' && parseSides(text))
          ? null
          : 'Write 19,5 cm or 7 1/2 in'
      }
      change={(text) => {
        const all = field === 'lengthMm' ? parseSides(text) : null;
        if (all) change({ lengthMm: all[0], widthMm: all[1], heightMm: all[2] });
        else change({ [field]: text.trim() === '' ? null : parseLength(text) });
      }}
      flush={flush}
    />
  );
  return (
    <div className="space-y-1">
      <div className="grid grid-cols-3 gap-1">
        {side('lengthMm', 'Length')}
        {side('widthMm', 'Width')}
        {side('heightMm', 'Height')}
      </div>
      <div className="flex flex-wrap items-center gap-2 text-[12px]">
        {boxes.data?.boxes.length ? (
          <select
            aria-label="Box"
            className="select select-xs w-32"
            value=""
            onChange={(event) => {
              const box = boxes.data.boxes.find((one) => String(one.id) === event.target.value);
              if (!box) return;
              const taken = boxTaken(item, boxes.data.boxes);
              change({
                lengthMm: box.lengthMm,
                widthMm: box.widthMm,
                heightMm: box.heightMm,
                // What is in it weighs what it did: a box that was taken before goes out again.
                ...(item.weightGrams === null
                  ? {}
                  : { weightGrams: item.weightGrams - (taken?.grams ?? 0) + box.grams }),
              });
              flush();
            }}
          >
            <option value="">Take a box …</option>
            {boxes.data.boxes.map((box) => (
              <option key={box.id} value={box.id}>
                {box.name}, {box.lengthMm / 10} × {box.widthMm / 10} × {box.heightMm / 10} cm
              </option>
            ))}
          </select>
        ) : null}
        <Quotes item={item} />
      </div>
    </div>
  );
}

function Quotes({ item }: { item: Item }) {
  const { weightGrams, lengthMm, widthMm, heightMm } = item;
  const sides = lengthMm && widthMm && heightMm ? { lengthMm, widthMm, heightMm } : {};
  const parcel = { grams: weightGrams ?? 0, ...sides };
  const [band, setBand] = useState<Band>('home');
  const { data } = useQuery({
    queryKey: ['quotes', parcel, band],
    queryFn: () => api('GET /postage', { query: { ...parcel, band } }),
    enabled: Boolean(weightGrams),
    staleTime: 60_000,
    placeholderData: keepPreviousData,
  });
  if (!weightGrams || !data) return null;
  return (
    <span className="quiet">
      <select
        aria-label="Destination"
        className="select select-xs mr-1 w-32"
        value={band}
        onChange={(event) => setBand(bandLabels.find(([id]) => id === event.target.value)?.[0] ?? 'home')}
      >
        {bandLabels.map(([id, label]) => (
          <option key={id} value={id}>
            {label}
          </option>
        ))}
      </select>
      {data.quotes.length === 0 ? 'no carrier takes it there' : null}
      {data.quotes.map((quote, index) => (
        <span key={quote.carrier}>
          {index ? ' · ' : ''}
          {quote.name} <Price amount={quote.amount} />
        </span>
      ))}
    </span>
  );
}
