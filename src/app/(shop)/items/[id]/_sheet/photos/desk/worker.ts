import { cleanBackdrop } from '@/core/photo/backdrop';
import { type PhotoRecipe, turnedSize } from '@/core/photo/recipe';
import { applyTone, proposeBalance } from '@/core/photo/tone';
import type { DeskAnswer, DeskRequest } from './messages';

function context(width: number, height: number): OffscreenCanvasRenderingContext2D {
  const drawing = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true });
  if (!drawing) throw new Error('This browser cannot draw in the background');
  return drawing;
}

/** Turned and cropped, at most `side` pixels long. */
function turned(
  bitmap: ImageBitmap,
  { turn, crop }: PhotoRecipe,
  side: number | null,
): OffscreenCanvasRenderingContext2D {
  const box = turnedSize(bitmap.width, bitmap.height, turn);
  const part = crop ?? { x: 0, y: 0, width: 1, height: 1 };
  const width = Math.max(1, Math.round(box.width * part.width));
  const height = Math.max(1, Math.round(box.height * part.height));
  const scale = side === null ? 1 : Math.min(1, side / Math.max(width, height));
  const drawing = context(Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale)));
  drawing.fillStyle = '#ffffff';
  drawing.fillRect(0, 0, drawing.canvas.width, drawing.canvas.height);
  drawing.imageSmoothingQuality = 'high';
  drawing.scale(scale, scale);
  drawing.translate(-box.width * part.x, -box.height * part.y);
  drawing.translate(box.width / 2, box.height / 2);
  drawing.rotate((turn * Math.PI) / 180);
  drawing.drawImage(bitmap, -bitmap.width / 2, -bitmap.height / 2);
  drawing.setTransform(1, 0, 0, 1, 0, 0);
  return drawing;
}

function drawBadge(
  drawing: OffscreenCanvasRenderingContext2D,
  { text, corner }: NonNullable<PhotoRecipe['badge']>,
): void {
  const { width, height } = drawing.canvas;
  const size = Math.round(Math.min(width, height) * 0.055);
  const margin = Math.round(size * 0.7);
  drawing.font = `600 ${size}px system-ui, sans-serif`;
  const wide = Math.min(width - 2 * margin, drawing.measureText(text).width + size * 1.2);
  const high = size * 1.8;
  const x = corner.endsWith('left') ? margin : width - margin - wide;
  const y = corner.startsWith('top') ? margin : height - margin - high;
  drawing.fillStyle = '#22292c';
  drawing.beginPath();
  drawing.roundRect(x, y, wide, high, size * 0.35);
  drawing.fill();
  drawing.fillStyle = '#ffffff';
  drawing.textAlign = 'center';
  drawing.textBaseline = 'middle';
  drawing.fillText(text, x + wide / 2, y + high / 2, wide - size * 0.6);
}

async function make({ picture, recipe, side }: DeskRequest) {
  const bitmap = await createImageBitmap(picture, { imageOrientation: 'from-image' });
  const drawing = turned(bitmap, recipe, side);
  bitmap.close();
  const { width, height } = drawing.canvas;
  const pixels = drawing.getImageData(0, 0, width, height);
  const balance = proposeBalance(pixels.data);
  applyTone(pixels.data, recipe);
  if (recipe.backdrop) cleanBackdrop(pixels.data, width, height, recipe.backdrop);
  drawing.putImageData(pixels, 0, 0);
  if (recipe.badge) drawBadge(drawing, recipe.badge);
  return { result: await drawing.canvas.convertToBlob({ type: 'image/jpeg', quality: 0.92 }), width, height, balance };
}

const answer = (message: DeskAnswer) => self.postMessage(message);

self.onmessage = async ({ data }: MessageEvent<DeskRequest>) => {
  try {
    answer({ id: data.id, ...(await make(data)) });
  } catch (error) {
    answer({ id: data.id, problem: error instanceof Error ? error.message : 'The picture could not be made' });
  }
};
