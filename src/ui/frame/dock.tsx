'use client';

import { useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import type { LaneProgress } from '@/services/outbox/sending-progress';
import { duration } from '../controls/format';
import { Link } from '../controls/link';
import { When } from '../controls/when';
import { api } from '../data/api';
import { useLive } from '../data/live';
import { useSells } from '../data/me';

/** At the foot of every page: what is being sent, to whom, how fast, how long still, and who does not answer. */
export function Dock() {
  const live = useLive();
  const sells = useSells();
  const { data, isError, refetch } = useQuery({
    queryKey: ['progress'],
    queryFn: () => api('GET /progress'),
    refetchInterval: live ? 10_000 : 2_000,
  });
  // The browser lost its connection: whether Netting is reached all the same is found out at once.
  useEffect(() => {
    const look = () => void refetch();
    window.addEventListener('offline', look);
    return () => window.removeEventListener('offline', look);
  }, [refetch]);
  const busy = data?.lanes.filter((lane) => lane.waiting + lane.running > 0 && !lane.paused) ?? [];
  const unsent = data?.lanes.reduce((sum, lane) => sum + lane.held + (lane.paused ? lane.waiting : 0), 0) ?? 0;
  return (
    <div
      role="region"
      aria-label="Outbox"
      className="fixed inset-x-0 bottom-0 z-30 flex h-8 items-center gap-4 border-t border-base-300 bg-base-200 px-4 whitespace-nowrap"
    >
      {/* However much is under way, what needs a person stays in sight beside it. */}
      <div className="flex min-w-0 flex-1 items-center gap-4 overflow-x-auto">
        {sells ? (
          <Link href="/outbox" className="font-medium hover:underline">
            Outbox
          </Link>
        ) : (
          <span className="font-medium">Outbox</span>
        )}
        {!data && !isError ? <span className="quiet">…</span> : null}
        {isError ? (
          <span role="alert" className="text-warning">
            Netting cannot be reached: what you see is as it was. It tries again
          </span>
        ) : null}
        {data && !data.workerAlive ? (
          <span className="text-warning">The sender is not running; what waits is kept</span>
        ) : null}
        {data && !isError && busy.length === 0 && unsent === 0 ? (
          <span className="quiet">Everything is sent</span>
        ) : null}
        {busy.map((lane) => (
          <span key={lane.accountId} className="figures">
            {lane.name}: {(lane.waiting + lane.running).toLocaleString('en')} to go
            <span className="quiet">
              {lane.doneLastMinute ? `, ${lane.doneLastMinute}/min` : ''}
              {lane.secondsLeft ? `, ${duration(lane.secondsLeft)} left` : ''}
            </span>
          </span>
        ))}
        {data?.tasks.map((task) => (
          <span key={task.id} className="figures max-w-80 truncate">
            {task.title}: {task.done.toLocaleString('en')} of {task.total.toLocaleString('en')}
            <span className="quiet">{task.secondsLeft ? `, ${duration(task.secondsLeft)} left` : ''}</span>
          </span>
        ))}
        {unsent > 0 ? <span className="figures">{unsent.toLocaleString('en')} stopped by you</span> : null}
        {data?.lanes.map((lane) => (
          <LaneTrouble key={lane.accountId} lane={lane} />
        ))}
      </div>
      <span className={`flex shrink-0 gap-4 ${sells ? '' : 'hidden'}`}>
        {data && data.oversold > 0 ? (
          <Link href="/sales?state=oversold" className="font-medium text-error hover:underline">
            {data.oversold} oversold
          </Link>
        ) : null}
        {data && data.unassigned > 0 ? (
          <Link href="/sales?state=unassigned" className="font-medium text-error hover:underline">
            {data.unassigned} {data.unassigned === 1 ? 'order' : 'orders'} of no item
          </Link>
        ) : null}
        {data && data.routines > 0 ? (
          <Link href="/routines" className="text-warning hover:underline">
            {data.routines} {data.routines === 1 ? 'routine wants' : 'routines want'} a look
          </Link>
        ) : null}
        {data && data.lines > 0 ? (
          <Link href="/attention" className="text-warning hover:underline">
            {data.lines} {data.lines === 1 ? 'thing needs' : 'things need'} you
          </Link>
        ) : null}
      </span>
    </div>
  );
}

/** Why an account is not sent to, in one line. */
function LaneTrouble({ lane }: { lane: LaneProgress }) {
  if (lane.lockedUntil) return <span className="text-warning">{lane.name} is locked for a while</span>;
  if (lane.unwellSince)
    return (
      <span className="text-warning">
        {lane.name} does not answer, first noticed <When at={lane.unwellSince} />; it is asked again by itself
      </span>
    );
  if (lane.comparing)
    return <span className="text-warning">{lane.name} is compared with the backup before anything is sent</span>;
  if (lane.paused) return <span className="text-warning">{lane.name} is stopped</span>;
  if (lane.unheardSince)
    return (
      <span className="text-warning">
        Sales on {lane.name} were last heard <When at={lane.unheardSince} />
      </span>
    );
  if (lane.warnedUntil) return <span className="text-warning">{lane.name} warned: no new listings for a while</span>;
  return null;
}
