'use client';

import { useQuery } from '@tanstack/react-query';
import { useRef } from 'react';
import { parseLength } from '@/core/measure/length';
import { formatMoney, homeCurrency, parseAmount } from '@/core/measure/money';
import { formatWeight, parseWeight } from '@/core/measure/weight';
import type { Answer } from '@/http/interface';
import { RemovedList } from '@/ui/controls/removed-list';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { bringBack } from '@/ui/data/bring-back';
import { submitted, useCommand } from '@/ui/data/use-command';

type Box = Answer<'GET /boxes'>['boxes'][number];

const sides = [
  ['lengthMm', 'Length'],
  ['widthMm', 'Width'],
  ['heightMm', 'Height'],
] as const;

/** The handful of boxes on the packing bench; the smallest that fits is proposed for an item. */
export function Boxes() {
  const { data, isPending, isError, error, refetch } = useQuery({
    queryKey: ['boxes'],
    queryFn: () => api('GET /boxes'),
  });
  const form = useRef<HTMLFormElement>(null);
  const add = useCommand(
    async (given: FormData) => {
      const length = (name: string) => parseLength(String(given.get(name)));
      const [lengthMm, widthMm, heightMm] = [length('lengthMm'), length('widthMm'), length('heightMm')];
      const grams = parseWeight(String(given.get('grams')));
      const unread = [lengthMm, widthMm, heightMm, grams].indexOf(null);
      if (lengthMm === null || widthMm === null || heightMm === null || grams === null)
        throw new Error(
          `${[...sides.map(([, label]) => label), 'Weight'][unread]} is not understood; write it as in 26 cm, 10 in or 180 g`,
        );
      const said = String(given.get('cost')).trim();
      const cost = said === '' ? null : parseAmount(said, homeCurrency);
      if (said !== '' && cost === null) throw new Error('Cost is not understood; write it as in 0.85');
      const name = String(given.get('name'));
      await api('POST /boxes', { body: { name, lengthMm, widthMm, heightMm, grams, cost } });
      form.current?.reset();
      return undefined;
    },
    { touches: [['boxes'], ['prices']] },
  );
  const remove = useCommand(
    async ({ id, name }: Box) => {
      await api('DELETE /boxes/{id}', { params: { id } });
      return { text: `${name} is removed`, back: () => bringBack('box', id) };
    },
    { touches: [['boxes'], ['removed']], tells: true },
  );
  return (
    <section aria-labelledby="boxes">
      <h2 id="boxes" className="mb-2 font-semibold">
        Boxes
      </h2>
      {isPending ? <Loading what="the boxes" /> : null}
      {isError ? <Failed error={error} retry={() => void refetch()} /> : null}
      {data?.boxes.length === 0 ? (
        <p className="quiet mb-2">No box yet. Add the ones that you own; inside measures.</p>
      ) : null}
      <ul className="divide-y divide-base-300/60">
        {data?.boxes.map((box) => (
          <li key={box.id} className="flex items-center gap-3 py-1.5">
            <span className="flex-1">{box.name}</span>
            <span className="figures quiet">
              {[box.lengthMm, box.widthMm, box.heightMm].map((side) => side / 10).join(' × ')} cm,{' '}
              {formatWeight(box.grams)}
              {box.cost === null ? '' : `, ${formatMoney(box.cost, homeCurrency)}`}
            </span>
            <button
              type="button"
              className="btn btn-ghost btn-xs"
              aria-label={`Remove ${box.name}`}
              onClick={() => void remove.run(box)}
            >
              Remove
            </button>
          </li>
        ))}
      </ul>
      <RemovedList kind="box" />
      <form ref={form} onSubmit={submitted(add.run)} className="mt-3 grid grid-cols-5 gap-2">
        <label className="col-span-4 flex flex-col text-[12px]">
          Name
          <input name="name" className="input input-sm w-full" required maxLength={60} />
        </label>
        <label className="flex flex-col text-[12px]">
          Weight
          <input name="grams" className="input input-sm w-full" placeholder="180 g" required />
        </label>
        {sides.map(([name, label]) => (
          <label key={name} className="flex flex-col text-[12px]">
            {label}
            <input name={name} className="input input-sm w-full" placeholder="26 cm" required />
          </label>
        ))}
        <label className="flex flex-col text-[12px]">
          Cost, {homeCurrency}
          <input name="cost" className="input input-sm w-full" placeholder="as any parcel" inputMode="decimal" />
        </label>
        <button type="submit" className="btn btn-sm self-end">
          Add
        </button>
        {add.problem ? (
          <p role="alert" className="col-span-5 text-error">
            {add.problem}
          </p>
        ) : null}
      </form>
    </section>
  );
}
