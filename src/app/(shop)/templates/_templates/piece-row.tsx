'use client';

import { useState } from 'react';
import type { Piece } from '@/core/artwork/print-template';
import { amountToText, homeCurrency, parseAmount } from '@/core/measure/money';

/** A ground that a marketplace publishes. */
export type Offered = { label: string; colour: string | null };

type Props = {
  piece: Piece;
  isPublished: boolean;
  grounds: Offered[];
  set: (piece: Piece) => void;
  remove: () => void;
};

const measures = [
  ['widthMm', 'Wide, mm'],
  ['heightMm', 'High, mm'],
  ['widthPx', 'Wide, pixels'],
  ['heightPx', 'High, pixels'],
  ['safeMm', 'Kept free, mm'],
  ['bleedMm', 'Bleed, mm'],
] as const;

/** One product of a template: its name, its measures where they are made by hand, its price, and the grounds that are on. */
export function PieceRow({ piece, isPublished, grounds, set, remove }: Props) {
  const [price, setPrice] = useState(piece.price === null ? '' : amountToText(piece.price, homeCurrency));
  const [ground, setGround] = useState({ name: '', colour: '#d9c7a3' });
  const { area } = piece;
  const isOn = (name: string) => piece.grounds.some((one) => one.name.toLowerCase() === name.toLowerCase());
  const turn = (name: string, colour: string | null) =>
    set({
      ...piece,
      grounds: isOn(name)
        ? piece.grounds.filter((one) => one.name.toLowerCase() !== name.toLowerCase())
        : [...piece.grounds, { name, colour }],
    });
  const own = piece.grounds.filter(
    (one) => !grounds.some((each) => each.label.toLowerCase() === one.name.toLowerCase()),
  );
  const amount = price.trim() === '' ? null : parseAmount(price, homeCurrency);
  const isWrong = price.trim() !== '' && (amount === null || amount < 1);
  const label = piece.product || 'A product';
  return (
    <fieldset className="rounded border border-base-300 p-2 text-[13px]">
      <legend className="sr-only">{label}</legend>
      <div className="flex flex-wrap items-end gap-3">
        {isPublished ? (
          <p className="min-w-40 pb-1.5 font-medium">{piece.product}</p>
        ) : (
          <label>
            Product
            <input
              className="input input-sm block w-44"
              required
              maxLength={60}
              value={piece.product}
              onChange={(event) => set({ ...piece, product: event.target.value })}
            />
          </label>
        )}
        <label>
          Price
          <input
            className="input input-sm figures block w-24"
            inputMode="decimal"
            placeholder="the item’s"
            aria-invalid={isWrong}
            value={price}
            onChange={(event) => {
              setPrice(event.target.value);
              const typed = event.target.value.trim();
              const read = typed === '' ? null : parseAmount(typed, homeCurrency);
              if (typed === '' || (read !== null && read >= 1)) set({ ...piece, price: read });
            }}
          />
        </label>
        {isWrong ? <span className="pb-1.5 text-error">This is no price</span> : null}
        <button type="button" className="btn btn-xs btn-ghost mb-1 ml-auto" onClick={remove}>
          Take out
        </button>
      </div>
      {area ? (
        <div className="mt-2 flex flex-wrap gap-3">
          {measures.map(([field, words]) => (
            <label key={field}>
              {words}
              <input
                type="number"
                min={0}
                className="input input-sm figures block w-24"
                value={area[field]}
                onChange={(event) => {
                  const typed = event.target.valueAsNumber;
                  if (Number.isFinite(typed)) set({ ...piece, area: { ...area, [field]: typed } });
                }}
              />
            </label>
          ))}
        </div>
      ) : null}
      <div className="mt-2 flex flex-wrap items-center gap-1">
        <span className="quiet">Grounds</span>
        {grounds.map(({ label: name, colour }) => (
          <GroundButton
            key={name}
            name={name}
            colour={colour}
            isOn={isOn(name)}
            turn={() => turn(name, isPublished ? null : colour)}
          />
        ))}
        {own.map(({ name, colour }) => (
          <GroundButton key={name} name={name} colour={colour} isOn turn={() => turn(name, colour)} />
        ))}
        {isPublished ? null : (
          <>
            <input
              className="input input-xs w-28"
              placeholder="another ground"
              aria-label={`Another ground of ${label}`}
              maxLength={60}
              value={ground.name}
              onChange={(event) => setGround({ ...ground, name: event.target.value })}
            />
            <input
              type="color"
              aria-label="Its colour"
              className="h-6 w-8"
              value={ground.colour}
              onChange={(event) => setGround({ ...ground, colour: event.target.value })}
            />
            <button
              type="button"
              className="btn btn-xs"
              disabled={ground.name.trim() === '' || isOn(ground.name.trim())}
              onClick={() => {
                turn(ground.name.trim(), ground.colour);
                setGround({ ...ground, name: '' });
              }}
            >
              Add
            </button>
          </>
        )}
      </div>
    </fieldset>
  );
}

type GroundProps = { name: string; colour: string | null; isOn: boolean; turn: () => void };

function GroundButton({ name, colour, isOn, turn }: GroundProps) {
  return (
    <button
      type="button"
      aria-pressed={isOn}
      className={`btn btn-xs ${isOn ? 'bg-base-300' : 'btn-ghost'}`}
      onClick={turn}
    >
      <span className="size-3 rounded-full border border-base-300" style={{ background: colour ?? '#ffffff' }} />
      {name}
    </button>
  );
}
