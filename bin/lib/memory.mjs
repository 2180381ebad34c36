import { totalmem } from 'node:os';

/** Bytes of memory that there are for us: of the machine, or as much as a container is let have. */
export const memoryHere = () => Math.min(totalmem(), process.constrainedMemory() || Number.POSITIVE_INFINITY);
