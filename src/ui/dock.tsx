'use client';

import { useQuery } from '@tanstack/react-query';
import Link from 'next/link';
import type { LaneProgress } from '@/services/outbox';
import { api } from './api';
import { duration } from './format';

type Progress = { lanes: LaneProgress[]; failed: number; workerAlive: boolean };

/** At the foot of every page: what is being sent, to whom, how fast, and how long still. */
export function Dock() {
  const { data } = useQuery({
    queryKey: ['progress'],
    queryFn: () => api<Progress>('/progress'),
    refetchInterval: (query) => (query.state.data?.lanes.some((lane) => lane.waiting + lane.running > 0) ? 800 : 2_500),
  });
  const busy = data?.lanes.filter((lane) => lane.waiting + lane.running > 0) ?? [];
  const locked = data?.lanes.filter((lane) => lane.lockedUntil) ?? [];
  return (
    <div
      role="region"
      aria-label="Outbox"
      className="fixed inset-x-0 bottom-0 z-30 flex h-8 items-center gap-4 overflow-x-auto border-t border-base-300 bg-base-200 px-4 whitespace-nowrap"
    >
      <Link href="/outbox" className="font-medium hover:underline">
        Outbox
      </Link>
      {!data ? <span className="quiet">…</span> : null}
      {data && !data.workerAlive ? (
        <span className="text-warning">The sender is not running; what waits is kept</span>
      ) : null}
      {data && busy.length === 0 ? <span className="quiet">Everything is sent</span> : null}
      {busy.map((lane) => (
        <span key={lane.accountId} className="figures">
          {lane.name}: {(lane.waiting + lane.running).toLocaleString('en')} to go
          <span className="quiet">
            {lane.doneLastMinute ? `, ${lane.doneLastMinute}/min` : ''}
            {lane.secondsLeft ? `, ${duration(lane.secondsLeft)} left` : ''}
          </span>
        </span>
      ))}
      {locked.map((lane) => (
        <span key={lane.accountId} className="text-warning">
          {lane.name} is locked for a while
        </span>
      ))}
      {data && data.failed > 0 ? (
        <Link href="/attention" className="ml-auto text-warning hover:underline">
          {data.failed} need a person
        </Link>
      ) : null}
    </div>
  );
}
