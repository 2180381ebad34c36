'use client';

import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { addressOf } from '@/core/filter/address';
import type { Answer } from '@/http/interface';
import { Price } from '@/ui/controls/format';
import { Knot } from '@/ui/controls/knot';
import { Link } from '@/ui/controls/link';
import { When } from '@/ui/controls/when';
import { api } from '@/ui/data/api';
import { filterSelection, withSelection } from '@/ui/data/selection';
import { useCommand } from '@/ui/data/use-command';

type Need = Answer<'GET /needs'>['needs'][number];

export const useNeeds = (): Need[] =>
  useQuery({ queryKey: ['needs'], queryFn: () => api('GET /needs'), refetchInterval: 60_000 }).data?.needs ?? [];

/** What waits for somebody, a line a cause: where it is mended for all, or put off with a word why. */
export function Needs({ needs }: { needs: readonly Need[] }) {
  const off = needs.filter((one) => one.later);
  const now = needs.filter((one) => !one.later);
  if (needs.length === 0) return null;
  return (
    <section aria-labelledby="needs" className="border-b border-base-300">
      <h2 id="needs" className="px-4 pt-2 font-semibold">
        What should be looked at
      </h2>
      {now.length ? (
        <ul className="divide-y divide-base-300/60">
          {now.map((need) => (
            <NeedRow key={need.need} need={need} />
          ))}
        </ul>
      ) : (
        <p className="quiet px-4 py-2">All of it is put off.</p>
      )}
      {off.length ? (
        <details className="border-t border-base-300/60 px-4 py-2">
          <summary className="cursor-pointer">{off.length} put off</summary>
          <ul>
            {off.map((need) => (
              <PutOff key={need.need} need={need} />
            ))}
          </ul>
        </details>
      ) : null}
    </section>
  );
}

const usePutOff = () =>
  useCommand(
    async (need: string, days: number, why: string) => {
      await api('POST /needs/later', { body: { need, days, why } });
      return days ? `Put off for ${days === 1 ? 'a day' : `${days} days`}` : 'It is back';
    },
    { touches: [['needs']], tells: true },
  );

function NeedRow({ need }: { need: Need }) {
  const { says, mend, count, atStake, isUrgent, page, filter, steps } = need;
  const [isLater, setLater] = useState(false);
  const putOff = usePutOff();
  const router = useRouter();
  const found = filter ? addressOf(filter) : null;
  const many = `${count.toLocaleString('en')}`;
  return (
    <li className="px-4 py-2" data-need={need.need}>
      <div className="flex flex-wrap items-center gap-3">
        <Knot state="attention" />
        <h3 className="font-medium">{says}</h3>
        {isUrgent ? <span className="rounded bg-error px-1.5 text-[12px] text-error-content">at once</span> : null}
        <span className="quiet figures">
          {many}
          {atStake ? (
            <>
              {' · '}
              <Price amount={atStake} /> in it
            </>
          ) : null}
        </span>
        <span className="quiet">{mend}</span>
        <span className="ml-auto flex flex-wrap gap-2">
          {page ? (
            <Link className="btn btn-sm btn-primary" href={page}>
              Show {many}
            </Link>
          ) : null}
          {found ? (
            <>
              <Link className="btn btn-sm" href={`/?${new URLSearchParams(found)}`}>
                Show {many}
              </Link>
              {steps.length ? (
                <button
                  type="button"
                  className="btn btn-sm btn-primary"
                  onClick={() =>
                    router.push(
                      withSelection('/workbench', filterSelection(found, []), { steps: JSON.stringify(steps) }),
                    )
                  }
                >
                  Change all {many}
                </button>
              ) : null}
            </>
          ) : null}
          <button
            type="button"
            className="btn btn-sm btn-ghost"
            aria-expanded={isLater}
            onClick={() => setLater(!isLater)}
          >
            Later
          </button>
        </span>
      </div>
      {isLater ? (
        <form
          className="mt-2 flex flex-wrap items-center gap-2 pl-7"
          onSubmit={(event) => {
            event.preventDefault();
            const given = new FormData(event.currentTarget);
            void putOff.run(need.need, Number(given.get('days')), String(given.get('why') ?? ''));
          }}
        >
          <label className="flex items-center gap-2">
            in
            <select name="days" aria-label="Put off for" className="select select-sm w-28" defaultValue="7">
              <option value="1">a day</option>
              <option value="3">3 days</option>
              <option value="7">a week</option>
              <option value="30">30 days</option>
            </select>
          </label>
          <input name="why" className="input input-sm w-72" aria-label="Why" placeholder="why" maxLength={200} />
          <button type="submit" className="btn btn-sm" disabled={putOff.busy}>
            Put it off
          </button>
        </form>
      ) : null}
    </li>
  );
}

function PutOff({ need }: { need: Need }) {
  const back = usePutOff();
  return (
    <li className="flex flex-wrap items-center gap-3 py-1">
      <span>
        {need.says} <span className="quiet figures">{need.count.toLocaleString('en')}</span>
      </span>
      {need.later ? (
        <span className="quiet">
          until <When at={need.later.until} />, {need.later.byName}
          {need.later.why ? `: ${need.later.why}` : ''}
        </span>
      ) : null}
      <button
        type="button"
        className="btn btn-sm ml-auto"
        disabled={back.busy}
        onClick={() => void back.run(need.need, 0, '')}
      >
        Bring back
      </button>
    </li>
  );
}
