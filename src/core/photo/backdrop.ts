/**
 * Backdrop clean-up: from the edges inwards everything that is like the backdrop becomes white; what is not reached
 * from an edge stays, also when it has the backdrop's colour. Pixels are RGBA, eight bits each.
 */

/** The colour of the backdrop: the middle value, channel by channel, of the outermost pixels. */
export function backdropColour(pixels: Uint8ClampedArray, width: number, height: number): [number, number, number] {
  const counts = [new Uint32Array(256), new Uint32Array(256), new Uint32Array(256)];
  let total = 0;
  const count = (x: number, y: number) => {
    const at = (y * width + x) * 4;
    for (const [channel, histogram] of counts.entries()) {
      const value = pixels[at + channel] ?? 0;
      histogram[value] = (histogram[value] ?? 0) + 1;
    }
    total++;
  };
  for (let x = 0; x < width; x++) {
    count(x, 0);
    count(x, height - 1);
  }
  for (let y = 0; y < height; y++) {
    count(0, y);
    count(width - 1, y);
  }
  const middle = (histogram: Uint32Array) => {
    let seen = 0;
    for (let value = 0; value < 256; value++) {
      seen += histogram[value] ?? 0;
      if (seen * 2 >= total) return value;
    }
    return 255;
  };
  const [red, green, blue] = counts;
  return [middle(red as Uint32Array), middle(green as Uint32Array), middle(blue as Uint32Array)]; // three by construction
}

/**
 * Which pixels are backdrop: grown from the edges over neighbours that differ little from one another and not too much
 * from the backdrop's colour, so that a soft shadow on it is followed and the edge of the thing is not crossed.
 * @param reach 1 (only its very colour) to 100
 * @returns 1 for backdrop, 0 for the rest
 */
export function backdropMask(pixels: Uint8ClampedArray, width: number, height: number, reach: number): Uint8Array {
  const [red, green, blue] = backdropColour(pixels, width, height);
  const far = (reach * 2.2) ** 2 * 3;
  const step = (3 + reach * 0.25) ** 2 * 3;
  const mask = new Uint8Array(width * height);
  const queue = new Uint32Array(width * height);
  let length = 0;
  const difference = (at: number, r: number, g: number, b: number) => {
    const dr = (pixels[at] ?? 0) - r;
    const dg = (pixels[at + 1] ?? 0) - g;
    const db = (pixels[at + 2] ?? 0) - b;
    return dr * dr + dg * dg + db * db;
  };
  const reachPixel = (place: number, from: number) => {
    if (mask[place]) return;
    const at = place * 4;
    if (difference(at, red, green, blue) > far) return;
    if (from >= 0) {
      const other = from * 4;
      if (difference(at, pixels[other] ?? 0, pixels[other + 1] ?? 0, pixels[other + 2] ?? 0) > step) return;
    }
    mask[place] = 1;
    queue[length++] = place;
  };
  for (let x = 0; x < width; x++) {
    reachPixel(x, -1);
    reachPixel((height - 1) * width + x, -1);
  }
  for (let y = 0; y < height; y++) {
    reachPixel(y * width, -1);
    reachPixel(y * width + width - 1, -1);
  }
  for (let next = 0; next < length; next++) {
    const place = queue[next] ?? 0;
    const x = place % width;
    if (x > 0) reachPixel(place - 1, place);
    if (x < width - 1) reachPixel(place + 1, place);
    if (place >= width) reachPixel(place - width, place);
    if (place < width * (height - 1)) reachPixel(place + width, place);
  }
  return mask;
}

/** A running mean along one direction: soft borders at a cost that does not grow with their width. */
function blurLine(
  from: Float32Array,
  to: Float32Array,
  start: number,
  step: number,
  count: number,
  radius: number,
): void {
  let sum = 0;
  const value = (index: number) => from[start + Math.max(0, Math.min(count - 1, index)) * step] ?? 0;
  for (let index = -radius; index <= radius; index++) sum += value(index);
  for (let index = 0; index < count; index++) {
    to[start + index * step] = sum / (2 * radius + 1);
    sum += value(index + radius + 1) - value(index - radius);
  }
}

/** How much of each pixel is backdrop, 0 to 1, with a border as soft as `radius` pixels. */
export function softMask(mask: Uint8Array, width: number, height: number, radius: number): Float32Array {
  const whole = Float32Array.from(mask);
  const reach = Math.round(radius);
  if (reach < 1) return whole;
  const across = new Float32Array(whole.length);
  for (let y = 0; y < height; y++) blurLine(whole, across, y * width, 1, width, reach);
  for (let x = 0; x < width; x++) blurLine(across, whole, x, width, height, reach);
  return whole;
}

/** Makes the backdrop white, in place. @param softness width of the border in pixels of a picture of 1,000 */
export function cleanBackdrop(
  pixels: Uint8ClampedArray,
  width: number,
  height: number,
  { reach, softness }: { reach: number; softness: number },
): void {
  const mask = backdropMask(pixels, width, height, reach);
  const soft = softMask(mask, width, height, (softness * Math.max(width, height)) / 1_000);
  for (let place = 0; place < soft.length; place++) {
    const share = soft[place] ?? 0;
    if (share === 0) continue;
    const at = place * 4;
    for (let channel = 0; channel < 3; channel++) {
      const value = pixels[at + channel] ?? 0;
      pixels[at + channel] = Math.round(value + (255 - value) * share);
    }
  }
}
