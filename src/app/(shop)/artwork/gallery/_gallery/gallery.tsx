'use client';

import { useInfiniteQuery } from '@tanstack/react-query';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Link } from '@/ui/controls/link';
import { Empty, Failed, Loading, PageHead } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { counted } from '@/ui/data/counted';
import { ArtworkPages } from '../../_artwork/artwork-pages';
import { PlacingDialog } from '../../_artwork/placing-dialog';
import { GalleryActions } from './gallery-actions';
import { SieveBar } from './sieve-bar';
import { SightCell } from './sight-cell';
import { isThrough, rowsIn, type Sieve, sightsIn, stepFrom } from './sights';
import { useLooks } from './use-looks';

const cellHeight = 178;
const headHeight = 34;
const cellWidth = 168;
const arrows = ['ArrowRight', 'ArrowLeft', 'ArrowDown', 'ArrowUp', 'Home', 'End'];

/** All artwork on every product and ground, as it will look, looked over by keyboard. */
export function Gallery() {
  const pages = useInfiniteQuery({
    queryKey: ['sights'],
    queryFn: ({ pageParam }) => api('GET /artworks/sights', { query: { before: pageParam || undefined, limit: 24 } }),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next ?? undefined,
  });
  const { hasNextPage, isFetchingNextPage, fetchNextPage } = pages;
  // All of it is looked over: the rest is read while the first is looked at.
  useEffect(() => {
    if (hasNextPage && !isFetchingNextPage) void fetchNextPage();
  }, [hasNextPage, isFetchingNextPage, fetchNextPage]);
  const [sieve, setSieve] = useState<Sieve>('all');
  const [active, setActive] = useState(0);
  const [adjusted, setAdjusted] = useState<string | null>(null);
  const [columns, setColumns] = useState(6);
  const { verdictOf, say, open } = useLooks();
  const scroller = useRef<HTMLDivElement>(null);
  const everything = useMemo(() => sightsIn(pages.data?.pages.flatMap((page) => page.artworks) ?? []), [pages.data]);
  // What is called good or off does not vanish under the hand: the sieve is laid on when it is chosen.
  const [sieved, setSieved] = useState<ReadonlySet<string> | null>(null);
  const shown = useMemo(
    () => (sieved ? everything.filter((one) => sieved.has(one.key)) : everything),
    [everything, sieved],
  );
  const rows = useMemo(() => rowsIn(shown, columns), [shown, columns]);
  useEffect(() => {
    const box = scroller.current;
    if (!box) return;
    const observer = new ResizeObserver(() => setColumns(Math.max(1, Math.floor((box.clientWidth - 32) / cellWidth))));
    observer.observe(box);
    return () => observer.disconnect();
  }, []);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: (index) => (rows[index]?.is === 'head' ? headHeight : cellHeight),
    overscan: 2,
    getItemKey: (index) => {
      const row = rows[index];
      return row?.is === 'head' ? `head ${row.artwork.itemId}` : (row?.sights[0]?.key ?? index);
    },
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: sizes hang on which row is which
  useEffect(() => virtual.measure(), [rows]);
  const go = useCallback(
    (index: number) => {
      setActive(index);
      const at = rows.findIndex(
        (row) => row.is === 'cells' && index >= row.from && index < row.from + row.sights.length,
      );
      if (at !== -1) virtual.scrollToIndex(at, { align: 'auto' });
    },
    [rows, virtual],
  );
  const sift = (next: Sieve) => {
    setSieve(next);
    setActive(0);
    setSieved(
      next === 'all'
        ? null
        : new Set(everything.flatMap((one) => (isThrough(one, verdictOf(one), next) ? [one.key] : []))),
    );
  };
  const adjust = useCallback((index: number) => setAdjusted(shown[index]?.key ?? null), [shown]);
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const sight = shown[active];
    if (!sight) return;
    const key = event.key.toLowerCase();
    if (arrows.includes(event.key)) go(stepFrom(rows, active, event.key, shown.length));
    else if (key === 'g' || key === 'o' || key === 'u') {
      say([sight], key === 'g' ? 'good' : key === 'o' ? 'off' : null);
      if (key !== 'u') go(Math.min(shown.length - 1, active + 1));
    } else if (key === 'a' || event.key === 'Enter') adjust(active);
    else return;
    event.preventDefault();
  };
  const chosen = everything.find((one) => one.key === adjusted);
  const without = [...new Set(everything.flatMap((one) => one.artwork.without))];
  const first = pages.data?.pages[0];
  return (
    <section aria-label="Artwork on products" className="flex flex-col lg:h-[calc(100dvh-var(--frame))]">
      <PageHead title="Artwork">
        <ArtworkPages />
        {everything.length ? <GalleryActions all={everything} verdictOf={verdictOf} say={say} open={open} /> : null}
      </PageHead>
      {everything.length ? <SieveBar sieve={sieve} sift={sift} /> : null}
      {without.length ? (
        <p className="border-b border-base-300 px-4 py-1.5 text-[13px]">
          For {without.join(', ')} some fit no product template, and there is no default one.{' '}
          <Link className="link" href="/templates">
            Templates
          </Link>
        </p>
      ) : null}
      {pages.isPending ? <Loading what="the gallery" /> : null}
      {pages.error ? <Failed error={pages.error} retry={() => void pages.refetch()} /> : null}
      {first && everything.length === 0 ? (
        <Empty title={first.templates ? 'No artwork yet' : 'No product template yet'}>
          <p>
            {first.templates
              ? 'Bring pictures in first; they stand here on every product that the templates name.'
              : 'A template says what artwork is printed on: its products, their grounds and prices, and where it stands.'}
          </p>
          <Link className="btn btn-sm" href={first.templates ? '/artwork' : '/templates'}>
            {first.templates ? 'To the pictures' : 'Make a template'}
          </Link>
        </Empty>
      ) : null}
      <div
        ref={scroller}
        role="grid"
        aria-label="Gallery"
        aria-rowcount={rows.length}
        aria-activedescendant={shown.length ? `sight-${active}` : undefined}
        tabIndex={0}
        className={`min-h-0 flex-1 overflow-auto px-4 outline-offset-[-2px] ${everything.length ? '' : 'hidden'}`}
        onKeyDown={onKeyDown}
      >
        {shown.length === 0 && everything.length ? <p className="quiet py-8 text-center">None of them.</p> : null}
        <div className="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map((one) => {
            const row = rows[one.index];
            if (!row) return null;
            return (
              <div
                key={one.key}
                role="row"
                className="absolute inset-x-0 top-0 flex gap-2"
                style={{ height: one.size, transform: `translateY(${one.start}px)` }}
              >
                {row.is === 'head' ? (
                  <div role="rowheader" className="self-end truncate pb-1 text-[13px] font-medium">
                    <Link className="hover:underline" href={`/items/${row.artwork.itemId}`} tabIndex={-1}>
                      {row.artwork.title}
                    </Link>{' '}
                    <span className="quiet font-normal">
                      {counted(row.artwork.sights.length, 'sight')}
                      {row.artwork.without.length ? `, none for ${row.artwork.without.join(', ')}` : ''}
                    </span>
                  </div>
                ) : (
                  <>
                    {row.sights.map((sight, at) => (
                      <SightCell
                        key={sight.key}
                        sight={sight}
                        index={row.from + at}
                        verdict={verdictOf(sight)}
                        isActive={row.from + at === active}
                        choose={setActive}
                        adjust={adjust}
                      />
                    ))}
                    {Array.from({ length: columns - row.sights.length }, (_, at) => (
                      <div
                        key={at}
                        role="presentation"
                        className="min-w-0 flex-1 basis-0 border-2 border-transparent"
                      />
                    ))}
                  </>
                )}
              </div>
            );
          })}
        </div>
      </div>
      {chosen ? (
        <PlacingDialog
          artwork={chosen.artwork}
          product={chosen.product}
          area={chosen.area}
          ground={chosen.colour ?? '#f4f1ea'}
          background={chosen.background}
          placing={chosen.placing}
          isByHand={chosen.isByHand}
          files={chosen.isOffered ? chosen.accounts : []}
          close={() => {
            setAdjusted(null);
            scroller.current?.focus();
          }}
        />
      ) : null}
    </section>
  );
}
