'use client';

import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Dialog } from '@/ui/controls/dialog';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';

/** The address for a phone on the same network, as a code that its camera reads. */
export function PhoneDialog({ itemId, close }: { itemId: number; close: () => void }) {
  const { data, isPending, isError, error, refetch } = useQuery({
    queryKey: ['phone', itemId],
    queryFn: () => api('POST /items/{id}/phone', { params: { id: itemId } }),
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
  });
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 1_000);
    return () => clearInterval(timer);
  }, []);
  const left = data ? Math.max(0, Math.ceil((Date.parse(data.until) - now) / 1_000)) : 0;
  return (
    <Dialog title="Photos from the phone" close={close}>
      {isPending ? <Loading what="the code" /> : null}
      {isError ? <Failed error={error} retry={() => void refetch()} /> : null}
      {data ? (
        <div className="grid grid-cols-[14rem_1fr] gap-4">
          <img
            src={`data:image/svg+xml;utf8,${encodeURIComponent(data.code)}`}
            alt={`The address ${data.url} as a code`}
            className="w-56 rounded bg-white"
          />
          <div className="space-y-2">
            <p>Point the phone’s camera at the code. Pictures taken there stand on this sheet at once.</p>
            <p className="mono break-all">{data.url}</p>
            <p className="quiet">
              {left
                ? `Good for ${Math.floor(left / 60)}:${String(left % 60).padStart(2, '0')} more, for this item alone.`
                : 'Its time is over.'}
            </p>
            {data.reachable ? null : (
              <p className="text-warning">
                Netting listens for this computer alone, so a phone cannot reach it. Start it with NETTING_HOST=0.0.0.0
                and use it in a network that you trust.
              </p>
            )}
            {left ? null : (
              <button type="button" className="btn btn-sm" onClick={() => void refetch()}>
                A new code
              </button>
            )}
          </div>
        </div>
      ) : null}
    </Dialog>
  );
}
