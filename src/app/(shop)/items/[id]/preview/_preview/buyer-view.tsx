import type { AccountPreview } from '@/services/items/preview-item';
import { photoUrl } from '@/ui/data/api';

/**
 * A buyer's view in our own plain drawing, made of what the marketplace's rules say it shows: the shape and number of
 * photos, a heading or only a text, tags or hashtags.
 */
export function BuyerView({ account: { name, preview } }: { account: AccountPreview }) {
  const [first, ...others] = preview.photos;
  return (
    <section
      aria-label={`What a buyer sees on ${name}`}
      className="border-l border-base-300 bg-base-200/50 p-3 text-[13px]"
    >
      <h2 className="quiet mb-2">What a buyer sees</h2>
      <article className="rounded border border-base-300 bg-base-100 p-3">
        {preview.catalogue ? <p className="quiet mb-2">The catalogue’s own picture</p> : null}
        {first ? <Framed hash={first.hash} ratio={first.ratio} className="w-full" /> : null}
        {others.length ? (
          <div className="mt-1 grid grid-cols-5 gap-1">
            {others.slice(0, 10).map((photo, index) => (
              <Framed key={`${photo.hash}-${index}`} hash={photo.hash} ratio={photo.ratio} className="w-full" />
            ))}
          </div>
        ) : null}
        {preview.heading ? <h3 className="mt-2 font-semibold wrap-anywhere">{preview.heading}</h3> : null}
        <p className="flex items-baseline justify-between gap-2">
          <span className="figures text-base font-semibold">{preview.price ?? ''}</span>
          <span className="quiet">{preview.condition ?? ''}</span>
        </p>
        {preview.note ? <p className="mt-1 border-l-2 border-base-300 pl-2">{preview.note}</p> : null}
        {preview.highlights.length ? (
          <ul className="mt-2 list-disc pl-5">
            {preview.highlights.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        ) : null}
        {preview.html ? (
          <div
            // A box that scrolls is reached by keyboard
            tabIndex={0}
            className="rich mt-2 max-h-64 overflow-auto"
            // Cleaned by the server to a small set of tags
            dangerouslySetInnerHTML={{ __html: preview.html }}
          />
        ) : preview.text ? (
          // A box that scrolls is reached by keyboard
          <div className="mt-2 max-h-64 overflow-auto whitespace-pre-line wrap-anywhere" tabIndex={0}>
            {preview.text}
          </div>
        ) : null}
        {preview.facts.length ? (
          <dl className="mt-2 grid grid-cols-[8rem_1fr] gap-x-2 border-t border-base-300 pt-2 text-[12px]">
            {preview.facts.map(([label, value]) => (
              <div key={label} className="contents">
                <dt className="quiet">{label}</dt>
                <dd className="line-clamp-2 wrap-anywhere">{value}</dd>
              </div>
            ))}
          </dl>
        ) : null}
        {preview.tags.length ? (
          <p className="quiet mt-2 text-[12px]">
            {preview.tags.map((tag) => (preview.hashtags ? `#${tag}` : tag)).join(preview.hashtags ? ' ' : ' · ')}
          </p>
        ) : null}
      </article>
    </section>
  );
}

/** A photo as it will be sent: filled up to the shape that is wanted there. */
function Framed({ hash, ratio, className }: { hash: string; ratio: number | null; className: string }) {
  return (
    <span
      className={`block overflow-hidden rounded bg-base-200 ${className}`}
      style={{ aspectRatio: ratio ?? '4 / 3' }}
      title={ratio === null ? undefined : 'Filled up to the shape that is wanted there'}
    >
      <img src={photoUrl(hash, 'view')} alt="" className="h-full w-full object-contain" loading="lazy" />
    </span>
  );
}
