'use client';

import { useQuery } from '@tanstack/react-query';
import dynamic from 'next/dynamic';
import { useCallback, useEffect, useMemo, useRef } from 'react';
import type { BatchView } from '@/services/intake/find-batch';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { useTitle } from '@/ui/frame/use-title';
import { ScanField, type ScanFieldHandle } from '@/ui/scan/scan-field';
import { BatchHead } from './batch-head';
import { Doubts } from './doubts';
import { LastPiece } from './last-piece';
import { Lines } from './lines';
import { NotTaken } from './not-taken';
import { SendingSaid } from './sending-said';
import { SettingsPanel } from './settings-panel';
import { Totals } from './totals';
import { useLines } from './use-lines';
import { useScanKeys } from './use-scan-keys';
import { useSettings } from './use-settings';
import { useSitting } from './use-sitting';

/** Few scan with a camera: it comes when it is asked for. */
const Camera = dynamic(() => import('@/ui/scan/camera').then((one) => one.Camera), {
  ssr: false,
  loading: () => <p className="quiet min-h-8">Camera …</p>,
});

/** One sitting at the scanner: the field, what every piece gets, the piece in the hand, and everything that was scanned. */
export function Batch({ id }: { id: number }) {
  const batch = useQuery({
    queryKey: ['batch', id],
    queryFn: () => api('GET /batches/{id}', { params: { id } }),
    refetchOnReconnect: false,
    refetchInterval: 5_000,
  });
  useTitle(batch.data?.name ?? '');
  if (batch.isPending) return <Loading what="the batch" />;
  if (batch.isLoadingError) return <Failed error={batch.error} retry={() => void batch.refetch()} />;
  return batch.data ? <Scanning batch={batch.data} id={id} /> : null;
}

function Scanning({ batch, id }: { batch: BatchView; id: number }) {
  const field = useRef<ScanFieldHandle>(null);
  const back = useCallback(() => field.current?.focus(), []);
  const { settings, change } = useSettings(id, batch.settings);
  const shop = useQuery({ queryKey: ['settings'], queryFn: () => api('GET /settings'), staleTime: 30_000 });
  const snippets = useMemo(
    () => (settings.grade ? (shop.data?.conditionSnippets[settings.grade] ?? []) : []),
    [shop.data, settings.grade],
  );
  const { pages, lines, shown, isOpenOnly, setIsOpenOnly, more, hasMore } = useLines(id);
  const sitting = useSitting({ id, lines, settings, change, snippets, back });
  const { last, units, doubts, settle, submit, undo, answer, undoLine, readAs, sending } = sitting;
  useScanKeys(sitting.run);
  const { length: waitingCount } = sending.waiting;
  useEffect(() => {
    // What is not sent yet would be left behind for the time being.
    if (waitingCount === 0) return;
    const stay = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', stay);
    return () => window.removeEventListener('beforeunload', stay);
  }, [waitingCount]);
  const said = sitting.said || (units === null ? '' : `The next scan counts ${units}`);

  return (
    <div className="flex flex-col lg:h-[calc(100dvh-var(--frame))]">
      <BatchHead batch={batch} />
      <Totals totals={batch.totals} />
      <div className="grid min-h-0 flex-1 grid-cols-[21rem_minmax(0,1fr)] max-lg:grid-cols-1">
        {/* On a phone the piece in the hand stands right below the field, and what every piece gets at the end. */}
        <div className="flex min-h-0 flex-col gap-3 border-r border-base-300 p-3 max-lg:contents lg:overflow-y-auto">
          <div className="flex flex-col gap-2 max-lg:order-1 max-lg:p-3">
            <ScanField ref={field} submit={submit} undo={undo} describedBy="intake-said" />
            <SendingSaid waiting={sending.waiting} isAway={sending.isAway} problem={sending.problem} said={said} />
            <Camera scanned={submit} />
          </div>
          <div className="max-lg:order-3 max-lg:p-3">
            <SettingsPanel settings={settings} change={change} snippets={snippets} done={back} />
          </div>
        </div>
        <div className="relative flex min-h-0 flex-col gap-2 p-3 max-lg:order-2 lg:overflow-y-auto">
          <NotTaken refused={sending.refused} settle={sending.settleRefused} />
          <Doubts doubts={doubts} settle={settle} />
          <LastPiece
            line={last}
            choose={(entry) => answer({ entry })}
            setPrice={(price) => {
              sitting.setSaid('The price is set');
              answer({ price });
            }}
          />
          <div className="flex items-baseline gap-3">
            <h2 className="font-semibold">Scanned</h2>
            <label className="flex items-center gap-2 text-[12px]">
              <input
                type="checkbox"
                className="checkbox checkbox-xs"
                checked={isOpenOnly}
                onChange={(event) => {
                  setIsOpenOnly(event.target.checked);
                  back();
                }}
              />
              only what waits for you
            </label>
          </div>
          {pages.error ? <Failed error={pages.error} retry={() => void pages.refetch()} /> : null}
          {lines.length ? (
            <Lines lines={shown} undo={undoLine} readAs={readAs} />
          ) : (
            <p className="quiet">{isOpenOnly ? 'Nothing waits for you.' : 'Nothing was scanned yet.'}</p>
          )}
          {hasMore ? (
            <button type="button" className="btn btn-sm self-center" disabled={pages.isFetchingNextPage} onClick={more}>
              Show earlier scans
            </button>
          ) : null}
        </div>
      </div>
    </div>
  );
}
