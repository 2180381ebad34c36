'use client';

import { useState } from 'react';
import { fillPlaces, placesBetween } from '@/core/kit/fill-places';
import type { KitView, LotView } from '@/services/kits/find-kit';
import { Dialog } from '@/ui/controls/dialog';
import { Field } from '@/ui/controls/field';
import { api } from '@/ui/data/api';
import { counted, countedAre } from '@/ui/data/counted';
import { submitted, useCommand } from '@/ui/data/use-command';

type Props = {
  /** Those that get places, in the order in which they are shown. */
  lots: LotView[];
  /** All others: what lies where already. */
  others: LotView[];
  kit: KitView;
  writeAll: (changes: ReadonlyMap<number, { place: string }>) => void;
  close: () => void;
};

/** Gives lots their drawers, in the order in which they are shown; drawers that are full are passed over. */
export function DrawersDialog({ kit, lots, others, writeAll, close }: Props) {
  const [said, setSaid] = useState('');
  const fill = useCommand(
    async (form: FormData) => {
      const [from, to] = [String(form.get('from')).trim(), String(form.get('to')).trim()];
      const places = placesBetween(from, to);
      if (!places) throw new Error(`${to} never comes when one counts on from ${from}`);
      const { taken } = await api('POST /kits/{id}/places', { params: { id: kit.id }, body: { places } });
      const holds = Number(form.get('holds'));
      if (holds !== kit.placeHolds)
        await api('PATCH /kits/{id}', {
          params: { id: kit.id },
          body: { baseVersion: kit.version, placeHolds: holds },
        });
      const there = new Map(taken.map((one) => [one.place, one.lots]));
      for (const lot of others)
        if (lot.place && lot.state !== 'out' && lot.state !== 'done')
          there.set(lot.place, (there.get(lot.place) ?? 0) + 1);
      const given = fillPlaces(lots.length, places, holds, there);
      const homeless = given.filter((one) => one === null).length;
      writeAll(
        new Map(
          lots.flatMap((lot, at): [number, { place: string }][] => {
            const place = given[at];
            return place && place !== lot.place ? [[lot.id, { place }]] : [];
          }),
        ),
      );
      if (homeless === 0) close();
      else setSaid(`${countedAre(homeless, 'lot')} without room: the drawers are full`);
      return `${countedAre(lots.length - homeless, 'lot')} in ${counted(new Set(given.filter(Boolean)).size, 'drawer')}`;
    },
    { touches: [['kit', kit.id]] },
  );
  return (
    <Dialog title={`Drawers for ${lots.length.toLocaleString('en')} lots`} close={close}>
      <form className="space-y-3" onSubmit={submitted((form) => fill.run(form))}>
        <p className="quiet">
          In the order in which they are shown now: put them in order of finish, kind or name first. The last number of
          the drawer counts on.
        </p>
        <div className="grid grid-cols-3 gap-3">
          <Field label="From" name="from" required maxLength={60} placeholder="A1" data-first />
          <Field label="To" name="to" required maxLength={60} placeholder="A60" />
          <Field
            label="Lots in a drawer"
            name="holds"
            type="number"
            min={1}
            max={10_000}
            required
            defaultValue={kit.placeHolds ?? 1}
          />
        </div>
        {said || fill.problem ? (
          <p role="alert" className="text-error">
            {said || fill.problem}
          </p>
        ) : null}
        <button type="submit" className="btn btn-primary btn-sm" disabled={fill.busy}>
          Give them drawers
        </button>
      </form>
    </Dialog>
  );
}
