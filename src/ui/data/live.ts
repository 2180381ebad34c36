'use client';

import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import type { LiveNews } from '@/services/outbox/live';

/** Which lists hang on what. */
const concerned: Record<string, string[]> = {
  jobs: ['jobs', 'runs', 'causes', 'stages', 'items', 'renewals', 'accounts', 'history', 'scheduled', 'sheet'],
  sales: ['sales', 'stages', 'items', 'stock'],
  items: ['items', 'stages', 'drift', 'gone', 'sheet', 'stock', 'history'],
};

const spreadMs = 250;
/** What is counted over everything follows a little later: while one scans or sends it would be counted four times a second. */
const calm: Record<string, number> = { stages: 1_000 };

/**
 * Keeps what stands on the page up to date by server-sent events; where they do not come through, the lists ask by
 * themselves. Returns whether the line is open.
 */
export function useLive(): boolean {
  const client = useQueryClient();
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const source = new EventSource('/api/v1/live');
    const due = new Set<string>();
    let timer: ReturnType<typeof setTimeout> | null = null;
    const readAt = new Map<string, number>();
    const refresh = () => {
      timer = null;
      const now = Date.now();
      for (const key of due) {
        if (now - (readAt.get(key) ?? 0) < (calm[key] ?? 0)) continue;
        due.delete(key);
        readAt.set(key, now);
        void client.invalidateQueries({ queryKey: [key] });
      }
      if (due.size > 0) timer = setTimeout(refresh, spreadMs);
    };
    source.onopen = () => setOpen(true);
    source.onerror = () => setOpen(false);
    source.onmessage = (event: MessageEvent<string>) => {
      const news = JSON.parse(event.data) as LiveNews; // our own server's words
      client.setQueryData(['progress'], news.progress);
      for (const kind of news.changed) for (const key of concerned[kind] ?? []) due.add(key);
      if (due.size > 0) timer ??= setTimeout(refresh, spreadMs);
    };
    return () => {
      source.close();
      if (timer) clearTimeout(timer);
    };
  }, [client]);
  return open;
}
