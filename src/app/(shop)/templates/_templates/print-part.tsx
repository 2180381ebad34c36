'use client';

import { useState } from 'react';
import type { Piece, PrintTemplate } from '@/core/artwork/print-template';
import { nameKey } from '@/core/rules/compiled';
import type { AccountView } from '@/services/accounts/find-accounts';
import { PlacingFields } from '@/ui/controls/placing-fields';
import { type Offered, PieceRow } from './piece-row';

type Props = {
  accounts: AccountView[];
  print: PrintTemplate | null;
  set: (print: PrintTemplate | null) => void;
  problem: string;
};

/** What these accounts' marketplaces publish, each once: products with a print area, and grounds with their colour. */
function publishedBy(accounts: readonly AccountView[]): { products: string[]; grounds: Offered[] } {
  const values = accounts.flatMap((account) => account.extras.flatMap((extra) => extra.values ?? []));
  const grounds = new Map<string, Offered>();
  for (const { label, colour } of values) if (colour) grounds.set(nameKey(label), { label, colour });
  return {
    products: [...new Set(values.flatMap(({ label, area }) => (area ? [label] : [])))],
    grounds: [...grounds.values()],
  };
}

const middle = { x: 0.5, y: 0.5, scale: 0.9, degrees: 0, isOptical: false };
/** What artwork is printed on: products, their grounds and prices, and where the picture stands on them. */
export function PrintPart({ accounts, print, set, problem }: Props) {
  const [isOpen] = useState(print !== null);
  // A product made by hand has no name to begin with: each row is known by a number of its own.
  const [keys, setKeys] = useState(() => (print?.pieces ?? []).map((_one, at) => at));
  const { products, grounds } = publishedBy(accounts);
  const pieces = print?.pieces ?? [];
  const write = (part: Partial<PrintTemplate>) =>
    set({ pieces, placing: print?.placing ?? null, background: print?.background ?? null, ...part });
  const writePieces = (next: Piece[]) => (next.length ? write({ pieces: next }) : set(null));
  const piece = (product: string, isPublished: boolean): Piece => ({
    product,
    area: isPublished
      ? null
      : { widthMm: 300, heightMm: 400, widthPx: 3543, heightPx: 4724, safeMm: 5, bleedMm: 0, profile: 'srgb' },
    price: null,
    // Where the marketplace has a list of grounds, all of them are on to begin with.
    grounds: isPublished ? grounds.map(({ label }) => ({ name: label, colour: null })) : [],
  });
  const add = (one: Piece) => {
    setKeys([...keys, Math.max(-1, ...keys) + 1]);
    writePieces([...pieces, one]);
  };
  const left = products.filter((name) => !pieces.some((one) => one.product === name));
  const placing = print?.placing ?? null;
  return (
    <details className="border-y border-base-300 py-1" open={isOpen || undefined}>
      <summary className="cursor-pointer py-1">
        What artwork is printed on{pieces.length ? `: ${pieces.map((one) => one.product).join(', ')}` : ''}
      </summary>
      <div className="space-y-3 py-2">
        {pieces.map((one, index) => (
          <PieceRow
            key={keys[index]}
            piece={one}
            isPublished={one.area === null}
            grounds={grounds}
            set={(next) => writePieces(pieces.map((each, at) => (at === index ? next : each)))}
            remove={() => {
              setKeys(keys.filter((_each, at) => at !== index));
              writePieces(pieces.filter((_each, at) => at !== index));
            }}
          />
        ))}
        <div className="flex flex-wrap gap-2">
          {left.length ? (
            <select
              className="select select-sm w-56"
              aria-label="Add a product that is published"
              value=""
              onChange={(event) => {
                if (event.target.value) add(piece(event.target.value, true));
              }}
            >
              <option value="">Add a product …</option>
              {left.map((name) => (
                <option key={name}>{name}</option>
              ))}
            </select>
          ) : null}
          <button type="button" className="btn btn-sm btn-ghost" onClick={() => add(piece('', false))}>
            Add one by hand
          </button>
        </div>
        {pieces.length ? (
          <div className="flex flex-wrap items-end gap-3 text-[13px]">
            <label className="flex items-center gap-1.5 pb-1.5">
              <input
                type="checkbox"
                className="checkbox checkbox-xs"
                checked={placing !== null}
                onChange={(event) => write({ placing: event.target.checked ? middle : null })}
              />
              Placed by this template
            </label>
            {placing ? <PlacingFields placing={placing} set={(next) => write({ placing: next })} look="w-20" /> : null}
            <label className="flex items-center gap-1.5 pb-1.5">
              <input
                type="checkbox"
                className="checkbox checkbox-xs"
                checked={print?.background !== null}
                onChange={(event) => write({ background: event.target.checked ? '#ffffff' : null })}
              />
              A colour under it
            </label>
            {print?.background ? (
              <input
                type="color"
                aria-label="Colour under the picture"
                className="h-8 w-10"
                value={print.background}
                onChange={(event) => write({ background: event.target.value })}
              />
            ) : null}
          </div>
        ) : null}
        {problem ? <p className="text-error">{problem}</p> : null}
      </div>
    </details>
  );
}
