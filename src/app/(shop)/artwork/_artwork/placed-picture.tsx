import {
  type Area,
  dotsPerInch,
  isOutside,
  largestGood,
  type Picture,
  type Placing,
  placeOn,
} from '@/core/artwork/place';

import type { Answer } from '@/http/interface';

/** Something that artwork is printed on at a marketplace. */
export type Product = Answer<'GET /artworks'>['products'][number];

/** Less than this is seen as steps from an arm's length. */
const leastDots = 150;

/** What is wrong with a picture at the size at which it is placed, in words; null where nothing is. */
export function placingFault(area: Area, picture: Picture, placing: Placing): string | null {
  const placed = placeOn(area, picture, placing);
  if (isOutside(area, placed)) return 'A part of it lies outside of what is printed on';
  const dots = dotsPerInch(picture, placed);
  return dots < leastDots
    ? `${Math.round(dots)} dots an inch: good up to ${Math.round(largestGood(picture, leastDots))} mm wide`
    : null;
}

type Props = {
  area: Area;
  ground: string;
  picture: Picture;
  placing: Placing;
  address: string;
  title: string;
};

/** A product's print area with the picture as it will stand there: our own drawing, on the ground's colour. */
export function PlacedPicture({ area, ground, picture, placing, address, title }: Props) {
  const { x, y, width, height, degrees } = placeOn(area, picture, placing);
  const { box } = picture.visible;
  // The whole file, of which the visible part lies where it is placed.
  const whole = { width: width / box.width, height: height / box.height };
  const safe = area.safeMm;
  return (
    <svg
      viewBox={`0 0 ${area.widthMm} ${area.heightMm}`}
      className="max-h-full max-w-full"
      role="img"
      aria-label={title}
    >
      <rect width={area.widthMm} height={area.heightMm} fill={ground} />
      <image
        href={address}
        x={x - box.x * whole.width}
        y={y - box.y * whole.height}
        width={whole.width}
        height={whole.height}
        preserveAspectRatio="none"
        transform={`rotate(${degrees} ${x + width / 2} ${y + height / 2})`}
      />
      {safe > 0 ? (
        <rect
          x={safe}
          y={safe}
          width={area.widthMm - 2 * safe}
          height={area.heightMm - 2 * safe}
          fill="none"
          stroke="currentColor"
          strokeOpacity={0.35}
          strokeDasharray="4 4"
          vectorEffect="non-scaling-stroke"
        />
      ) : null}
    </svg>
  );
}
