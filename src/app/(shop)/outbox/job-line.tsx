import type { OutboxJob } from '@/services/outbox/find-jobs';
import { ItemCell } from '@/ui/controls/item-cell';
import { Link } from '@/ui/controls/link';
import { When } from '@/ui/controls/when';
import { outcomeWords, stateWords } from './words';

/** One listing's work: what came of it in a line, its whole story when opened. */
export function JobLine({ job, retry, skip }: { job: OutboxJob; retry: () => void; skip: () => void }) {
  const isOpen = job.state === 'waiting' || job.state === 'held';
  return (
    <li className="border-b border-base-300/60">
      <details>
        <summary className="flex cursor-pointer items-center gap-3 px-4 py-1.5 hover:bg-base-200">
          <span className="min-w-0 flex-1">
            <ItemCell {...job}>
              <span className="mono quiet">{job.sku}</span>
            </ItemCell>
          </span>
          <span className="w-28 truncate">{job.accountName}</span>
          <span className={`w-28 whitespace-nowrap ${job.state === 'failed' ? 'font-medium text-warning' : ''}`}>
            {job.state === 'done' ? (outcomeWords[job.outcome ?? ''] ?? 'Done') : stateWords[job.state]}
          </span>
          <span className="quiet w-32 shrink-0 text-right whitespace-nowrap">
            <When at={job.finishedAt ?? job.createdAt} />
          </span>
        </summary>
        <div className="space-y-1 bg-base-200 px-4 py-2 pl-14">
          <ol className="quiet">
            {job.story.map((line, index) => (
              <li key={index}>
                <span className="figures">{new Date(line.at).toLocaleTimeString('en-GB')}</span> {line.text}
              </li>
            ))}
          </ol>
          <p className="flex gap-4">
            <Link className="underline" href={`/items/${job.itemId}${job.field ? `#row-${job.field}` : ''}`}>
              {job.field ? 'To the field' : 'Open the item'}
            </Link>
            <Link className="underline" href={`/outbox?item=${job.itemId}`}>
              Everything of this item
            </Link>
            {job.url ? (
              <a className="underline" href={job.url} target="_blank" rel="noreferrer">
                Listing {job.remoteId}
              </a>
            ) : null}
            {isOpen ? (
              <button type="button" className="underline" onClick={skip}>
                Take it out
              </button>
            ) : null}
          </p>
        </div>
      </details>
      {job.refusal ? (
        <p className="flex items-center gap-3 px-4 pb-1.5 pl-14 text-[13px]">
          <span className="text-warning">Refused in their review: {job.refusal}</span>
          <Link className="btn btn-xs" href={`/items/${job.itemId}${job.field ? `?at=${job.field}` : ''}`}>
            Mend it
          </Link>
          <button type="button" className="btn btn-xs" onClick={retry}>
            Send it again
          </button>
        </p>
      ) : null}
      {job.state === 'failed' || (isOpen && job.message) ? (
        <p className="flex items-center gap-3 px-4 pb-1.5 pl-14 text-[13px]">
          <span>
            {job.message}
            {job.fix ? <span className="quiet"> – {job.fix}</span> : null}
          </span>
          {job.state === 'failed' ? (
            <button type="button" className="btn btn-xs" onClick={retry}>
              Try again
            </button>
          ) : null}
        </p>
      ) : null}
    </li>
  );
}
