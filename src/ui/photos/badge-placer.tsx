import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react';
import { type Layer, type LayerPlace, layerBox, placeAt } from '@/core/photo/layer';
import { badgeUrl } from './addresses';

type Props = {
  /** The picture without the badge, and its sides. */
  picture: string;
  width: number;
  height: number;
  layer: Layer;
  place: (place: LayerPlace) => void;
  /** Longest side on the screen, in pixels. */
  side?: number;
};

const steps: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

const words: Record<LayerPlace['anchor'], string> = {
  'top-left': 'the top left corner',
  top: 'the upper edge',
  'top-right': 'the top right corner',
  left: 'the left edge',
  middle: 'the middle',
  right: 'the right edge',
  'bottom-left': 'the bottom left corner',
  bottom: 'the lower edge',
  'bottom-right': 'the bottom right corner',
};

/** A badge on a picture: dragged to its place, or moved by the arrow keys; made larger and smaller. */
export function BadgePlacer({ picture, width, height, layer, place, side = 420 }: Props) {
  const scale = side / Math.max(width, height);
  const [grip, setGrip] = useState<{ x: number; y: number } | null>(null);
  const frame = useRef<HTMLDivElement>(null);
  const box = layerBox(layer, width, height);
  const { size } = layer.place;
  const moveTo = (x: number, y: number) => place(placeAt(layer.art, size, { x, y }, width, height));
  const at = (event: PointerEvent) => {
    const around = frame.current?.getBoundingClientRect();
    return { x: (event.clientX - (around?.left ?? 0)) / scale, y: (event.clientY - (around?.top ?? 0)) / scale };
  };
  const resize = (next: number) => place({ ...layer.place, size: Math.max(40, Math.min(1_600, Math.round(next))) });
  const onKeyDown = (event: KeyboardEvent) => {
    const step = steps[event.key];
    const by = (Math.min(width, height) / 100) * (event.shiftKey ? 5 : 1);
    if (step) moveTo(box.x + step[0] * by, box.y + step[1] * by);
    else if (event.key === '+') resize(size * 1.1);
    else if (event.key === '-') resize(size / 1.1);
    else return;
    event.preventDefault();
  };
  return (
    <div className="space-y-2">
      <div
        ref={frame}
        className="relative overflow-hidden rounded bg-base-200"
        style={{ width: width * scale, height: height * scale }}
      >
        <img src={picture} alt="" className="h-full w-full" draggable={false} />
        <button
          type="button"
          data-first
          aria-label="The badge: drag it, or move it with the arrow keys; plus and minus change its size"
          className={`absolute touch-none outline-offset-2 ${grip ? 'cursor-grabbing' : 'cursor-grab'}`}
          style={{ left: box.x * scale, top: box.y * scale, width: box.width * scale, height: box.height * scale }}
          onKeyDown={onKeyDown}
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            const { x, y } = at(event);
            setGrip({ x: x - box.x, y: y - box.y });
          }}
          onPointerMove={(event) => {
            if (!grip) return;
            const { x, y } = at(event);
            moveTo(x - grip.x, y - grip.y);
          }}
          onPointerUp={() => setGrip(null)}
          onPointerCancel={() => setGrip(null)}
        >
          <img src={badgeUrl(layer.art)} alt="" className="h-full w-full" draggable={false} />
        </button>
      </div>
      <label className="flex items-center gap-2 text-[13px]">
        Size
        <input
          type="range"
          className="range range-xs flex-1"
          min={40}
          max={1_000}
          step={5}
          value={Math.min(1_000, size)}
          onChange={(event) => resize(Number(event.target.value))}
        />
        <span className="figures w-12 text-right">{Math.round(size / 10)} %</span>
      </label>
      <p className="quiet text-[12px]">
        It goes by {words[layer.place.anchor]}, in proportion to the shorter side, whatever shape a picture has.
      </p>
    </div>
  );
}
