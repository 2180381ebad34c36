import type { Shipment } from './view';

const papers = [
  ['boxes', 'Box labels, 4 × 6 in'],
  ['contents', 'Contents labels'],
  ['list', 'Packing list'],
] as const;

/** What is printed for a shipment. */
export function Papers({ shipment }: { shipment: Shipment }) {
  return (
    <p className="flex flex-wrap items-center gap-2">
      <span className="quiet">To be printed:</span>
      {papers.map(([of, label]) => (
        <a
          key={of}
          className="btn btn-xs"
          href={`/api/v1/shipments/${shipment.id}/papers?of=${of}`}
          target="_blank"
          rel="noreferrer"
        >
          {label}
        </a>
      ))}
      {shipment.state === 'open' ? (
        <span className="quiet text-[12px]">with codes of your own until they know the boxes</span>
      ) : null}
    </p>
  );
}
