'use client';

import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { NuqsAdapter } from 'nuqs/adapters/next/app';
import { createContext, type ReactNode, useCallback, useContext, useMemo, useState } from 'react';
import { config } from 'zod';
import { ApiProblem } from '../data/api';

// The page may not make code of text: schemas are not to try.
config({ jitless: true });

type Notice = { id: number; text: string; action?: { label: string; run: () => void } };
const NoticeContext = createContext<(text: string, action?: Notice['action']) => void>(() => undefined);

/** Says what was done, with the way back where there is one. */
export const useNotice = () => useContext(NoticeContext);

let nextNotice = 1;

function Notices({ children }: { children: ReactNode }) {
  const [notices, setNotices] = useState<Notice[]>([]);
  const drop = useCallback((id: number) => setNotices((all) => all.filter((one) => one.id !== id)), []);
  const add = useCallback(
    (text: string, action?: Notice['action']) => {
      const id = nextNotice++;
      setNotices((all) => [...all.slice(-2), { id, text, action }]);
      setTimeout(() => drop(id), action ? 15_000 : 6_000);
    },
    [drop],
  );
  return (
    <NoticeContext.Provider value={add}>
      {children}
      <div role="status" aria-live="polite" className="fixed right-4 bottom-12 z-40 flex flex-col gap-2">
        {notices.map((one) => (
          <div
            key={one.id}
            className="flex items-center gap-3 rounded border border-base-300 bg-neutral px-3 py-2 text-neutral-content shadow"
          >
            <span>{one.text}</span>
            {one.action ? (
              <button
                type="button"
                className="underline"
                onClick={() => {
                  one.action?.run();
                  drop(one.id);
                }}
              >
                {one.action.label}
              </button>
            ) : null}
            <button type="button" aria-label="Close" onClick={() => drop(one.id)}>
              ×
            </button>
          </div>
        ))}
      </div>
    </NoticeContext.Provider>
  );
}

export function Providers({ children }: { children: ReactNode }) {
  const client = useMemo(
    () =>
      new QueryClient({
        defaultOptions: {
          queries: {
            // What was refused stays refused; what could not be asked may go the second time.
            retry: (times, error) =>
              times < 1 && !(error instanceof ApiProblem && error.status >= 400 && error.status < 500),
            staleTime: 1_000,
            refetchOnWindowFocus: true,
            // Netting may well be reached where the rest of the world is not; where it is not, that is said.
            networkMode: 'always',
            refetchOnReconnect: true,
          },
        },
      }),
    [],
  );
  return (
    <QueryClientProvider client={client}>
      <NuqsAdapter>
        <Notices>{children}</Notices>
      </NuqsAdapter>
    </QueryClientProvider>
  );
}
