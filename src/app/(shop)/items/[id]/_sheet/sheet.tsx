'use client';

import { useQuery } from '@tanstack/react-query';
import dynamic from 'next/dynamic';
import { useRouter, useSearchParams } from 'next/navigation';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { wordsToReplace } from '@/core/item/copy';
import type { Item } from '@/core/item/item';
import { Link } from '@/ui/controls/link';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { useSells } from '@/ui/data/me';
import { withSelection } from '@/ui/data/selection';
import { usePageActions } from '@/ui/frame/actions';
import { useNotice } from '@/ui/frame/providers';
import { useTitle } from '@/ui/frame/use-title';
import { masterId } from './cells/master-cell';
import { ColumnMenu } from './columns/column-menu';
import { OffersHere } from './columns/offers-here';
import { OpenItems, useOpenItemList } from './open-items/open-items';
import { useOpenItems } from './open-items/use-open-items';
import { PhotoStrip } from './photos/photo-strip';
import { RowMenu } from './row-menu';
import { isWanted, rowsFor, shownRows } from './rows';
import { SaveMark } from './save-mark';
import { SheetGrid } from './sheet-grid';
import type { BesideTab } from './side-panel/side-panel';
import { Standing } from './taking-over/standing';
import { type Born, useAutosave } from './use-autosave';
import { useListingDeeds, useSheetData } from './use-sheet';
import { useSheetActions } from './use-sheet-actions';

// Fetched when they are opened.
const Conflicts = dynamic(() => import('./conflicts').then((module) => module.Conflicts));
const FromCatalogue = dynamic(() => import('./taking-over/from-catalogue').then((module) => module.FromCatalogue));
const History = dynamic(() => import('./history').then((module) => module.History));
const TakeOver = dynamic(() => import('./open-items/take-over').then((module) => module.TakeOver));
const Sitting = dynamic(() => import('./taking-over/sitting').then((module) => module.Sitting));
const SidePanel = dynamic(() => import('./side-panel/side-panel').then((module) => module.SidePanel));
const Variations = dynamic(() => import('./variations/variations').then((module) => module.Variations));

type View = 'fields' | 'variations' | 'history';

/** One item as a table of fields × marketplaces: the record first, then what each account will get of it. */
export function Sheet({ itemId: given }: { itemId: number }) {
  const [itemId, setItemId] = useState(given);
  const notice = useNotice();
  const router = useRouter();
  const params = useSearchParams();
  const sitting = Number(params.get('sitting')) || null;
  const [onlyIssues, setOnlyIssues] = useState(false);
  const [narrowedTo, setNarrowedTo] = useState<number | null>(null);
  const [hidden, setHidden] = useKept<number>(hiddenKey, isId);
  const [openMarkets, setOpenMarkets] = useKept<string>(openKey, isName);
  const [view, setView] = useState<View>('fields');
  const [beside, setBeside] = useState<{ tab: BesideTab; accountId: number | null } | null>(null);
  const [rowId, setRowId] = useState<string | null>(null);
  const [takingOver, setTakingOver] = useState(false);
  const [lookingUp, setLookingUp] = useState(false);
  const { query, again, saved, shownAs } = useSheetData(itemId);
  const { data, isPending, isLoadingError, error, refetch } = query;
  const onBorn = (one: Born, kept: boolean) => {
    shownAs(one);
    if (kept) {
      const look = { label: 'Look at it', run: () => router.push(`/items/${one.id}`) };
      return notice(`What you typed before and did not see stored is ${one.sku} now`, look);
    }
    // The sheet goes on under its own address; where one writes is not drawn anew.
    window.history.replaceState(null, '', `/items/${one.id}`);
    setItemId(one.id);
  };
  const save = useAutosave(itemId, data?.item.version ?? 0, saved, onBorn);
  const { settle } = save;
  const ownCategory = data?.item.category ?? '';
  const { mapCategory, place, end, takeModel, write } = useListingDeeds({ ownCategory, settle, again });
  const words = useQuery({ queryKey: ['words'], queryFn: () => api('GET /words'), staleTime: 60_000 }).data;
  const openItems = useOpenItems(itemId);
  const findOpenItems = useOpenItemList(openItems.ids).data?.items ?? [];
  // Who packs has the item itself before him: neither what was paid for it nor what marketplaces get.
  const sells = useSells();
  const allRows = useMemo(() => (data ? rowsFor(data).filter((row) => sells || row.id !== 'cost') : []), [data, sells]);
  const columns = useMemo(
    () => (sells && data?.columns.filter((column) => !column.leftOut && !hidden.includes(column.accountId))) || [],
    [data, hidden, sells],
  );
  const rows = useMemo(() => {
    const looked = narrowedTo === null ? columns : columns.filter((column) => column.accountId === narrowedTo);
    return onlyIssues || narrowedTo !== null
      ? allRows.filter((row) => isWanted(row, looked))
      : shownRows(allRows, columns, data?.rowPlan ?? null, openMarkets);
  }, [allRows, columns, data?.rowPlan, narrowedTo, onlyIssues, openMarkets]);
  /** How many rows each marketplace has for itself, of the accounts that are looked at. */
  const ownRows = useMemo(() => {
    const counts = new Map<string, number>();
    for (const row of allRows)
      if (row.market && columns.some((column) => row.fieldOf(column)))
        counts.set(row.market, (counts.get(row.market) ?? 0) + 1);
    return counts;
  }, [allRows, columns]);
  const show = useCallback(
    (tab: BesideTab | null, accountId: number | null = null) => setBeside(tab ? { tab, accountId } : null),
    [],
  );
  const copy = useCallback(async () => {
    const copyOf = await settle();
    const { id } = await api('POST /items', { body: { copyOf } });
    router.push(`/items/${id}?copy`);
  }, [router, settle]);
  const actions = useSheetActions({
    itemId,
    openIds: openItems.ids,
    toggleMissing: useCallback(() => setOnlyIssues((now) => !now), []),
    setView,
    show,
    takeOver: useCallback(() => setTakingOver(true), []),
    lookUp: useCallback(() => setLookingUp(true), []),
    copy: useCallback(() => void copy(), [copy]),
    settle,
    flush: save.flush,
  });
  usePageActions(actions);
  useTitle(save.unsaved.title ?? data?.item.title ?? '');
  useFirstFocus(itemId, data?.item, params.get('copy') !== null, params.get('at'));

  if (isPending) return <Loading what="the item" />;
  if (isLoadingError) return <Failed error={error} retry={() => void refetch()} />;
  const item: Item = { ...data.item, ...save.unsaved };
  const isNew = itemId === 0;
  const others = findOpenItems.filter((one) => one.id !== itemId);

  return (
    <div className="flex h-[calc(100dvh-var(--frame))] flex-col">
      <OpenItems
        itemId={itemId}
        items={findOpenItems}
        drop={openItems.drop}
        clear={openItems.clear}
        takeOver={() => setTakingOver(true)}
      />
      <div className="flex items-center gap-3 border-b border-base-300 px-4 py-1.5 max-md:flex-wrap">
        <h1 dir="auto" className="min-w-0 truncate font-semibold" title={item.title}>
          {item.title || 'New item'}
        </h1>
        <span className="mono quiet shrink-0">{item.sku || 'not stored yet'}</span>
        {isNew && save.state.kind === 'saved' ? null : <SaveMark state={save.state} />}
        <div className="ml-auto flex shrink-0 items-center gap-1.5 max-md:shrink max-md:flex-wrap">
          <label className="mr-1 flex items-center gap-1.5 text-[13px]">
            <input
              type="checkbox"
              className="checkbox checkbox-xs"
              checked={onlyIssues}
              onChange={(event) => setOnlyIssues(event.target.checked)}
            />{' '}
            Only what is missing
          </label>
          {isNew || !sells ? null : (
            <RowMenu category={item.category} rows={allRows} plan={data.rowPlan} again={again} />
          )}
          {sells ? (
            <>
              <ColumnMenu
                columns={data.columns}
                hidden={hidden}
                setHidden={setHidden}
                place={(column, here) => void place(column, here)}
              />
              <button
                type="button"
                className="btn btn-sm"
                aria-pressed={beside !== null}
                disabled={isNew}
                onClick={() => show(beside ? null : 'preview')}
              >
                Beside
              </button>
            </>
          ) : null}
          <button
            type="button"
            className="btn btn-sm"
            aria-pressed={view === 'history'}
            disabled={isNew}
            onClick={() => setView(view === 'history' ? 'fields' : 'history')}
          >
            History
          </button>
          {isNew || !sells ? null : (
            <Link className="btn btn-sm" href={`/items/${itemId}/preview`}>
              What they get
            </Link>
          )}
          <button type="button" className="btn btn-sm" disabled={isNew} onClick={() => void copy()}>
            New from this
          </button>
          {sells ? (
            <button
              type="button"
              className="btn btn-primary btn-sm"
              disabled={isNew}
              onClick={() =>
                void settle().then((id) => router.push(withSelection('/publish', { kind: 'items', ids: [id] })))
              }
            >
              Publish
            </button>
          ) : null}
        </div>
      </div>
      {sitting === null ? null : <Sitting id={sitting} itemId={itemId} settle={settle} version={data.item.version} />}
      <Standing itemId={itemId} standing={item.standing} saved={() => void again()} />
      {save.conflicts.length ? <Conflicts conflicts={save.conflicts} resolve={save.resolve} /> : null}
      {isNew || !sells ? null : <OffersHere itemId={itemId} columns={data.columns} />}
      <PhotoStrip
        itemId={itemId}
        settle={settle}
        photos={data.item.photos}
        clip={data.item.clip}
        limits={columns.map((column) => ({ name: column.name, max: column.photoMax }))}
        conditionNote={item.conditionNote}
        addToNote={(said) => save.change({ conditionNote: [item.conditionNote, said].filter(Boolean).join(' ') })}
        changed={again}
      />
      <div className="flex min-h-0 flex-1">
        {view === 'history' ? (
          <History sheet={data} changed={() => void again()} />
        ) : view === 'variations' ? (
          <Variations
            item={item}
            columns={data.columns}
            change={save.change}
            settle={settle}
            again={again}
            place={(column, here) => void place(column, here)}
            back={() => setView('fields')}
          />
        ) : (
          <SheetGrid
            item={item}
            rows={rows}
            columns={columns}
            ownRows={onlyIssues || narrowedTo !== null ? noOwnRows : ownRows}
            openMarkets={openMarkets}
            fold={(market) =>
              setOpenMarkets(
                openMarkets.includes(market) ? openMarkets.filter((one) => one !== market) : [...openMarkets, market],
              )
            }
            words={words}
            save={save}
            isNew={isNew}
            again={again}
            mapCategory={mapCategory}
            narrowedTo={narrowedTo}
            narrow={(accountId) => setNarrowedTo(narrowedTo === accountId ? null : accountId)}
            hide={(accountId) => setHidden([...hidden, accountId])}
            compare={(id) => {
              setRowId(id);
              show('row');
            }}
            look={(accountId, tab) => show(tab, accountId)}
            leaveOut={(column) => void place(column, false)}
            end={(column) => void end(column)}
            takeModel={(column, from) => void takeModel(column, from)}
            openVariations={() => setView('variations')}
          />
        )}
        {beside && sells ? (
          <SidePanel
            item={item}
            columns={columns}
            row={allRows.find((row) => row.id === rowId)}
            tab={beside.tab}
            accountId={beside.accountId}
            show={show}
            change={save.change}
            write={write}
          />
        ) : null}
      </div>
      {lookingUp ? (
        <FromCatalogue item={item} change={save.change} saved={save.flush} close={() => setLookingUp(false)} />
      ) : null}
      {takingOver && others.length ? (
        <TakeOver
          item={item}
          others={others}
          settle={settle}
          close={() => {
            setTakingOver(false);
            void again();
          }}
        />
      ) : null}
    </div>
  );
}

const hiddenKey = 'netting.hidden-columns';
const openKey = 'netting.open-own-rows';
const noOwnRows: ReadonlyMap<string, number> = new Map();
const isId = (one: unknown): one is number => Number.isInteger(one);
const isName = (one: unknown): one is string => typeof one === 'string';

/** What this browser keeps for every item: hidden columns, marketplaces whose own rows are open. */
function useKept<One>(key: string, is: (one: unknown) => one is One): [One[], (kept: One[]) => void] {
  const [kept, setKept] = useState<One[]>([]);
  useEffect(() => {
    try {
      const stored: unknown = JSON.parse(localStorage.getItem(key) ?? '[]');
      if (Array.isArray(stored)) setKept(stored.filter(is));
    } catch {
      // What cannot be read is as if nothing were kept.
    }
  }, [key, is]);
  const keep = useCallback(
    (next: One[]) => {
      localStorage.setItem(key, JSON.stringify(next));
      setKept(next);
    },
    [key],
  );
  return [kept, keep];
}

/** A new item begins in its title; in a copy the words that will be replaced are marked; else the field one came from. */
function useFirstFocus(itemId: number, item: Item | undefined, isCopy: boolean, at: string | null): void {
  const done = useRef(-1);
  useEffect(() => {
    // One that was stored just now is the same sheet: the caret stays where it is.
    if (!item || done.current === itemId || done.current === 0) return;
    done.current = itemId;
    const field = at ? document.getElementById(masterId(at)) : document.getElementById(masterId('title'));
    if (at) field?.focus();
    else if (isCopy && field instanceof HTMLTextAreaElement) {
      const { from, to } = wordsToReplace(item);
      field.focus();
      field.setSelectionRange(from, to);
    } else if (item.title === '') field?.focus();
  }, [at, isCopy, item, itemId]);
}
