import { z } from 'zod';
import type { Visible } from './visible';

/** An area that is printed on: millimetres, how many pixels it has, and what is kept free at its edge. */
export const areaSchema = z
  .object({
    widthMm: z.number().min(1).max(10_000),
    heightMm: z.number().min(1).max(10_000),
    widthPx: z.number().int().min(1).max(20_000),
    heightPx: z.number().int().min(1).max(20_000),
    safeMm: z.number().min(0).max(1_000).default(0),
    /** Printed beyond the edge and cut off. */
    bleedMm: z.number().min(0).max(100).default(0),
    /** The colours in which it is printed. */
    profile: z.enum(['srgb', 'p3']).default('srgb'),
  })
  .strict();
export type Area = z.output<typeof areaSchema>;

/**
 * Where the visible part of a picture stands: its middle as shares of what is free (0.5, 0.5 is the middle), how much of
 * the free area it takes at most, and how far it is turned clockwise.
 */
export const placingSchema = z
  .object({
    x: z.number().min(0).max(1).default(0.5),
    y: z.number().min(0).max(1).default(0.5),
    scale: z.number().min(0.01).max(2).default(0.9),
    degrees: z.number().min(-180).max(180).default(0),
    /** The eye's middle stands there, instead of the middle of the box. */
    isOptical: z.boolean().default(false),
  })
  .strict();
export type Placing = z.output<typeof placingSchema>;

/** A picture by its pixels and what is visible of it. */
export type Picture = { width: number; height: number; visible: Visible };

/** A rectangle in millimetres of the area, turned about its middle. */
export type Placed = { x: number; y: number; width: number; height: number; degrees: number };

const turned = (width: number, height: number, degrees: number): { width: number; height: number } => {
  const angle = (degrees * Math.PI) / 180;
  const [sin, cos] = [Math.abs(Math.sin(angle)), Math.abs(Math.cos(angle))];
  return { width: width * cos + height * sin, height: width * sin + height * cos };
};

const free = ({ widthMm, heightMm, safeMm }: Area) => ({
  x: safeMm,
  y: safeMm,
  width: Math.max(0.1, widthMm - 2 * safeMm),
  height: Math.max(0.1, heightMm - 2 * safeMm),
});

/** Where the visible part of a picture lies on an area, in millimetres; `width` and `height` before it is turned. */
export function placeOn(area: Area, picture: Picture, { x, y, scale, degrees, isOptical }: Placing): Placed {
  const room = free(area);
  const { box, centre } = picture.visible;
  const [wide, high] = [box.width * picture.width, box.height * picture.height];
  const outer = turned(wide, high, degrees);
  const factor = scale * Math.min(room.width / outer.width, room.height / outer.height);
  const [width, height] = [wide * factor, high * factor];
  const shift = isOptical
    ? {
        x: ((centre.x - box.x) / box.width - 0.5) * width,
        y: ((centre.y - box.y) / box.height - 0.5) * height,
      }
    : { x: 0, y: 0 };
  return {
    x: room.x + x * room.width - width / 2 - shift.x,
    y: room.y + y * room.height - height / 2 - shift.y,
    width,
    height,
    degrees,
  };
}

/** The way back: the placing that puts it just there. */
export function placingOf(area: Area, picture: Picture, placed: Placed, isOptical = false): Placing {
  const room = free(area);
  const { box, centre } = picture.visible;
  const [wide, high] = [box.width * picture.width, box.height * picture.height];
  const outer = turned(wide, high, placed.degrees);
  const factor = Math.min(room.width / outer.width, room.height / outer.height);
  const shift = isOptical
    ? {
        x: ((centre.x - box.x) / box.width - 0.5) * placed.width,
        y: ((centre.y - box.y) / box.height - 0.5) * placed.height,
      }
    : { x: 0, y: 0 };
  return {
    x: (placed.x + placed.width / 2 + shift.x - room.x) / room.width,
    y: (placed.y + placed.height / 2 + shift.y - room.y) / room.height,
    scale: placed.width / (wide * factor),
    degrees: placed.degrees,
    isOptical,
  };
}

/** Dots an inch that a picture has at the size at which it is placed. */
export const dotsPerInch = (picture: Picture, placed: Placed): number =>
  (picture.visible.box.width * picture.width * 25.4) / placed.width;

/** The largest width in millimetres at which it still has so many dots an inch. */
export const largestGood = (picture: Picture, least: number): number =>
  (picture.visible.box.width * picture.width * 25.4) / least;

/** Whether a part of it lies outside of the area. */
export function isOutside({ widthMm, heightMm }: Area, placed: Placed): boolean {
  const outer = turned(placed.width, placed.height, placed.degrees);
  const [middleX, middleY] = [placed.x + placed.width / 2, placed.y + placed.height / 2];
  const slack = 0.01;
  return (
    middleX - outer.width / 2 < -slack ||
    middleY - outer.height / 2 < -slack ||
    middleX + outer.width / 2 > widthMm + slack ||
    middleY + outer.height / 2 > heightMm + slack
  );
}
