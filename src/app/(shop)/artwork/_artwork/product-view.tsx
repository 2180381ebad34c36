import { type ReactNode, type Ref, useId } from 'react';
import { type Area, isOutside, type Picture, type Placing, placeOn } from '@/core/artwork/place';
import { Body, drawingOf, frameOf, Shade } from './drawings';

type Props = {
  product: string;
  area: Area;
  ground: string;
  /** What is printed under the picture; null for nothing. */
  background?: string | null;
  picture: Picture;
  placing: Placing;
  address: string;
  title: string;
  /** The edge of what is kept free is shown. */
  hasEdges?: boolean;
  /** What is drawn over it, in millimetres of the area. */
  children?: ReactNode;
  svg?: Ref<SVGSVGElement>;
  className?: string;
};

/** A product with the picture as it will stand there: our own plain drawing, in the colour of the ground. */
export function ProductView(props: Props) {
  const { product, area, ground, background, picture, placing, address, title, hasEdges, children, svg, className } =
    props;
  const clip = useId();
  const drawing = drawingOf(product);
  const frame = frameOf(drawing, area);
  const placed = placeOn(area, picture, placing);
  const { x, y, width, height, degrees } = placed;
  // What lies outside is not printed.
  const isCut = isOutside(area, placed);
  const { box } = picture.visible;
  // The whole file, of which the visible part lies where it is placed.
  const whole = { width: width / box.width, height: height / box.height };
  const { widthMm, heightMm, safeMm } = area;
  return (
    <svg
      ref={svg}
      viewBox={`${frame.x} ${frame.y} ${frame.width} ${frame.height}`}
      className={className ?? 'max-h-full max-w-full'}
      role="img"
      aria-label={title}
    >
      {isCut ? (
        <clipPath id={clip}>
          <rect width={widthMm} height={heightMm} />
        </clipPath>
      ) : null}
      <Body drawing={drawing} area={area} ground={ground} />
      <g clipPath={isCut ? `url(#${clip})` : undefined}>
        {background ? <rect width={widthMm} height={heightMm} fill={background} /> : null}
        <image
          href={address}
          x={x - box.x * whole.width}
          y={y - box.y * whole.height}
          width={whole.width}
          height={whole.height}
          preserveAspectRatio="none"
          transform={`rotate(${degrees} ${x + width / 2} ${y + height / 2})`}
        />
      </g>
      <Shade drawing={drawing} area={area} />
      {hasEdges ? (
        <g fill="none" stroke="#b03a62" strokeDasharray="4 4" vectorEffect="non-scaling-stroke">
          <rect width={widthMm} height={heightMm} vectorEffect="non-scaling-stroke" />
          {safeMm > 0 ? (
            <rect
              x={safeMm}
              y={safeMm}
              width={widthMm - 2 * safeMm}
              height={heightMm - 2 * safeMm}
              vectorEffect="non-scaling-stroke"
            />
          ) : null}
        </g>
      ) : null}
      {children}
    </svg>
  );
}
