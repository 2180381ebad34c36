import { useState } from 'react';
import { photoUrl } from '@/ui/data/api';
import { useModels } from './models';

type Props = { label: string; value: string; change: (order: string) => void };

/** An order, made by moving the photos of one item: by dragging, or with the arrow keys. */
export function OrderInput({ label, value, change }: Props) {
  const { models } = useModels();
  const [dragged, setDragged] = useState<number | null>(null);
  const [at, setAt] = useState(0);
  const model = models[at];
  const said = value
    .split(/[\s,]+/)
    .map(Number)
    .filter((one) => one > 0);
  const count = model?.photos.length ?? 0;
  const places = [...new Set(said)].filter((one) => one <= count);
  const order = [
    ...places,
    ...Array.from({ length: count }, (_, index) => index + 1).filter((one) => !places.includes(one)),
  ];
  const move = (from: number, to: number) => {
    const one = order[from];
    if (one === undefined || to < 0 || to >= order.length) return;
    const next = order.filter((_, index) => index !== from);
    next.splice(to, 0, one);
    change(next.join(', '));
    requestAnimationFrame(() => document.getElementById(`order-${to}`)?.focus());
  };
  return (
    <div className="col-span-2 space-y-1">
      <label className="flex flex-col gap-0.5">
        <span className="quiet text-[12px]">{label}</span>
        <input
          data-step-input
          className="input input-sm figures w-full"
          placeholder="3, 1, 2"
          value={value}
          onChange={(event) => change(event.target.value)}
        />
      </label>
      {model ? (
        <>
          <ol className="flex flex-wrap gap-1" aria-label="Photos of one item, to be put in order">
            {order.map((place, index) => (
              <li key={place}>
                <button
                  type="button"
                  id={`order-${index}`}
                  draggable
                  aria-label={`Photo that stood at ${place}, now at ${index + 1}: move with the arrow keys`}
                  className={`relative block rounded border-2 ${dragged === index ? 'border-primary' : 'border-transparent'}`}
                  onKeyDown={(event) => {
                    if (event.key === 'ArrowLeft') move(index, index - 1);
                    if (event.key === 'ArrowRight') move(index, index + 1);
                  }}
                  onDragStart={() => setDragged(index)}
                  onDragOver={(event) => event.preventDefault()}
                  onDrop={(event) => {
                    event.preventDefault();
                    if (dragged !== null) move(dragged, index);
                    setDragged(null);
                  }}
                  onDragEnd={() => setDragged(null)}
                >
                  <img
                    src={photoUrl(model.photos[place - 1]?.hash ?? '', 'thumb')}
                    alt=""
                    className="h-11 w-11 rounded object-cover"
                    draggable={false}
                  />
                  <span className="figures absolute bottom-0 left-0 rounded bg-base-100/90 px-1 text-[10px]">
                    {place}
                  </span>
                </button>
              </li>
            ))}
          </ol>
          <button type="button" className="btn btn-ghost btn-xs" onClick={() => setAt((at + 1) % models.length)}>
            {model.sku}; try another item
          </button>
        </>
      ) : null}
    </div>
  );
}
