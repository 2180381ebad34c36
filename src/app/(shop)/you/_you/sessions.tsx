'use client';

import type { Answer } from '@/http/interface';
import { When } from '@/ui/controls/when';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';

/** Where one is signed in; each place ends by itself or here. */
export function Sessions({ sessions }: { sessions: Answer<'GET /access'>['sessions'] }) {
  const end = useCommand(
    async (id?: string) => {
      const { ended } = await api('POST /sessions/end', { body: { id } });
      return ended === 1 ? 'One place is signed out' : `${ended} places are signed out`;
    },
    { touches: [['access']], tells: true },
  );
  return (
    <section aria-labelledby="sessions">
      <h2 id="sessions" className="mb-2 font-semibold">
        Where you are signed in
      </h2>
      <ul className="space-y-1">
        {sessions.map((one) => (
          <li key={one.id} className="flex items-baseline gap-3">
            <span className="shrink-0">
              since <When at={one.since} />
            </span>
            <span className="quiet min-w-0 truncate" title={one.browser ?? undefined}>
              {[one.address, one.browser].filter(Boolean).join(', ') || 'an unknown place'}
            </span>
            {one.isThis ? (
              <span className="font-medium">here</span>
            ) : (
              <button type="button" className="btn btn-xs" disabled={end.busy} onClick={() => void end.run(one.id)}>
                Sign out
              </button>
            )}
          </li>
        ))}
      </ul>
      {sessions.length > 1 ? (
        <button type="button" className="btn btn-sm mt-2" disabled={end.busy} onClick={() => void end.run()}>
          Sign out everywhere else
        </button>
      ) : null}
    </section>
  );
}
