import type { Audit } from '@/services/audit/audit';
import { Knot } from '@/ui/controls/knot';
import { Link } from '@/ui/controls/link';
import { When } from '@/ui/controls/when';

/** What does not add up, as the last look over everything has found. */
export function Findings({ audit, look, isLooking }: { audit: Audit; look: () => void; isLooking: boolean }) {
  return (
    <section aria-label="Does everything add up?" className="px-4 py-3">
      <p className="quiet flex items-center gap-3">
        {audit.at ? (
          <span>
            Looked over everything <When at={audit.at} />: offers, stock, orders, photos, links, access.{' '}
            {audit.found.length === 0 ? 'Everything adds up.' : null}
          </span>
        ) : (
          <span>Nobody has looked yet whether everything adds up.</span>
        )}
        <button type="button" className="btn btn-sm ml-auto" disabled={isLooking} onClick={look}>
          {isLooking ? 'Looking …' : 'Look now'}
        </button>
      </p>
      <ol>
        {audit.found.map((one) => (
          <li key={one.id} className="mt-2 border-t border-base-300 pt-2">
            <div className="flex items-center gap-3">
              <Knot state="attention" />
              <h2 className="font-semibold">{one.says}</h2>
              <span className="quiet figures">{one.count}</span>
              {one.mended ? <span className="quiet">{one.mended} queued to be put right</span> : null}
              {one.id === 'orders' ? (
                <Link href="/sales?state=unassigned" className="btn btn-sm ml-auto">
                  Assign them
                </Link>
              ) : null}
            </div>
            <ul className="mt-1 pl-7">
              {one.named.map(({ text, item }) => (
                <li key={text} className="truncate">
                  {item ? (
                    <Link className="underline" href={`/items/${item}`}>
                      {text}
                    </Link>
                  ) : (
                    text
                  )}
                </li>
              ))}
              {one.count > one.named.length ? <li className="quiet">and {one.count - one.named.length} more</li> : null}
            </ul>
          </li>
        ))}
      </ol>
    </section>
  );
}
