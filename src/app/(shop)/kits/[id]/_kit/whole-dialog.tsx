'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Answer } from '@/http/interface';
import type { KitView, LotView } from '@/services/kits/find-kit';
import { AmountField } from '@/ui/controls/amount-field';
import { Dialog } from '@/ui/controls/dialog';
import { Field } from '@/ui/controls/field';
import { api } from '@/ui/data/api';
import { submitted, useCommand } from '@/ui/data/use-command';
import { money } from './lot-row';

type Worth = Answer<'POST /kits/{id}/worth'>;
type Props = { kit: KitView; lots: LotView[]; close: () => void };

const hours = (minutes: number) => `${(minutes / 60).toLocaleString('en', { maximumFractionDigits: 1 })} h`;
const count = (form: FormData, name: string) => Number(form.get(name));

/** Sold in parts or whole: what each would bring, and the sets offered whole beside their parts. */
export function WholeDialog({ kit, lots, close }: Props) {
  const { id } = kit;
  const router = useRouter();
  const entry = lots[0]?.from[0]?.within[0] ?? '';
  const [hourly, setHourly] = useState<number | null>(1_500);
  const [packing, setPacking] = useState<number | null>(60);
  const [packingWhole, setPackingWhole] = useState<number | null>(400);
  const [postageWhole, setPostageWhole] = useState<number | null>(null);
  const [wholePrice, setWholePrice] = useState<number | null>(null);
  const [worth, setWorth] = useState<Worth | null>(null);
  const weigh = useCommand(
    async (form: FormData) => {
      const found = await api('POST /kits/{id}/worth', {
        params: { id },
        body: {
          entry: String(form.get('entry') ?? '').trim(),
          sets: count(form, 'sets'),
          days: count(form, 'days'),
          minutesPerLot: count(form, 'perLot'),
          minutesPerOrder: count(form, 'perOrderMinutes'),
          minutesPerSet: count(form, 'perSet'),
          perOrder: count(form, 'perOrder'),
          hourly: hourly ?? 0,
          packing: packing ?? 0,
          packingWhole: packingWhole ?? 0,
          postageWhole: postageWhole ?? 0,
          wholePrice,
        },
      });
      setWorth(found);
      return undefined;
    },
    { touches: [] },
  );
  const offer = useCommand(
    async (form: FormData) => {
      const made = await api('POST /kits/{id}/whole', {
        params: { id },
        body: {
          title: String(form.get('title')).trim(),
          sets: count(form, 'wholes'),
          price: worth?.wholePrice ?? wholePrice,
        },
      });
      router.push(`/items/${made.id}`);
      return undefined;
    },
    { touches: [['kit', id]] },
  );
  return (
    <Dialog title="In parts or whole" close={close} wide>
      <form
        className="grid grid-cols-4 gap-3 [&_label]:text-[12px] [&_label]:font-normal"
        onSubmit={submitted((form) => weigh.run(form))}
      >
        <Field label="Sets" name="sets" type="number" min={1} max={10_000} required defaultValue={1} data-first />
        <Field label="Number of the set there" name="entry" maxLength={60} defaultValue={entry} />
        <AmountField label="Or: a whole one brings" amount={wholePrice} set={setWholePrice} />
        <Field label="Within so many days" name="days" type="number" min={1} max={3_650} required defaultValue={90} />
        <AmountField label="An hour of yours" amount={hourly} set={setHourly} />
        <Field
          label="Minutes for a lot"
          name="perLot"
          type="number"
          min={0}
          max={600}
          step="any"
          required
          defaultValue={2}
        />
        <Field
          label="Minutes for an order"
          name="perOrderMinutes"
          type="number"
          min={0}
          max={600}
          step="any"
          required
          defaultValue={6}
        />
        <Field
          label="Minutes for a whole set"
          name="perSet"
          type="number"
          min={0}
          max={6_000}
          step="any"
          required
          defaultValue={30}
        />
        <Field label="Pieces in an order" name="perOrder" type="number" min={1} max={1_000} required defaultValue={2} />
        <AmountField label="Packing of an order" amount={packing} set={setPacking} />
        <AmountField label="Packing of a set" amount={packingWhole} set={setPackingWhole} />
        <AmountField label="Postage of a set, paid by you" amount={postageWhole} set={setPostageWhole} />
        <button type="submit" className="btn btn-primary btn-sm self-end" disabled={weigh.busy}>
          {weigh.busy ? 'Asking …' : 'Work it out'}
        </button>
      </form>
      {weigh.problem ? (
        <p role="alert" className="mt-2 text-error">
          {weigh.problem}
        </p>
      ) : null}
      {worth ? <Both worth={worth} /> : null}
      <form
        className="mt-4 grid grid-cols-4 items-end gap-3 border-t border-base-300 pt-3"
        onSubmit={submitted((form) => offer.run(form))}
      >
        <div className="col-span-2">
          <Field label="Offer whole sets, too, as" name="title" required maxLength={300} defaultValue={kit.name} />
        </div>
        <Field label="So many sets" name="wholes" type="number" min={1} max={10_000} required defaultValue={1} />
        <button type="submit" className="btn btn-sm" disabled={offer.busy}>
          Make the item
        </button>
      </form>
      <p className="quiet mt-1 text-[12px]">
        The item and its parts are one stock: a whole that is sold takes its parts off, and a part that is sold lowers
        how many wholes can be offered. Every part has to be in stock first.
      </p>
      {offer.problem ? (
        <p role="alert" className="mt-2 text-error">
          {offer.problem}
        </p>
      ) : null}
    </Dialog>
  );
}

function Both({ worth }: { worth: Worth }) {
  const { likely, parts, whole, unpriced, paysAt, paysAfterDays, wholePrice, wholeCount } = worth;
  const ways = [
    ['In parts, what is likely', likely],
    ['In parts, all of it', parts],
    ...(whole ? ([['Whole', whole]] as const) : []),
  ] as const;
  return (
    <div className="mt-4">
      <table
        className="w-full text-[13px] [&_td]:border-t [&_td]:border-base-300 [&_td]:px-3 [&_td]:py-1 [&_th]:px-3 [&_th]:py-1.5 [&_th]:text-left [&_th.text-right]:text-right"
        aria-label="In parts or whole"
      >
        <thead>
          <tr>
            {['', 'Pieces', 'Brings', 'Fees', 'Postage', 'Packing', 'Hours', 'Their worth', 'Left'].map((head) => (
              <th key={head} className={head ? 'text-right' : ''}>
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody className="figures">
          {ways.map(([name, way]) => (
            <tr key={name}>
              <th className="font-medium">{name}</th>
              <td className="text-right">{way.pieces.toLocaleString('en')}</td>
              <td className="text-right">{money(way.revenue)}</td>
              <td className="text-right">{money(way.fees)}</td>
              <td className="text-right">{money(way.postage)}</td>
              <td className="text-right">{money(way.packing)}</td>
              <td className="text-right">{hours(way.minutes)}</td>
              <td className="text-right">{money(way.time)}</td>
              <td className="text-right font-semibold">{money(way.net)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2" role="status">
        {whole === null
          ? 'What a whole set brings is not known: write it, or its number in the catalogue. '
          : paysAt === null
            ? 'Parts never bring as much as the whole, even when all of them go. '
            : `Parts bring as much as the whole once ${(paysAt / 100).toLocaleString('en', { maximumFractionDigits: 1 })} % of the pieces are sold${paysAfterDays === null ? ', which at this pace never comes' : `: after about ${paysAfterDays.toLocaleString('en')} days at this pace`}. `}
        {wholePrice !== null && wholeCount !== null
          ? `A whole one brought ${money(wholePrice)}, the median of ${wholeCount}. `
          : ''}
        {unpriced ? `${unpriced.toLocaleString('en')} lots have no price and count for nothing.` : ''}
      </p>
      <p className="quiet text-[12px]">
        Likely is what goes at the pace at which such things stood, and not more than your share of what everybody
        sells. What the sets have cost is the same both ways and left out; the postage of parts is paid by who buys
        them.
      </p>
    </div>
  );
}
