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
    const refresh = () => {
      timer = null;
      for (const key of due) void client.invalidateQueries({ queryKey: [key] });
      due.clear();
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
