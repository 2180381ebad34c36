import { type KnotState, knotLabels } from '@/core/sync/state';

/** The shape tells the state, so that it reads without colour; the words stand beside it for those who hear the page. */
const shapes: Record<KnotState, React.ReactNode> = {
  none: <circle cx="8" cy="8" r="5" fill="none" stroke="currentColor" strokeWidth="1.4" opacity="0.55" />,
  draft: (
    <>
      <circle cx="8" cy="8" r="5" fill="none" stroke="currentColor" strokeWidth="1.6" />
      <path d="M8 3a5 5 0 0 0 0 10Z" fill="currentColor" />
    </>
  ),
  waiting: <circle cx="8" cy="8" r="5" fill="none" stroke="currentColor" strokeWidth="1.8" strokeDasharray="2.6 2" />,
  live: <circle cx="8" cy="8" r="5.4" fill="currentColor" />,
  changed: <path d="M8 8 12.6 4.2A6 6 0 1 0 12.6 11.8Z" fill="currentColor" />,
  conflict: <path d="M8 1.6 14.4 8 8 14.4 1.6 8Z" fill="currentColor" />,
  attention: <path d="M8 1.8 15 14H1Z" fill="var(--color-warning)" />,
  ended: (
    <>
      <circle cx="8" cy="8" r="5" fill="none" stroke="currentColor" strokeWidth="1.4" />
      <path d="M2.5 13.5 13.5 2.5" stroke="currentColor" strokeWidth="1.6" />
    </>
  ),
  sold: <path d="m8 1 2.1 4.6 5 .5-3.8 3.4 1.1 4.9L8 11.9l-4.4 2.5 1.1-4.9L.9 6.1l5-.5Z" fill="currentColor" />,
};

export function Knot({ state, where, size = 16 }: { state: KnotState; where?: string; size?: number }) {
  const label = where ? `${where}: ${knotLabels[state]}` : knotLabels[state];
  return (
    <svg width={size} height={size} viewBox="0 0 16 16" role="img" aria-label={label} className="inline-block shrink-0">
      <title>{label}</title>
      {shapes[state]}
    </svg>
  );
}
