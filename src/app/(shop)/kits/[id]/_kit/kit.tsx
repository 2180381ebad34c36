'use client';

import { useQuery } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { speaksOfStock } from '@/core/kit/meaning';
import { shareLots } from '@/core/kit/share-lots';
import { totalsOf } from '@/core/kit/totals';
import { Empty, Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { useTitle } from '@/ui/frame/use-title';
import { AddContents } from './add-contents';
import { DrawersDialog } from './drawers-dialog';
import { KitHead, type Opened } from './kit-head';
import { isUnderWay, KitTask } from './kit-task';
import { fullPlaces, isToChange } from './lot-marks';
import { LotsTable } from './lots-table';
import { MarkedBar } from './marked-bar';
import { PiecesDialog } from './pieces-dialog';
import { PricesDialog } from './prices-dialog';
import { shownRows, type View } from './shown-rows';
import { StepsDialog } from './steps-dialog';
import { StockDialog } from './stock-dialog';
import { ThereDialog } from './there-dialog';
import { useColumns } from './use-columns';
import { useLots } from './use-lots';
import { ViewBar } from './view-bar';
import { WholeDialog } from './whole-dialog';

const firstView: View = { find: '', order: 'came', isDown: false, group: 'none' };

/** Sets that are taken apart: what they hold, lot by lot. */
export function Kit({ id }: { id: number }) {
  const kit = useQuery({
    queryKey: ['kit', id],
    queryFn: () => api('GET /kits/{id}', { params: { id } }),
    refetchInterval: ({ state }) => (state.data && isUnderWay(state.data.task) ? 700 : false),
  });
  const { lots, pages, write, writeAll } = useLots(id);
  const [opened, setOpened] = useState<Opened | null>(null);
  const [inPieces, setInPieces] = useState<number | null>(null);
  const [view, setView] = useState<View>(firstView);
  const [marked, setMarked] = useState<ReadonlySet<number>>(new Set());
  const { columns, toggle } = useColumns();
  useTitle(kit.data?.name ?? '');
  const byId = useMemo(() => new Map(lots.map((lot) => [lot.id, lot])), [lots]);
  const now = useRef(lots);
  now.current = lots;
  // While one writes, rows stay where they are: they are put in order when lots come or go, or a person asks for it.
  // biome-ignore lint/correctness/useExhaustiveDependencies: what stands in the lots does not move them
  const rows = useMemo(() => shownRows(now.current, view), [view, lots.length, pages.dataUpdatedAt > 0]);
  const lotOf = useCallback((lot: number) => byId.get(lot), [byId]);
  const totals = useMemo(() => totalsOf(lots), [lots]);
  const showsCost = columns.some((one) => one.id === 'cost');
  const costs = useMemo(
    () => (kit.data && showsCost ? shareLots(kit.data, lots) : new Map<number, number>()),
    [kit.data, lots, showsCost],
  );
  const full = useMemo(() => fullPlaces(lots, kit.data?.placeHolds ?? null), [lots, kit.data?.placeHolds]);
  const changed = useMemo(() => lots.filter(isToChange).length, [lots]);
  const last = useRef(0);
  const shown = useRef(rows);
  shown.current = rows;
  const mark = useCallback((lot: number, at: number, isRange: boolean) => {
    const [from, to] = isRange ? [Math.min(last.current, at), Math.max(last.current, at)] : [at, at];
    last.current = at;
    setMarked((before) => {
      const next = new Set(before);
      const isOn = !before.has(lot);
      for (const row of shown.current.slice(from, to + 1))
        if (row.is === 'lot') isOn ? next.add(row.id) : next.delete(row.id);
      return next;
    });
  }, []);
  const deeds = useMemo(() => ({ write, writeAll, mark, pieces: setInPieces }), [write, writeAll, mark]);
  // What is gone from the list is marked no more.
  useEffect(() => {
    setMarked((before) => {
      const there = [...before].filter((one) => byId.has(one));
      return there.length === before.size ? before : new Set(there);
    });
  }, [byId]);
  if (kit.isPending) return <Loading what="the sets" />;
  if (kit.isLoadingError) return <Failed error={kit.error} retry={() => void kit.refetch()} />;
  if (!kit.data) return null;
  const isOpen = kit.data.state === 'open';
  const close = () => setOpened(null);
  const add = () => setOpened('contents');
  const shownIds = rows.flatMap((row) => (row.is === 'lot' ? [row.id] : []));
  const inOrder = shownIds.filter((one) => marked.has(one));
  const markedLots = inOrder.flatMap((one) => byId.get(one) ?? []);
  const lot = inPieces === null ? undefined : byId.get(inPieces);
  const change = (part: Partial<View>) => setView({ ...view, ...part });
  return (
    <div className="flex flex-col lg:h-[calc(100dvh-var(--frame))]">
      <KitHead kit={kit.data} totals={totals} changed={changed} open={setOpened} />
      <KitTask kit={kit.data} />
      {pages.isPending ? <Loading what="the lots" /> : null}
      {pages.error ? <Failed error={pages.error} retry={() => void pages.refetch()} /> : null}
      {pages.data && lots.length === 0 ? (
        <Empty title="Nothing is in it yet">
          <p>Say which set it is, or paste what it holds: one thing a line, such as 2 x tray 18 × 24.</p>
          <button type="button" className="btn btn-sm" onClick={add}>
            Add contents
          </button>
        </Empty>
      ) : null}
      {lots.length ? (
        <>
          <ViewBar
            view={view}
            change={change}
            columns={columns}
            toggle={toggle}
            shown={shownIds.length}
            all={lots.length}
          />
          <MarkedBar
            count={marked.size}
            isOpen={isOpen}
            open={setOpened}
            set={(set) =>
              writeAll(new Map([...marked].flatMap((one) => (byId.get(one)?.state === 'done' ? [] : [[one, set]]))))
            }
            clear={() => setMarked(new Set())}
          />
          <LotsTable
            rows={rows}
            lotOf={lotOf}
            columns={columns}
            isOpen={isOpen}
            marked={marked}
            markAll={() => setMarked(shownIds.every((one) => marked.has(one)) ? new Set() : new Set(shownIds))}
            fullPlaces={full}
            costOf={(one) => costs.get(one) ?? null}
            order={{
              by: view.order,
              isDown: view.isDown,
              set: (by) => change({ order: by, isDown: view.order === by ? !view.isDown : false }),
            }}
            deeds={deeds}
          />
        </>
      ) : null}
      {opened === 'contents' ? <AddContents kit={kit.data} close={close} /> : null}
      {opened === 'prices' ? <PricesDialog kit={kit.data} lots={lots} marked={marked} close={close} /> : null}
      {opened === 'whole' ? <WholeDialog kit={kit.data} lots={lots} close={close} /> : null}
      {opened === 'steps' ? <StepsDialog kitId={id} lots={markedLots} close={close} /> : null}
      {opened === 'drawers' ? (
        <DrawersDialog
          kit={kit.data}
          lots={markedLots}
          others={lots.filter((one) => !marked.has(one.id))}
          writeAll={writeAll}
          close={close}
        />
      ) : null}
      {opened === 'stock' ? (
        <StockDialog
          kit={kit.data}
          marked={inOrder}
          strangers={markedLots.filter(speaksOfStock).length}
          close={close}
          instead={() => setOpened('there')}
        />
      ) : null}
      {opened === 'there' ? (
        <ThereDialog
          kit={kit.data}
          marked={inOrder}
          strangers={markedLots.filter((one) => !speaksOfStock(one) && one.state !== 'out').length}
          close={close}
          instead={() => setOpened('stock')}
        />
      ) : null}
      {lot ? <PiecesDialog kitId={id} lot={lot} isOpen={isOpen} write={write} close={() => setInPieces(null)} /> : null}
    </div>
  );
}
