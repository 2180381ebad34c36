'use client';

import { useQuery } from '@tanstack/react-query';
import dynamic from 'next/dynamic';
import { useRouter, useSearchParams } from 'next/navigation';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Selection } from '@/services/records/items/selection';
import { Link } from '@/ui/controls/link';
import { Empty, Failed, Loading, PageHead } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { Consequences } from '@/ui/data/consequences';
import { counted } from '@/ui/data/counted';
import { filterOfSelection, narrowedTo, readSelection } from '@/ui/data/selection';
import { usePageActions } from '@/ui/frame/actions';
import { CommonTable } from './common-table';
import { Narrowed } from './narrowed';
import { ModelsOf } from './photos/models';
import { StepList } from './step-list';
import { withSet } from './steps';
import { useChange } from './use-change';
import { useSteps } from './use-steps';
import { type View, Views } from './views';

// Nothing of it is seen while the first step is written.
const AtATime = dynamic(() => import('./at-a-time').then((module) => module.AtATime));
const PreviewPane = dynamic(() => import('./preview-pane').then((module) => module.PreviewPane), {
  loading: () => <Loading what="what would become of them" />,
});
const Result = dynamic(() => import('./result').then((module) => module.Result));
const RoutinesMenu = dynamic(() => import('./routines-menu').then((module) => module.RoutinesMenu));

/** Changing many: steps on the left, before and after in the middle, consequences on the right. */
export function Workbench() {
  const params = useSearchParams();
  const router = useRouter();
  const [selection, setSelection] = useState<Selection | null>(null);
  const [ready, setReady] = useState(false);
  useEffect(() => {
    setSelection(readSelection(new URLSearchParams(params.toString())));
    setReady(true);
  }, [params]);
  const accounts = useQuery({ queryKey: ['accounts'], queryFn: () => api('GET /accounts') });
  const written = useSteps();
  const { drafts, setDrafts, steps, open, catalogueOf } = written;
  const change = useChange(selection, written, accounts.data?.accounts ?? []);
  const { seen, counting, counts, left, leave, held, busy, done, at, problem } = change;
  const complete = steps.length > 0;
  const [chosenView, setView] = useState<View | null>(null);
  const changing = new Set(counts?.accounts.filter((one) => one.changes > 0).map((one) => one.accountId));
  const shownAccounts = accounts.data?.accounts.filter((one) => changing.has(one.id) || one.id === chosenView) ?? [];
  const view: View = complete ? (chosenView ?? 'item') : 'common';
  // Of badges the last one that is put on can be moved on single photos.
  const putting = drafts.findLast((step) => step.verb === 'photo-badge' && !step.off);
  const badge = putting
    ? {
        layer: putting.typed.layer ?? '',
        apart: putting.typed.apart ?? '',
        set: (apart: string) =>
          setDrafts(drafts.map((step) => (step === putting ? { ...step, typed: { ...step.typed, apart } } : step))),
      }
    : null;
  const send = useRef(() => {});
  send.current = () => {
    if (change.canSend) change.apply(true);
  };
  usePageActions(
    useMemo(
      () => [{ label: 'Save and send', hint: 'The change as it is seen', keys: 'Alt S', run: () => send.current() }],
      [],
    ),
  );

  if (!ready || accounts.isPending) return <Loading what="the workbench" />;
  if (!selection)
    return (
      <Empty title="Choose items first">
        <p>Choose rows in the inventory, then press Change (or the key E).</p>
        <Link className="btn btn-sm" href="/">
          To the inventory
        </Link>
      </Empty>
    );
  const changed = counts?.changed ?? 0;
  const listings =
    counts?.accounts
      .filter((account) => !held.accounts.includes(account.accountId))
      .reduce((sum, account) => sum + account.changes, 0) ?? 0;
  return (
    <div className="flex flex-col lg:h-[calc(100dvh-var(--frame))]">
      <PageHead title="Workbench">
        <span className="quiet figures">
          {selection.kind === 'items'
            ? `${counted(selection.ids.length, 'item')} chosen`
            : 'Everything that the filter finds'}
        </span>
        <Narrowed selection={selection} set={setSelection} />
        <button type="button" className="btn btn-ghost btn-sm ml-auto" onClick={() => router.push('/')}>
          Back to the inventory
        </button>
      </PageHead>
      {problem ? <Failed error={problem} /> : null}
      {done ? (
        <Result done={done} undo={change.undo} busy={busy} again={change.again} />
      ) : (
        <div className="grid grid-cols-[19rem_minmax(0,1fr)_18rem] max-lg:grid-cols-1 lg:min-h-0 lg:flex-1">
          <section aria-label="Steps" className="overflow-auto border-r border-base-300 p-3">
            <div className="mb-2 flex items-center justify-between">
              <h2 className="font-semibold">Steps</h2>
              <RoutinesMenu
                steps={complete ? steps : []}
                filter={filterOfSelection(selection)}
                open={(routine) => open(routine.steps)}
                append={(routine) => open([...steps, ...routine.steps])}
              />
            </div>
            <ModelsOf selection={selection} wanted={drafts.some((step) => step.field === 'photos')}>
              <StepList
                steps={drafts}
                change={setDrafts}
                catalogueOf={catalogueOf}
                accounts={accounts.data?.accounts ?? []}
              />
            </ModelsOf>
          </section>
          <section aria-label="Before and after" className="relative overflow-auto" tabIndex={0}>
            <Views view={view} choose={setView} accounts={complete ? shownAccounts : []} isComplete={complete} />
            {view === 'common' && accounts.data ? (
              <CommonTable
                selection={selection}
                accounts={accounts.data.accounts}
                steps={drafts}
                set={(field, account, text) => {
                  setView('common');
                  setDrafts(withSet(drafts, field, account, text));
                }}
                narrow={(condition) => setSelection(narrowedTo(selection, condition))}
              />
            ) : null}
            {view !== 'common' && seen && accounts.data ? (
              <PreviewPane
                edit={seen}
                account={view === 'item' ? undefined : view}
                accounts={accounts.data.accounts}
                counts={counts}
                left={left}
                leave={leave}
                badge={badge}
              />
            ) : null}
          </section>
          <section aria-label="Consequences" className="flex min-h-0 flex-col border-l border-base-300">
            <div className="min-h-0 grow space-y-3 overflow-auto p-3" tabIndex={0}>
              <h2 className="font-semibold">Consequences</h2>
              {counting.error ? <Failed error={counting.error} retry={counting.again} /> : null}
              {counts ? (
                <Consequences counts={counts} held={held} hold={change.hold} />
              ) : (
                <p className="quiet">{complete ? 'Being counted …' : 'Counted as soon as the steps are complete.'}</p>
              )}
            </div>
            <div className="space-y-2 border-t border-base-300 p-3">
              <AtATime at={at} set={change.setAt} />
              <button
                type="button"
                className="btn btn-sm w-full"
                disabled={!change.canSave}
                onClick={() => change.apply(false)}
              >
                Save {changed.toLocaleString('en')} {changed === 1 ? 'item' : 'items'}
                {at ? ' then' : ''}
              </button>
              <button
                type="button"
                className="btn btn-primary btn-sm w-full"
                disabled={!change.canSend}
                onClick={() => change.apply(true)}
              >
                {busy
                  ? 'Working …'
                  : `Save and send ${listings.toLocaleString('en')} ${listings === 1 ? 'listing' : 'listings'}${at ? ' then' : ''}`}
              </button>
            </div>
          </section>
        </div>
      )}
    </div>
  );
}
