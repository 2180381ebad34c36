'use client';

import { useIsMutating } from '@tanstack/react-query';
import type { EditConsequences } from '@/services/changes/preview/consequences';
import type { ImportView } from '@/services/importing/find-imports';
import { Link } from '@/ui/controls/link';
import { api } from '@/ui/data/api';
import { type HeldBack, sendPart } from '@/ui/data/consequences';
import { useCommand } from '@/ui/data/use-command';
import { useTask } from '@/ui/data/use-task';

const count = (number: number, one: string, many = `${one}s`) =>
  `${number.toLocaleString('en')} ${number === 1 ? one : many}`;

type Props = { file: ImportView; held: HeldBack; counts: EditConsequences | null };

/** What can be done with the file now: compare it, carry it out, take it back, fetch what was refused. */
export function CarryOut({ file, held, counts: comesTo }: Props) {
  const { id, state, counts } = file;
  // What is held back is known once it was counted where one looked.
  const part = comesTo ? sendPart(comesTo, held) : undefined;
  const compare = useCommand(
    async () => {
      await api('POST /imports/{id}/check', { params: { id } });
      return undefined;
    },
    { touches: [['imports'], ['tasks']] },
  );
  const apply = useCommand(
    async (send: boolean) => {
      if (part === null) return undefined;
      const begun = await api('POST /imports/{id}/apply', {
        params: { id },
        body: { send, part: send ? part : undefined },
      });
      return begun.finished ? 'Carried out' : 'It is being carried out; the page can be left';
    },
    { touches: [['imports'], ['tasks']] },
  );
  const undo = useCommand(async () => {
    await api('POST /runs/{id}/undo', { params: { id: file.runId ?? 0 }, body: {} });
    return 'It is taken back';
  });
  const { goOn } = useTask(file.taskId, [['imports']]);
  // What is being decided about single rows is kept before anything is carried out.
  const isDeciding = useIsMutating() > 0;
  const some = counts.change + counts.conflict + counts.new;
  const problem = compare.problem || apply.problem || undo.problem;
  return (
    <div className="flex min-h-12 flex-wrap items-center gap-3 border-b border-base-300 px-4 py-2">
      {state === 'open' ? (
        <button
          type="button"
          className="btn btn-primary btn-sm"
          disabled={compare.busy}
          onClick={() => void compare.run()}
        >
          {compare.busy ? 'Comparing …' : 'Compare with the inventory'}
        </button>
      ) : null}
      {state === 'checking' ? (
        <span role="status">
          {(some + counts.same + counts.refused).toLocaleString('en')} rows compared by now; the page can be left
        </span>
      ) : null}
      {state === 'checked' ? (
        <>
          <button
            type="button"
            className="btn btn-sm"
            disabled={isDeciding || some === 0}
            onClick={() => void apply.run(false)}
          >
            Save
          </button>
          <button
            type="button"
            className="btn btn-primary btn-sm"
            disabled={isDeciding || some === 0 || part === null}
            onClick={() => void apply.run(true)}
          >
            Save and send
          </button>
        </>
      ) : null}
      {state === 'applying' && file.halted === null ? (
        <span role="status">It is being carried out; the page can be left</span>
      ) : null}
      {state === 'applying' && file.halted !== null ? (
        <>
          <span role="status">Carried out in part. {file.halted}.</span>
          <button type="button" className="btn btn-sm" disabled={goOn.busy} onClick={() => void goOn.run()}>
            Go on
          </button>
        </>
      ) : null}
      {state === 'applied' ? (
        <>
          <span role="status">Carried out.</span>
          {file.runId ? (
            <>
              <Link className="link" href={`/runs/${file.runId}`}>
                What it did
              </Link>
              <button type="button" className="btn btn-sm" disabled={undo.busy} onClick={() => void undo.run()}>
                Take it back
              </button>
            </>
          ) : null}
        </>
      ) : null}
      {state !== 'open' ? (
        <span className="quiet text-[12px]">
          {count(counts.same, 'row says', 'rows say')} what is there already
          {counts.kept ? `; ${count(counts.kept, 'value')} changed here since stay` : ''}
        </span>
      ) : (
        <span className="quiet text-[12px]">Nothing is changed by comparing.</span>
      )}
      {counts.refused > 0 && state !== 'checking' ? (
        <a className="link ml-auto" href={`/api/v1/imports/${id}/report`} download>
          {count(counts.refused, 'refused row')}, as a file
        </a>
      ) : null}
      {problem ? (
        <p role="alert" className="w-full text-error">
          {problem}
        </p>
      ) : null}
    </div>
  );
}
