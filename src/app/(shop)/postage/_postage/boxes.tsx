'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { parseLength } from '@/core/measure/length';
import type { Box } from '@/core/measure/parcel';
import { formatWeight, parseWeight } from '@/core/measure/weight';
import { ApiProblem, api } from '@/ui/api';
import { Failed, Loading } from '@/ui/states';

const sides = [
  ['lengthMm', 'Length'],
  ['widthMm', 'Width'],
  ['heightMm', 'Height'],
] as const;

/** The handful of boxes on the packing bench; the smallest that fits is proposed for an item. */
export function Boxes() {
  const client = useQueryClient();
  const [problem, setProblem] = useState('');
  const { data, isPending, isError, error, refetch } = useQuery({
    queryKey: ['boxes'],
    queryFn: () => api<{ boxes: Box[] }>('/boxes'),
  });
  const again = () => client.invalidateQueries({ queryKey: ['boxes'] });
  const add = async (event: React.FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = event.currentTarget;
    const given = new FormData(form);
    const length = (name: string) => parseLength(String(given.get(name)));
    const body = {
      name: String(given.get('name')),
      lengthMm: length('lengthMm'),
      widthMm: length('widthMm'),
      heightMm: length('heightMm'),
      grams: parseWeight(String(given.get('grams'))),
    };
    const unread = sides.find(([name]) => body[name] === null)?.[1] ?? (body.grams === null ? 'Weight' : null);
    if (unread) return setProblem(`${unread} is not understood; write it as in 26 cm, 10 in or 180 g`);
    try {
      await api('/boxes', { method: 'POST', body });
      setProblem('');
      form.reset();
      await again();
    } catch (failure) {
      setProblem(failure instanceof ApiProblem ? (failure.errors[0]?.message ?? failure.message) : 'Not saved');
    }
  };
  const remove = async (id: number) => {
    await api(`/boxes/${id}`, { method: 'DELETE' });
    await again();
  };
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
            </span>
            <button
              type="button"
              className="btn btn-ghost btn-xs"
              aria-label={`Remove ${box.name}`}
              onClick={() => void remove(box.id)}
            >
              Remove
            </button>
          </li>
        ))}
      </ul>
      <form onSubmit={(event) => void add(event)} className="mt-3 grid grid-cols-4 gap-2">
        <label className="col-span-3 flex flex-col text-[12px]">
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
        <button type="submit" className="btn btn-sm self-end">
          Add
        </button>
        {problem ? (
          <p role="alert" className="col-span-4 text-error">
            {problem}
          </p>
        ) : null}
      </form>
    </section>
  );
}
