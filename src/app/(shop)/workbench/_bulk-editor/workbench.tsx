'use client';

import { keepPreviousData, skipToken, useQuery } from '@tanstack/react-query';
import Link from 'next/link';
import { useRouter, useSearchParams } from 'next/navigation';
import { useEffect, useMemo, useState } from 'react';
import { sayStep } from '@/core/edit';
import { homeCurrency } from '@/core/measure/money';
import type { AppliedEdit } from '@/services/changes/apply-edit';
import type { EditConsequences } from '@/services/changes/consequences';
import type { Undone } from '@/services/changes/undo-run';
import type { Selection } from '@/services/records/selection';
import { Price } from '@/ui/controls/format';
import { Empty, Failed, Loading, PageHead } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { counted, countedAre } from '@/ui/data/counted';
import { readSelection, withoutItems } from '@/ui/data/selection';
import { useCommand } from '@/ui/data/use-command';
import { PreviewTable } from './preview-table';
import { StepList } from './step-list';
import { isProblem, newStep, readStep, type StepDraft } from './steps';
import { useCatalogue } from './use-catalogue';

type Done = { applied: AppliedEdit; sent: boolean } | { undone: Undone };

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
  const [drafts, setDrafts] = useState<StepDraft[]>([newStep(1)]);
  const [done, setDone] = useState<Done | null>(null);
  const [left, leave] = useState<ReadonlySet<number>>(new Set());
  const catalogue = useCatalogue(drafts.find((step) => step.accounts.length)?.accounts[0] ?? null);
  const steps = useMemo(() => {
    const read = drafts.filter((draft) => !draft.off).map((draft) => readStep(draft, catalogue));
    const whole = read.flatMap((one) => (isProblem(one) ? [] : [one]));
    return whole.length === read.length ? whole : [];
  }, [drafts, catalogue]);
  const complete = steps.length > 0;
  // What is seen is the whole choice; what is counted and done is what was not left out.
  const seen = selection && complete ? { selection, steps } : null;
  const taken = selection && withoutItems(selection, left);
  const edit = taken && complete ? { selection: taken, steps } : null;
  const accounts = useQuery({ queryKey: ['accounts'], queryFn: () => api('GET /accounts') });
  const preview = useQuery({
    queryKey: ['edit-preview', seen],
    queryFn: seen && !done ? ({ signal }) => api('POST /edits/preview', { body: seen, signal }) : skipToken,
    placeholderData: keepPreviousData,
  });
  const counts = useQuery({
    queryKey: ['consequences', edit],
    queryFn: edit && !done ? ({ signal }) => api('POST /edits/consequences', { body: edit, signal }) : skipToken,
    placeholderData: keepPreviousData,
  });

  const apply = useCommand(async (send: boolean) => {
    if (!edit) return undefined;
    const nameOf = (id: number) => accounts.data?.accounts.find((account) => account.id === id)?.name ?? 'an account';
    const title = steps
      .map((step) => sayStep(step, homeCurrency, catalogue, nameOf))
      .join('; ')
      .slice(0, 200);
    const applied = await api('POST /edits', { body: { ...edit, send, title } });
    setDone({ applied, sent: send });
    return undefined;
  });
  const undo = useCommand(async (runId: number) => {
    const send = done !== null && 'applied' in done && done.sent;
    const undone = await api('POST /runs/{id}/undo', { params: { id: runId }, body: { send } });
    setDone({ undone });
    return undefined;
  });
  const busy = apply.busy || undo.busy;
  const problem = apply.error ?? undo.error;

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
  const changed = edit ? (counts.data?.changed ?? 0) : 0;
  const listings = counts.data?.accounts.reduce((sum, account) => sum + account.changes, 0) ?? 0;
  return (
    <>
      <PageHead title="Workbench">
        <span className="quiet figures">
          {selection.kind === 'items'
            ? `${counted(selection.ids.length, 'item')} chosen`
            : 'Everything that the filter finds'}
        </span>
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
            <h2 className="mb-2 font-semibold">Steps</h2>
            <StepList
              steps={drafts}
              change={setDrafts}
              catalogue={catalogue}
              accounts={accounts.data?.accounts ?? []}
            />
          </section>
          <section aria-label="Before and after" className="overflow-auto" tabIndex={0}>
            {!complete ? (
              <p className="quiet p-4">Type a value to see old and new side by side. Nothing is changed yet.</p>
            ) : null}
            {preview.isError ? <Failed error={preview.error} retry={() => void preview.refetch()} /> : null}
            {complete && preview.isPending ? <Loading what="the preview" /> : null}
            {complete && preview.data && accounts.data ? (
              <PreviewTable rows={preview.data.rows} accounts={accounts.data.accounts} left={left} leave={leave} />
            ) : null}
            {complete && counts.data && preview.data && counts.data.items > preview.data.rows.length ? (
              <p className="quiet p-3">
                The first {preview.data.rows.length} of {counts.data.items.toLocaleString('en')} are shown; all are
                counted on the right.
              </p>
            ) : null}
          </section>
          <section aria-label="Consequences" className="flex min-h-0 flex-col border-l border-base-300">
            <div className="min-h-0 grow space-y-3 overflow-auto p-3" tabIndex={0}>
              <h2 className="font-semibold">Consequences</h2>
              {counts.isError ? <Failed error={counts.error} retry={() => void counts.refetch()} /> : null}
              {complete && counts.data ? (
                <Consequences counts={counts.data} />
              ) : (
                <p className="quiet">Counted as soon as the steps are complete.</p>
              )}
            </div>
            <div className="space-y-2 border-t border-base-300 p-3">
              <button
                type="button"
                className="btn btn-sm w-full"
                disabled={!complete || busy || changed === 0}
                onClick={() => void apply.run(false)}
              >
                Save {changed.toLocaleString('en')} {changed === 1 ? 'item' : 'items'}
              </button>
              <button
                type="button"
                className="btn btn-primary btn-sm w-full"
                disabled={!complete || busy || changed === 0}
                onClick={() => void apply.run(true)}
              >
                {busy
                  ? 'Working …'
                  : `Save and send ${listings.toLocaleString('en')} ${listings === 1 ? 'listing' : 'listings'}`}
              </button>
            </div>
          </section>
        </div>
      )}
    </>
  );
}

function Consequences({ counts }: { counts: EditConsequences }) {
  return (
    <div className="space-y-3">
      <p className="figures">
        <b className="font-semibold">{counts.changed.toLocaleString('en')}</b> of {counts.items.toLocaleString('en')}{' '}
        items change
        {counts.unchanged ? (
          <span className="quiet">, {counts.unchanged.toLocaleString('en')} stay as they are</span>
        ) : null}
      </p>
      {counts.refused.map((one) => (
        <p key={one.why} className="text-warning">
          {one.count.toLocaleString('en')}: {one.why}
        </p>
      ))}
      {counts.accounts
        .filter((account) => account.changes > 0 || account.keepOverride > 0)
        .map((account) => (
          <div key={account.accountId} className="border-t border-base-300 pt-2">
            <h3 className="font-medium">{account.name}</h3>
            <p className="figures">
              {account.changes.toLocaleString('en')} live{' '}
              {account.changes === 1 ? 'listing changes' : 'listings change'}
            </p>
            <p>
              Net <Price amount={account.netBefore} currency={account.currency} /> →{' '}
              <Price amount={account.netAfter} currency={account.currency} />
            </p>
            {account.keepOverride ? <p className="quiet figures">{account.keepOverride} keep their own price</p> : null}
            {account.belowZero ? (
              <p className="text-warning figures">{account.belowZero} would sell at a loss</p>
            ) : null}
            {account.blocked ? (
              <p className="text-error figures">
                {account.blocked} would not be taken any more as {account.blocked === 1 ? 'it becomes' : 'they become'}
              </p>
            ) : null}
            {account.outOfRange ? (
              <p className="text-error figures">
                {account.outOfRange} {account.outOfRange === 1 ? 'price is' : 'prices are'} not allowed there
              </p>
            ) : null}
          </div>
        ))}
    </div>
  );
}

function Result({
  done,
  undo,
  busy,
  again,
}: {
  done: Done;
  undo: (runId: number) => void;
  busy: boolean;
  again: () => void;
}) {
  if ('undone' in done)
    return (
      <Empty title={`${countedAre(done.undone.items, 'item')} as ${done.undone.items === 1 ? 'it was' : 'they were'}`}>
        {done.undone.changedSince.length ? (
          <div className="text-left">
            <p>These were changed since and stay as they are now:</p>
            <ul className="list-disc pl-5">
              {done.undone.changedSince.slice(0, 20).map((one) => (
                <li key={`${one.itemId}${one.field}`}>
                  <Link className="underline" href={`/items/${one.itemId}`}>
                    {one.title || one.sku}
                  </Link>{' '}
                  ({one.field})
                </li>
              ))}
            </ul>
          </div>
        ) : null}
        <Link className="btn btn-sm" href="/">
          To the inventory
        </Link>
      </Empty>
    );
  const { applied, sent } = done;
  if (!applied.finished)
    return (
      <Empty title={`${countedAre(applied.total, 'item')} being changed`}>
        <p>
          {applied.items.toLocaleString('en')} are changed so far. It goes on by itself: the foot of every page tells
          how far it is, and you can leave this page.
        </p>
        <Link className="btn btn-primary btn-sm" href="/outbox">
          Watch it, stop it or take it back
        </Link>
      </Empty>
    );
  return (
    <Empty title={`${countedAre(applied.items, 'item')} changed`}>
      <p>
        {sent
          ? `${countedAre(applied.listings, 'listing')} on ${applied.listings === 1 ? 'its' : 'their'} way. You can leave this page.`
          : 'Saved only. Their listings show a notch until the change is sent.'}
      </p>
      {applied.refused ? (
        <p className="text-warning">{applied.refused} could not be changed this way and are as before.</p>
      ) : null}
      <div className="flex justify-center gap-2">
        <button type="button" className="btn btn-sm" disabled={busy} onClick={() => undo(applied.runId)}>
          Undo the whole change
        </button>
        <button type="button" className="btn btn-sm" onClick={again}>
          Change something else
        </button>
        <Link className="btn btn-primary btn-sm" href={sent ? '/outbox' : '/'}>
          {sent ? 'Watch it being sent' : 'To the inventory'}
        </Link>
      </div>
    </Empty>
  );
}
