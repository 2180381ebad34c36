'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { MarketChoice } from '@/services/accounts/find-accounts';
import { api } from '@/ui/data/api';

/** One marketplace that can be connected: on its own consent page, or by a key from it. */
export function ConnectCard({ choice, changed }: { choice: MarketChoice; changed: () => void }) {
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [problem, setProblem] = useState('');
  const begin = async () => {
    const answer = await fetch(`/api/connect/start?market=${choice.market}`, { method: 'POST' });
    const body = (await answer.json()) as { url?: string; title?: string };
    if (body.url) window.location.href = body.url;
    else setProblem(body.title ?? 'That did not work');
  };
  const connectWithKey = async (event: React.FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    try {
      const { accountId, isFirst } = await api('POST /accounts', {
        body: { market: choice.market, key: String(new FormData(event.currentTarget).get('key')) },
      });
      setOpen(false);
      setProblem('');
      // Whoever begins has most of it there already.
      if (isFirst) router.push(`/bring-in?account=${accountId}`);
      else changed();
    } catch (error) {
      setProblem(error instanceof Error ? error.message : 'That did not work');
    }
  };
  return (
    <li className="py-2">
      <div className="flex items-center gap-4">
        <span className="w-28 font-medium">{choice.name}</span>
        <span className="quiet flex-1">{choice.about}</span>
        {choice.access === 'oauth' ? (
          <button type="button" className="btn btn-sm" onClick={() => void begin()}>
            Connect {choice.name}
          </button>
        ) : (
          <button type="button" className="btn btn-sm" aria-expanded={open} onClick={() => setOpen(!open)}>
            Connect {choice.name}
          </button>
        )}
      </div>
      {open ? (
        <form onSubmit={(event) => void connectWithKey(event)} className="mt-2 flex items-end gap-2 pl-32">
          <label className="flex flex-col gap-1">
            API key
            <input name="key" className="input input-sm mono w-80" autoComplete="off" />
          </label>
          <button type="submit" className="btn btn-primary btn-sm">
            Connect
          </button>
          {choice.keyPage ? (
            <a className="underline" href={choice.keyPage} target="_blank" rel="noreferrer">
              Where the key is
            </a>
          ) : null}
        </form>
      ) : null}
      {problem ? (
        <p role="alert" className="mt-1 pl-32 text-error">
          {problem}
        </p>
      ) : null}
    </li>
  );
}
