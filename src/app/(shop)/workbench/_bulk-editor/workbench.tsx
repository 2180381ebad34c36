'use client';

import { skipToken, useQuery } from '@tanstack/react-query';
import dynamic from 'next/dynamic';
import Link from 'next/link';
import { useRouter, useSearchParams } from 'next/navigation';
import { useEffect, useMemo, useRef, useState } from 'react';
import { type Step, sayStep } from '@/core/edit/step';
import { homeCurrency } from '@/core/measure/money';
import type { Edit } from '@/services/changes/edit-schema';
import type { Selection } from '@/services/records/selection';
import { Empty, Failed, Loading, PageHead } from '@/ui/controls/states';
import { api, apiLines } from '@/ui/data/api';
import { counted } from '@/ui/data/counted';
import { filterOfSelection, narrowedTo, readSelection, withoutItems } from '@/ui/data/selection';
import { useCommand } from '@/ui/data/use-command';
import { usePageActions } from '@/ui/frame/actions';
import { CommonTable } from './common-table';
import { Consequences, type HeldBack, nothingHeldBack, sendPart } from './consequences';
import { Narrowed } from './narrowed';
import type { Done } from './result';
import { StepList } from './step-list';
import { isProblem, newStep, readStep, type StepDraft, withSet } from './steps';
import { stepsIn } from './steps-in';
import { useArgumentFault } from './use-argument-fault';
import { useCatalogues } from './use-catalogue';
import { useLines } from './use-lines';
import { type View, Views } from './views';
import { writeStep } from './write-step';

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
  /** Steps of a routine or of the address that are to stand in the boxes, as soon as the fields that they name are known. */
  const [opening, open] = useState<readonly Step[]>([]);
  useEffect(() => {
    setSelection(readSelection(new URLSearchParams(params.toString())));
    setReady(true);
    const asked = stepsIn(params.get('steps'));
    if (asked.length) open(asked);
  }, [params]);
  const [drafts, setDrafts] = useState<StepDraft[]>([newStep(1)]);
  const [done, setDone] = useState<Done | null>(null);
  const [left, leave] = useState<ReadonlySet<number>>(new Set());
  const { of: catalogueOf, isRead } = useCatalogues([
    ...drafts.flatMap((step) => step.accounts.slice(0, 1)),
    ...opening.flatMap(({ where }) => (where.on === 'accounts' ? where.accounts.slice(0, 1) : [])),
  ]);
  const catalogueAt = ({ where }: Step) =>
    catalogueOf({ on: where.on, accounts: where.on === 'accounts' ? where.accounts : [] });
  if (opening.length > 0 && isRead) {
    setDrafts(opening.map((step, at) => writeStep(step, at + 1, catalogueAt(step))));
    open([]);
  }
  const faultOf = useArgumentFault(drafts);
  const steps = useMemo(() => {
    const read = drafts.filter((draft) => !draft.off).map((draft) => readStep(draft, catalogueOf(draft), faultOf));
    const whole = read.flatMap((one) => (isProblem(one) ? [] : [one]));
    return whole.length === read.length ? whole : [];
  }, [drafts, catalogueOf, faultOf]);
  const wanted = Number(params.get('routine'));
  const routines = useQuery({ queryKey: ['routines'], queryFn: wanted ? () => api('GET /routines') : skipToken });
  const found = routines.data?.routines.find((one) => one.id === wanted);
  const [opened, setOpened] = useState(0);
  if (found && opened !== wanted) {
    setOpened(wanted);
    open(found.steps);
  }
  const complete = steps.length > 0;
  // What is seen is the whole choice; what is counted and done is what was not left out.
  const seen = selection && complete ? { selection, steps } : null;
  const taken = selection && withoutItems(selection, left);
  const edit = taken && complete ? { selection: taken, steps } : null;
  const accounts = useQuery({ queryKey: ['accounts'], queryFn: () => api('GET /accounts') });
  const counting = useLines(
    edit && !done ? JSON.stringify(edit) : null,
    // asked only where there is something to ask
    (signal) => apiLines('POST /edits/counting', { body: edit as Edit, signal }),
    'last',
  );
  const counts = (edit && counting.lines[0]) ?? null;
  const [held, setHeld] = useState<HeldBack>(nothingHeldBack);
  // A part is named by what is found: it is known once all has been counted, of this very change.
  const isHeldBack = held.accounts.length > 0 || held.fields.length > 0;
  const part = !isHeldBack ? undefined : counts && counting.isWhole ? sendPart(counts, held) : null;
  const [at, setAt] = useState<string | null>(null);
  const [chosenView, setView] = useState<View | null>(null);
  const changing = new Set(counts?.accounts.filter((one) => one.changes > 0).map((one) => one.accountId));
  const shownAccounts = accounts.data?.accounts.filter((one) => changing.has(one.id) || one.id === chosenView) ?? [];
  const view: View = complete ? (chosenView ?? 'item') : 'common';

  const apply = useCommand(async (send: boolean) => {
    if (!edit) return undefined;
    const nameOf = (id: number) => accounts.data?.accounts.find((account) => account.id === id)?.name ?? 'an account';
    const title = steps
      .map((step) => sayStep(step, homeCurrency, catalogueAt(step), nameOf))
      .join('; ')
      .slice(0, 200);
    const body = { ...edit, send, title, part: send ? (part ?? undefined) : undefined, at: at ?? undefined };
    const applied = await api('POST /edits', { body });
    setDone({ applied, sent: send, at });
    return undefined;
  });
  const undo = useCommand(async (runId: number) => {
    const send = done !== null && 'applied' in done && done.sent;
    const undone = await api('POST /runs/{id}/undo', { params: { id: runId }, body: { send } });
    setDone({ undone, of: runId });
    return undefined;
  });
  const busy = apply.busy || undo.busy;
  const problem = apply.error ?? undo.error;

  const canApply = complete && !busy && !done && (counts?.changed ?? 0) > 0;
  const send = useRef(() => {});
  send.current = () => {
    if (canApply && part !== null) void apply.run(true);
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
    <>
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
        <Result done={done} undo={(id) => void undo.run(id)} busy={busy} again={() => setDone(null)} />
      ) : (
        <div className="grid grid-cols-[19rem_minmax(0,1fr)_18rem] max-lg:grid-cols-1 lg:h-[calc(100vh-7.5rem)]">
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
            <StepList
              steps={drafts}
              change={setDrafts}
              catalogueOf={catalogueOf}
              accounts={accounts.data?.accounts ?? []}
            />
          </section>
          <section aria-label="Before and after" className="overflow-auto" tabIndex={0}>
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
              />
            ) : null}
          </section>
          <section aria-label="Consequences" className="flex min-h-0 flex-col border-l border-base-300">
            <div className="min-h-0 grow space-y-3 overflow-auto p-3" tabIndex={0}>
              <h2 className="font-semibold">Consequences</h2>
              {counting.error ? <Failed error={counting.error} retry={counting.again} /> : null}
              {counts ? (
                <Consequences counts={counts} held={held} hold={setHeld} />
              ) : (
                <p className="quiet">{complete ? 'Being counted …' : 'Counted as soon as the steps are complete.'}</p>
              )}
            </div>
            <div className="space-y-2 border-t border-base-300 p-3">
              <AtATime at={at} set={setAt} />
              <button
                type="button"
                className="btn btn-sm w-full"
                disabled={!complete || busy || changed === 0}
                onClick={() => void apply.run(false)}
              >
                Save {changed.toLocaleString('en')} {changed === 1 ? 'item' : 'items'}
                {at ? ' then' : ''}
              </button>
              <button
                type="button"
                className="btn btn-primary btn-sm w-full"
                disabled={!complete || busy || changed === 0 || part === null}
                onClick={() => void apply.run(true)}
              >
                {busy
                  ? 'Working …'
                  : `Save and send ${listings.toLocaleString('en')} ${listings === 1 ? 'listing' : 'listings'}${at ? ' then' : ''}`}
              </button>
            </div>
          </section>
        </div>
      )}
    </>
  );
}
