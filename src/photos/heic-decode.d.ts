declare module 'heic-decode' {
  /** Decodes the first picture of a HEIC file, turned upright, as RGBA. */
  export default function decode(input: {
    buffer: Uint8Array;
  }): Promise<{ width: number; height: number; data: Uint8ClampedArray }>;
}
