import { type ArtworkDetails, noDetails } from '../../core/artwork';
import { jpeg, png, tiff } from './containers';
import { readPacket, writePacket } from './packet';

const containers = [png, jpeg, tiff];

/** What a file says of itself; `broken` where it says something that cannot be read. */
export type ToldDetails = { details: ArtworkDetails; broken: boolean };

/** Reads what a picture says of itself, by open standards; nothing where it says nothing. */
export function readDetails(bytes: Buffer): ToldDetails {
  return readSidecar(containers.find((one) => one.fits(bytes))?.read(bytes) ?? null);
}

/** The same of a packet that stands in a file of its own, or in a drawing; null says nothing. */
export function readSidecar(packet: string | null): ToldDetails {
  if (packet === null) return { details: noDetails, broken: false };
  try {
    return { details: readPacket(packet), broken: false };
  } catch {
    return { details: noDetails, broken: true };
  }
}

/**
 * The same picture with these details in it; whatever else it says stays, and not one pixel changes.
 * @returns null where the file cannot hold them, or what it holds cannot be read and is not written over
 */
export function withDetails(bytes: Buffer, details: ArtworkDetails): Buffer | null {
  const container = containers.find((one) => one.fits(bytes));
  if (!container) return null;
  try {
    return container.write(bytes, writePacket(details, container.read(bytes)));
  } catch {
    return null;
  }
}

/** The same in a file of its own beside the picture. */
export const sidecar = (details: ArtworkDetails): string => writePacket(details, null);
