'use client';

import { useState } from 'react';
import { toCentimetres } from '@/core/measure/length';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { BoxFaults } from './box-faults';
import { ContentsFile } from './contents-file';
import { readMeasures } from './read-measures';
import { type BoxView, kilograms, type Shipment, type View } from './view';

/** What was typed of a box and is not kept yet: it lies over what is known, whoever packs meanwhile. */
type Draft = { weight?: string; sides?: string; contents: Record<string, number> };

const emptyBox = (number: number): BoxView => ({
  number,
  contents: {},
  grams: null,
  millimetres: null,
  isFull: false,
  code: '',
});

function rowsOf(boxes: readonly BoxView[], drafts: Readonly<Record<number, Draft>>) {
  const added = Object.keys(drafts)
    .map(Number)
    .filter((number) => boxes.every((box) => box.number !== number));
  return [...boxes, ...added.map(emptyBox)].map(({ code: _code, ...box }) => {
    const draft = drafts[box.number];
    return {
      ...box,
      contents: { ...box.contents, ...draft?.contents },
      weight: draft?.weight ?? (box.grams === null ? '' : String(box.grams / 1_000)),
      sides: draft?.sides ?? box.millimetres?.map(toCentimetres).join(' × ') ?? '',
    };
  });
}

/** The boxes of a shipment side by side: what is in each, what it weighs, how large it is; packed by hand where one wants. */
export function BoxesTable({ shipment, consignment }: { shipment: Shipment; consignment: View }) {
  const { id, version, units, boxes, state, faults } = shipment;
  const touches = [['consignment', consignment.id]];
  const [drafts, setDrafts] = useState<Record<number, Draft>>({});
  const rows = rowsOf(boxes, drafts);
  const [isByHand, setIsByHand] = useState(false);
  const [wrong, setWrong] = useState<{ number: number; text: string } | null>(null);
  const save = useCommand(
    async () => {
      const read = readMeasures(rows);
      setWrong('wrong' in read ? read.wrong : null);
      if ('wrong' in read) return undefined;
      await api('PUT /shipments/{id}/boxes', { params: { id }, body: { baseVersion: version, boxes: read.boxes } });
      setDrafts({});
      return undefined;
    },
    { touches },
  );
  const tell = useCommand(
    async () => {
      const { boxes: told } = await api('POST /shipments/{id}/tell', { params: { id }, body: {} });
      return told === 1 ? 'One box is known there' : `${told} boxes are known there`;
    },
    { touches },
  );
  const change = (number: number, part: Partial<Draft>) =>
    setDrafts((now) => {
      const before = now[number] ?? { contents: {} };
      return { ...now, [number]: { ...before, ...part, contents: { ...before.contents, ...part.contents } } };
    });
  const changed = Object.keys(drafts).length > 0;
  const { grams, millimetres } = consignment.limits;
  return (
    <div>
      {rows.length ? (
        <div className="overflow-x-auto" tabIndex={0} role="region" aria-label={`Boxes to ${shipment.warehouseName}`}>
          <table>
            <thead>
              <tr className="quiet text-[12px]">
                <th scope="col" className="pr-4 text-left font-medium">
                  Stock number
                </th>
                <th scope="col" className="pr-4 text-right font-medium">
                  Planned
                </th>
                {rows.map((box) => (
                  <th key={box.number} scope="col" className="px-2 text-right font-medium">
                    Box {box.number}
                    {box.isFull ? ', full' : ''}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {units.map((unit) => (
                <tr key={unit.sku} className="border-t border-base-300/50">
                  <th scope="row" className="mono pr-4 text-left text-[12px] font-normal">
                    {unit.sku}
                  </th>
                  <td
                    className={`figures pr-4 text-right ${unit.packed === unit.quantity ? '' : 'font-semibold text-warning'}`}
                  >
                    {unit.packed === unit.quantity ? unit.quantity : `${unit.packed} of ${unit.quantity}`}
                  </td>
                  {rows.map((box) => (
                    <td key={box.number} className="figures px-2 text-right">
                      {isByHand ? (
                        <input
                          type="number"
                          min={0}
                          aria-label={`${unit.sku} in box ${box.number}`}
                          className="input input-xs figures w-16 text-right"
                          value={box.contents[unit.sku] ?? 0}
                          onChange={(event) =>
                            change(box.number, {
                              contents: { [unit.sku]: Math.max(0, Math.floor(Number(event.target.value)) || 0) },
                            })
                          }
                        />
                      ) : (
                        (box.contents[unit.sku] ?? <span className="quiet">·</span>)
                      )}
                    </td>
                  ))}
                </tr>
              ))}
              <tr className="border-t border-base-300">
                <th scope="row" colSpan={2} className="pr-4 text-left font-medium">
                  Weight <span className="quiet font-normal">kg, at most {kilograms(grams)}</span>
                </th>
                {rows.map((box) => (
                  <td key={box.number} className="px-2 py-1 text-right">
                    <input
                      aria-label={`Weight of box ${box.number} in kilograms`}
                      inputMode="decimal"
                      className="input input-xs figures w-24 text-right"
                      value={box.weight}
                      onChange={(event) => change(box.number, { weight: event.target.value })}
                    />
                  </td>
                ))}
              </tr>
              <tr>
                <th scope="row" colSpan={2} className="pr-4 text-left font-medium">
                  Sides <span className="quiet font-normal">cm, at most {toCentimetres(millimetres)}</span>
                </th>
                {rows.map((box) => (
                  <td key={box.number} className="px-2 py-1 text-right">
                    <input
                      aria-label={`Sides of box ${box.number} in centimetres`}
                      placeholder="40 × 30 × 30"
                      className="input input-xs figures w-28 text-right"
                      value={box.sides}
                      onChange={(event) => change(box.number, { sides: event.target.value })}
                    />
                  </td>
                ))}
              </tr>
            </tbody>
          </table>
        </div>
      ) : (
        <p className="quiet">No box yet: scan the first piece, or pack by hand.</p>
      )}
      {wrong || save.problem || tell.problem ? (
        <p role="alert" className="mt-2 text-error">
          {wrong?.text || save.problem || tell.problem}
        </p>
      ) : null}
      {state === 'open' && boxes.length ? <BoxFaults shipment={shipment} /> : null}
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <button type="button" className="btn btn-sm" disabled={save.busy || !changed} onClick={() => void save.run()}>
          Keep the boxes
        </button>
        {state === 'open' ? (
          <button
            type="button"
            className={`btn btn-sm ${faults.length === 0 && !changed ? 'btn-primary' : ''}`}
            disabled={tell.busy || changed || boxes.length === 0}
            onClick={() => void tell.run()}
          >
            Tell them the boxes
          </button>
        ) : null}
        <button type="button" className="btn btn-ghost btn-sm" onClick={() => setIsByHand((now) => !now)}>
          {isByHand ? 'Only look' : 'Pack by hand'}
        </button>
        {isByHand ? (
          <>
            <button
              type="button"
              className="btn btn-ghost btn-sm"
              onClick={() => {
                change(Math.max(0, ...rows.map((one) => one.number)) + 1, {});
              }}
            >
              Another box
            </button>
            <ContentsFile shipment={shipment} consignmentId={consignment.id} />
          </>
        ) : null}
      </div>
    </div>
  );
}
