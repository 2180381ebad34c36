'use client';

import { type PointerEvent, useRef, useState } from 'react';
import { type Area, type Picture, type Placing, placeOn, placingOf } from '@/core/artwork/place';
import { ProductView } from './product-view';

type Props = {
  product: string;
  area: Area;
  ground: string;
  background: string | null;
  picture: Picture;
  placing: Placing;
  address: string;
  title: string;
  place: (placing: Placing) => void;
};

/** So near to a guide it is drawn to it, as a share of what is free. */
const snap = 0.02;
const guides = [0, 0.5, 1];
const round = (value: number) => Math.round(value * 1_000) / 1_000;
const within = (value: number) => Math.min(1, Math.max(0, value));

/** The nearest guide to a share, where one is near. */
const guideAt = (value: number): number | null => guides.find((one) => Math.abs(one - value) < snap) ?? null;

/** A product on which the picture is moved with the mouse, drawn to its middle and edges; its corner changes its size. */
export function PlacingStage({ area, picture, placing, place, ...view }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const [drag, setDrag] = useState<{ from: DOMPoint; start: Placing; how: 'move' | 'size' } | null>(null);
  const placed = placeOn(area, picture, placing);
  const room = { width: area.widthMm - 2 * area.safeMm, height: area.heightMm - 2 * area.safeMm };
  const pointOf = (event: PointerEvent): DOMPoint => {
    const matrix = svg.current?.getScreenCTM()?.inverse();
    return new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
  };
  const begin = (how: 'move' | 'size') => (event: PointerEvent<SVGElement>) => {
    event.preventDefault();
    event.currentTarget.setPointerCapture(event.pointerId);
    setDrag({ from: pointOf(event), start: placing, how });
  };
  const move = (event: PointerEvent<SVGElement>) => {
    if (!drag) return;
    const at = pointOf(event);
    if (drag.how === 'move') {
      const x = within(drag.start.x + (at.x - drag.from.x) / room.width);
      const y = within(drag.start.y + (at.y - drag.from.y) / room.height);
      place({ ...drag.start, x: guideAt(x) ?? round(x), y: guideAt(y) ?? round(y) });
      return;
    }
    const before = placeOn(area, picture, drag.start);
    const middle = { x: before.x + before.width / 2, y: before.y + before.height / 2 };
    const far = (point: DOMPoint) => Math.hypot(point.x - middle.x, point.y - middle.y);
    const times = far(at) / Math.max(1, far(drag.from));
    const scale = Math.min(2, Math.max(0.01, drag.start.scale * times));
    // About its middle, which stays where it is also by the eye.
    const next = placingOf(
      area,
      picture,
      {
        ...before,
        x: middle.x - (before.width * scale) / drag.start.scale / 2,
        y: middle.y - (before.height * scale) / drag.start.scale / 2,
        width: (before.width * scale) / drag.start.scale,
        height: (before.height * scale) / drag.start.scale,
      },
      drag.start.isOptical,
    );
    place({ ...next, x: round(within(next.x)), y: round(within(next.y)), scale: round(next.scale) });
  };
  const end = () => setDrag(null);
  const isOn = (axis: 'x' | 'y') => drag?.how === 'move' && guides.includes(placing[axis]);
  const handle = Math.max(area.widthMm, area.heightMm) / 40;
  return (
    <ProductView {...view} area={area} picture={picture} placing={placing} hasEdges svg={svg} className="h-full w-full">
      <g
        transform={`rotate(${placed.degrees} ${placed.x + placed.width / 2} ${placed.y + placed.height / 2})`}
        onPointerMove={move}
        onPointerUp={end}
        onPointerCancel={end}
      >
        <rect
          data-testid="placed"
          x={placed.x}
          y={placed.y}
          width={placed.width}
          height={placed.height}
          fill="transparent"
          stroke="#2f5f7a"
          vectorEffect="non-scaling-stroke"
          className="cursor-move touch-none"
          onPointerDown={begin('move')}
        />
        <rect
          data-testid="corner"
          x={placed.x + placed.width - handle / 2}
          y={placed.y + placed.height - handle / 2}
          width={handle}
          height={handle}
          fill="#ffffff"
          stroke="#2f5f7a"
          vectorEffect="non-scaling-stroke"
          className="cursor-nwse-resize touch-none"
          onPointerDown={begin('size')}
        />
      </g>
      {(['x', 'y'] as const).filter(isOn).map((axis) => (
        <line
          key={axis}
          data-testid="guide"
          {...guideLine(axis, area, placing)}
          stroke="#b03a62"
          vectorEffect="non-scaling-stroke"
        />
      ))}
    </ProductView>
  );
}

/** The line on which the picture's middle stands, across the whole area. */
function guideLine(axis: 'x' | 'y', { widthMm, heightMm, safeMm }: Area, placing: Placing) {
  if (axis === 'x') {
    const x = safeMm + placing.x * (widthMm - 2 * safeMm);
    return { x1: x, x2: x, y1: 0, y2: heightMm };
  }
  const y = safeMm + placing.y * (heightMm - 2 * safeMm);
  return { x1: 0, x2: widthMm, y1: y, y2: y };
}
