'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Answer } from '@/http/interface';
import { ShownOnce } from '@/ui/controls/shown-once';
import { Failed, Loading } from '@/ui/controls/states';
import { When } from '@/ui/controls/when';
import { api } from '@/ui/data/api';
import { submitted, useCommand } from '@/ui/data/use-command';

const touches = [['summaries']];

/** What needs somebody, told once a day: as a feed, and to an address of one's own. */
export function DailySummary() {
  const { data, isPending, isLoadingError, error, refetch } = useQuery({
    queryKey: ['summaries'],
    queryFn: () => api('GET /summaries'),
  });
  const [shown, setShown] = useState<{ label: string; key: string } | null>(null);
  const save = useCommand(
    async (form: FormData) => {
      const address = String(form.get('address') ?? '').trim() || null;
      const { hour: hourBefore, address: addressBefore } = await api('GET /summaries');
      await api('PUT /summaries', { body: { hour: Number(form.get('hour')), address } });
      const before = { hour: hourBefore, address: addressBefore };
      return { text: 'Kept', back: () => api('PUT /summaries', { body: before }) };
    },
    { touches },
  );
  const renew = useCommand(
    async (what: 'feed' | 'secret' | 'off') => {
      const { key } = await api('POST /summaries/key', { body: { what } });
      setShown(what === 'off' ? null : { label: what === 'feed' ? 'Address of the feed' : 'Secret', key });
      return what === 'off' ? 'There is no feed any more' : undefined;
    },
    { touches, tells: true },
  );
  const now = useCommand(
    async () => {
      const { address, days } = await api('POST /summaries/now', { body: {} });
      const problem = days[0]?.problem;
      if (problem) throw new Error(problem);
      return address ? 'It was taken' : 'Today’s stands in the feed';
    },
    { touches, tells: true },
  );
  if (isPending) return <Loading what="the summary" />;
  if (isLoadingError) return <Failed error={error} retry={() => void refetch()} />;
  return (
    <section aria-labelledby="summary">
      <h2 id="summary" className="mb-2 font-semibold">
        What needs you, once a day
      </h2>
      <form className="flex flex-wrap items-end gap-3" onSubmit={submitted((form) => void save.run(form))}>
        <label className="flex flex-col text-[12px]">
          From
          <select className="select select-sm w-28" name="hour" defaultValue={data.hour} key={data.hour}>
            {Array.from({ length: 24 }, (_, hour) => (
              <option key={hour} value={hour}>{`${hour}:00`}</option>
            ))}
          </select>
        </label>
        <label className="flex grow flex-col text-[12px]">
          Sent to
          <input
            className="input input-sm mono w-full"
            name="address"
            type="url"
            maxLength={500}
            placeholder="nowhere; an address of yours, as https://…"
            defaultValue={data.address ?? ''}
            key={data.address}
          />
        </label>
        <button type="submit" className="btn btn-sm" disabled={save.busy}>
          Keep it
        </button>
      </form>
      {save.problem ? (
        <p role="alert" className="text-error">
          {save.problem}
        </p>
      ) : null}
      <div className="mt-2 flex flex-wrap gap-2">
        <button type="button" className="btn btn-sm" disabled={renew.busy} onClick={() => void renew.run('feed')}>
          {data.hasFeed ? 'Another address of the feed' : 'Make a feed'}
        </button>
        {data.hasFeed ? (
          <button type="button" className="btn btn-sm" disabled={renew.busy} onClick={() => void renew.run('off')}>
            No feed
          </button>
        ) : null}
        <button type="button" className="btn btn-sm" disabled={renew.busy} onClick={() => void renew.run('secret')}>
          {data.hasSecret ? 'Another secret' : 'Make the secret'}
        </button>
        <button type="button" className="btn btn-sm" disabled={now.busy} onClick={() => void now.run()}>
          Tell it now
        </button>
      </div>
      {shown ? (
        <ShownOnce label={shown.label} value={shown.key}>
          {shown.label}, shown only now; what was before holds no more.
        </ShownOnce>
      ) : null}
      <Days days={data.days} />
      <p className="quiet mt-1 text-[12px]">
        Messages are signed with the secret (Standard Webhooks). Addresses inside your own network are spoken to where
        settings.json in the data folder names them.
      </p>
    </section>
  );
}

function Days({ days }: { days: Answer<'GET /summaries'>['days'] }) {
  if (days.length === 0) return null;
  return (
    <ul className="mt-2" aria-label="Last summaries">
      {days.map((one) => (
        <li key={one.day} className="flex gap-3">
          <span className="figures">{one.day}</span>
          <span>{one.lines === 1 ? '1 thing' : `${one.lines} things`}</span>
          {one.sentAt ? (
            <span className="quiet">
              sent <When at={one.sentAt} />
            </span>
          ) : null}
          {one.problem ? <span className="text-warning">{one.problem}</span> : null}
        </li>
      ))}
    </ul>
  );
}
