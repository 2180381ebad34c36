import type { Answer } from '@/http/interface';

/** Pages as they will be printed, in their proportions. */
export function DrawnPages({ preview }: { preview: Answer<'POST /labels/preview'> }) {
  return (
    <div className="flex flex-wrap justify-center gap-4">
      {preview.pages.map(({ widthMm, heightMm, drawn }, index) => (
        <svg
          // The pages have no other name than their order.
          key={index}
          role="img"
          aria-label={`Page ${index + 1}`}
          viewBox={`0 0 ${widthMm} ${heightMm}`}
          className="w-full border border-base-300 bg-white"
          style={{ maxWidth: `${Math.min(42, Math.max(14, widthMm / 2.6))}rem` }}
          fill="#000"
        >
          {drawn.map((one, at) =>
            one.is === 'path' ? (
              <path key={at} d={one.path} transform={`translate(${one.x} ${one.y})`} />
            ) : (
              <g key={at}>
                {one.bars.map((bar) => (
                  <rect key={`${bar.x}/${bar.y}`} x={bar.x} y={bar.y} width={bar.width} height={bar.height} />
                ))}
              </g>
            ),
          )}
        </svg>
      ))}
      {preview.pageCount > preview.pages.length ? (
        <p className="quiet w-full text-center">
          and {(preview.pageCount - preview.pages.length).toLocaleString('en')} more pages like these
        </p>
      ) : null}
    </div>
  );
}
