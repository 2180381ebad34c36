import { readPhotoReference } from '@/core/photo/reference';
import { photoUrl } from '@/ui/data/api';

/** Photos as they stand on a marketplace: in their order, each in the shape that it gets there. */
export function PhotoRow({
  references,
  label,
  most = 12,
}: {
  references: readonly string[];
  label: string;
  most?: number;
}) {
  return (
    <span
      className="flex flex-wrap items-center gap-0.5"
      role="img"
      aria-label={`${label}: ${references.length} in this order`}
    >
      {references.slice(0, most).map((reference, at) => {
        const { hash, shape } = readPhotoReference(reference);
        return (
          <img
            key={`${reference}-${at}`}
            src={photoUrl(hash, 'view')}
            alt=""
            loading="lazy"
            decoding="async"
            className="h-9 rounded bg-base-200 object-contain"
            style={shape ? { aspectRatio: `${shape[0]} / ${shape[1]}` } : undefined}
          />
        );
      })}
      {references.length > most ? <span className="quiet text-[11px]">+{references.length - most}</span> : null}
    </span>
  );
}
