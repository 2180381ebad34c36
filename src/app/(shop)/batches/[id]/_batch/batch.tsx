'use client';

import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import dynamic from 'next/dynamic';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { Command } from '@/core/batch/command';
import { withSwitched } from '@/core/batch/note';
import { nextPlace } from '@/core/batch/place';
import type { BatchView } from '@/services/intake/find-batch';
import type { IntakeAct } from '@/services/intake/intake-act';
import type { LineView } from '@/services/intake/line-view';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { usePageActions } from '@/ui/frame/actions';
import { useTitle } from '@/ui/frame/use-title';
import { BatchHead } from './batch-head';
import { Doubts } from './doubts';
import { type Before, interpret } from './interpret';
import { LastPiece } from './last-piece';
import { Lines } from './lines';
import { usePresets } from './presets';
import { ScanField, type ScanFieldHandle } from './scan-field';
import { SettingsPanel } from './settings-panel';
import { play } from './sounds';
import { toneOf } from './tone-of';
import { Totals } from './totals';
import { linesKey, useActs } from './use-acts';
import { useLookedUp } from './use-looked-up';
import { useSettings } from './use-settings';

/** Few scan with a camera: it comes when it is asked for. */
const Camera = dynamic(() => import('./camera').then((one) => one.Camera), {
  ssr: false,
  loading: () => <p className="quiet min-h-8">Camera …</p>,
});

/** Rows that stand there; earlier ones are asked for. */
const shownAtOnce = 20;

/** One sitting at the scanner: the field, what every piece gets, the piece in the hand, and everything that was scanned. */
export function Batch({ id }: { id: number }) {
  const batch = useQuery({
    queryKey: ['batch', id],
    queryFn: () => api('GET /batches/{id}', { params: { id } }),
    refetchInterval: 3_000,
  });
  useTitle(batch.data?.name ?? '');
  if (batch.isPending) return <Loading what="the batch" />;
  if (batch.isLoadingError) return <Failed error={batch.error} retry={() => void batch.refetch()} />;
  return <Sitting batch={batch.data ?? null} id={id} />;
}

function Sitting({ batch, id }: { batch: BatchView | null; id: number }) {
  const field = useRef<ScanFieldHandle>(null);
  const back = useCallback(() => field.current?.focus(), []);
  const first = batch?.settings;
  if (!batch || !first) return null;
  return <Scanning batch={batch} id={id} field={field} back={back} />;
}

type ScanningProps = { batch: BatchView; id: number; field: React.RefObject<ScanFieldHandle | null>; back: () => void };

function Scanning({ batch, id, field, back }: ScanningProps) {
  const { settings, change } = useSettings(id, batch.settings);
  const presets = usePresets();
  const shop = useQuery({ queryKey: ['settings'], queryFn: () => api('GET /settings'), staleTime: 30_000 });
  const snippets = useMemo(
    () => (settings.grade ? (shop.data?.conditionSnippets[settings.grade] ?? []) : []),
    [shop.data, settings.grade],
  );
  const [isOpenOnly, setIsOpenOnly] = useState(false);
  const view = isOpenOnly ? 'open' : 'all';
  const pages = useInfiniteQuery({
    queryKey: linesKey(id, view),
    queryFn: ({ pageParam }) =>
      api('GET /batches/{id}/lines', {
        params: { id },
        query: { before: pageParam || undefined, open: isOpenOnly ? 'true' : undefined },
      }),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next ?? undefined,
    refetchInterval: 8_000,
  });
  const lines = useMemo(() => pages.data?.pages.flatMap((page) => page.lines) ?? [], [pages.data]);
  const [shownCount, setShownCount] = useState(shownAtOnce);
  const shown = useMemo(() => lines.slice(0, shownCount), [lines, shownCount]);
  /** The last piece that was scanned here: its key; the newest line before that. */
  const [lastKey, setLastKey] = useState('');
  const [units, setUnits] = useState<number | null>(null);
  const [said, setSaid] = useState('');
  const [doubts, setDoubts] = useState<{ id: string; text: string }[]>([]);
  const before = useRef<Before>(null);
  const lastText = useRef('');
  const keys = useRef<string[]>([]);

  const { add, waiting, isAway, problem } = useActs(id, (line, act) => {
    if (act.act === 'scan' || act.act === 'answer') play(toneOf(line).sound);
  });
  useLookedUp(id, lines, (line) => {
    const { sound } = toneOf(line);
    if (sound !== 'taken') play(sound);
  });
  const last = lines.find((line) => line.key === lastKey) ?? (lastKey === '' ? (lines[0] ?? null) : null);

  const scan = (text: string) => {
    const key = crypto.randomUUID();
    const given = units === null ? settings : { ...settings, quantity: units };
    // In the order in which they read, whichever was switched on first.
    const ordered = [
      ...snippets.filter((one) => settings.snippets.includes(one)),
      ...settings.snippets.filter((one) => !snippets.includes(one)),
    ];
    keys.current.push(key);
    lastText.current = text;
    setLastKey(key);
    setUnits(null);
    add({ act: 'scan', key, text, settings: { ...given, snippets: ordered } });
    if (settings.placeCounts === 'each' && settings.place) change({ place: nextPlace(settings.place) });
  };
  const answer = (more: Omit<Extract<IntakeAct, { act: 'answer' }>, 'act' | 'of'>) => {
    const of = last?.key;
    if (of) add({ act: 'answer', of, ...more });
  };
  const undo = () => {
    const key = keys.current.pop() ?? lines.find((line) => !line.isUndone)?.key;
    if (!key) return;
    setSaid('The last one is taken back');
    before.current = null;
    play('command');
    add({ act: 'undo', of: key });
  };
  const run = (command: Command) => {
    play('command');
    switch (command.do) {
      case 'undo':
        return undo();
      case 'again':
        return lastText.current ? scan(lastText.current) : setSaid('Nothing was scanned yet');
      case 'quantity':
        setUnits(command.units);
        return setSaid(`The next scan counts ${command.units}`);
      case 'box':
        if (!settings.place) return setSaid('No place is written, so there is no next one');
        change({ place: nextPlace(settings.place) });
        return setSaid(`Now into ${nextPlace(settings.place)}`);
      case 'grade':
        if (last?.needs[0]?.what === 'grade') return answer({ grade: command.grade });
        change({ grade: command.grade, snippets: command.grade === settings.grade ? settings.snippets : [] });
        return setSaid('');
      case 'snippet': {
        const one = snippets[command.number - 1];
        if (one) change({ snippets: withSwitched(settings.snippets, one) });
        return setSaid(one ? '' : `There is no sentence ${command.number} for this condition`);
      }
      case 'preset': {
        const preset = presets.find((one) => one.id === command.id);
        if (preset) change(preset.settings);
        return setSaid(preset ? `Settings: ${preset.name}` : 'These settings are not kept any more');
      }
      case 'yes': {
        const [doubt] = doubts;
        if (doubt) settle(doubt.id, true);
        return undefined;
      }
    }
  };
  const settle = (doubt: string, isTwice: boolean) => {
    const one = doubts.find((other) => other.id === doubt);
    setDoubts((now) => now.filter((other) => other.id !== doubt));
    // Asked once: who has said so is not asked again for the next of them.
    before.current = null;
    if (isTwice && one) scan(one.text);
    back();
  };
  const submit = (text: string) => {
    const at = Date.now();
    const meant = interpret(text, at, last, before.current);
    setSaid('');
    switch (meant.is) {
      case 'command':
        return run(meant.command);
      case 'grade':
        return answer({ grade: meant.grade });
      case 'price':
        return answer({ price: meant.price });
      case 'entry':
        return answer({ entry: meant.entry });
      case 'doubt':
        play('needs');
        before.current = { text: meant.text, at };
        return setDoubts((now) => [{ id: crypto.randomUUID(), text: meant.text }, ...now]);
      case 'scan':
        before.current = { text: meant.text.trim(), at };
        return scan(meant.text);
      case 'nothing':
        return setSaid('There is no such number');
    }
  };
  const undoLine = useCallback(
    (line: LineView) => {
      add({ act: 'undo', of: line.key });
      back();
    },
    [add, back],
  );
  const readAs = useCallback((line: LineView, text: string) => add({ act: 'answer', of: line.key, text }), [add]);
  const latest = useRef(run);
  latest.current = run;
  const actions = useMemo(
    () => [
      {
        label: 'Take the last one back',
        hint: 'Also Ctrl Z',
        keys: 'Alt Z',
        run: () => latest.current({ do: 'undo' }),
      },
      {
        label: 'The same again',
        hint: 'One more of the last',
        keys: 'Alt A',
        run: () => latest.current({ do: 'again' }),
      },
      { label: 'Next place', hint: 'A new box', keys: 'Alt B', run: () => latest.current({ do: 'box' }) },
      ...Array.from({ length: 9 }, (_, index) => ({
        label: `Sentence ${index + 1}`,
        hint: 'On or off',
        keys: `Alt ${index + 1}`,
        run: () => latest.current({ do: 'snippet', number: index + 1 }),
      })),
    ],
    [],
  );
  usePageActions(actions);
  useEffect(() => {
    // What is not sent yet would be left behind for the time being.
    if (waiting.length === 0) return;
    const stay = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', stay);
    return () => window.removeEventListener('beforeunload', stay);
  }, [waiting.length]);

  return (
    <div className="flex flex-col lg:h-[calc(100dvh-var(--frame))]">
      <BatchHead batch={batch} />
      <Totals totals={batch.totals} />
      <div className="grid min-h-0 flex-1 grid-cols-[21rem_minmax(0,1fr)] max-lg:grid-cols-1">
        {/* On a phone the piece in the hand stands right below the field, and what every piece gets at the end. */}
        <div className="flex min-h-0 flex-col gap-3 border-r border-base-300 p-3 max-lg:contents lg:overflow-y-auto">
          <div className="flex flex-col gap-2 max-lg:order-1 max-lg:p-3">
            <ScanField ref={field} submit={submit} undo={undo} describedBy="intake-said" />
            <p id="intake-said" role="status" className="min-h-5 text-[13px]">
              {problem ? <span className="text-error">{problem}</span> : null}
              {!problem && waiting.length ? (
                <span className={isAway ? 'text-warning' : 'quiet'}>
                  {isAway
                    ? `No connection. ${waiting.length} ${waiting.length === 1 ? 'scan waits' : 'scans wait'} here and ${waiting.length === 1 ? 'is' : 'are'} sent when it is back`
                    : `Sending ${waiting.length} …`}
                </span>
              ) : null}
              {!problem && waiting.length === 0
                ? said || (units === null ? '' : `The next scan counts ${units}`)
                : null}
            </p>
            <Camera scanned={submit} />
          </div>
          <div className="max-lg:order-3 max-lg:p-3">
            <SettingsPanel settings={settings} change={change} snippets={snippets} done={back} />
          </div>
        </div>
        <div className="relative flex min-h-0 flex-col gap-2 p-3 max-lg:order-2 lg:overflow-y-auto">
          <Doubts doubts={doubts} settle={settle} />
          <LastPiece
            line={last}
            choose={(entry) => answer({ entry })}
            setPrice={(price) => {
              setSaid('The price is set');
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
          {pages.hasNextPage || lines.length > shownCount ? (
            <button
              type="button"
              className="btn btn-sm self-center"
              disabled={pages.isFetchingNextPage}
              onClick={() => {
                setShownCount((now) => now + 2 * shownAtOnce);
                if (pages.hasNextPage && lines.length < shownCount + 2 * shownAtOnce) void pages.fetchNextPage();
              }}
            >
              Show earlier scans
            </button>
          ) : null}
        </div>
      </div>
    </div>
  );
}
