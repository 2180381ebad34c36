import { createHash } from 'node:crypto';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { type ClipPlan, clipMove, clipWords, framesEach, moveFilter } from '../core/photo/clip';
import { readDerivative } from './derivatives';
import { ffmpeg, needFfmpeg } from './ffmpeg';
import { photoStore } from './store';

export const clipMime = 'video/mp4';
/** What a clip is wide and high, in pixels. */
export const clipFrame = { width: 1_920, height: 1_080 };
/** Moved over in a picture half as large again, so that slow moves do not jump from pixel to pixel. */
const workFrame = { width: 2_880, height: 1_620 };
/** What stands beside a photo of another shape: itself, enlarged and blurred, made small as nobody sees more of it. */
const besideWidth = 240;
const besideBlur = 8;

/** The hash of the clip that a plan makes: known before the clip is there. */
export const clipHash = (plan: ClipPlan): string => createHash('sha256').update(clipWords(plan)).digest('hex');

const planKey = (hash: string) => `${hash}.plan`;
const filmKey = (hash: string) => `${hash}.film`;

/** Keeps how a clip is made; it is made where it is wanted. */
export async function keepClip(hash: string, plan: ClipPlan): Promise<void> {
  if (!(await photoStore.has(planKey(hash)))) await photoStore.write(planKey(hash), Buffer.from(JSON.stringify(plan)));
}

/** A photo in the frame, whole; beside it what it is itself, enlarged and blurred. */
async function inFrame(hash: string): Promise<Buffer> {
  const picture = await readDerivative(hash, 'market');
  const beside = await sharp(picture)
    .resize(besideWidth, Math.round((besideWidth * clipFrame.height) / clipFrame.width), { fit: 'cover' })
    .blur(besideBlur)
    .toBuffer();
  const whole = await sharp(picture).resize(workFrame.width, workFrame.height, { fit: 'inside' }).toBuffer();
  return sharp(beside)
    .resize(workFrame.width, workFrame.height, { fit: 'fill', kernel: 'cubic' })
    .composite([{ input: whole }])
    .jpeg({ quality: 92 })
    .toBuffer();
}

/** Makes the film of a plan: each photo with a slow move, cuts between them, H.264 as MP4 that begins to play at once. */
async function make({ photos, seconds }: ClipPlan): Promise<Buffer> {
  await needFfmpeg();
  const folder = await mkdtemp(join(tmpdir(), 'netting-clip-'));
  try {
    const count = framesEach(photos.length, seconds);
    const files: string[] = [];
    for (const [at, photo] of photos.entries()) {
      const file = join(folder, `${at}.jpg`);
      await writeFile(file, await inFrame(photo));
      files.push(file);
    }
    const moves = files.map((_, at) => `[${at}:v]${moveFilter(clipMove(at), count, clipFrame)},setsar=1[m${at}]`);
    const all = files.map((_, at) => `[m${at}]`).join('');
    const out = join(folder, 'clip.mp4');
    await ffmpeg([
      ...files.flatMap((file) => ['-i', file]),
      '-filter_complex',
      `${moves.join(';')};${all}concat=n=${files.length}:v=1:a=0,format=yuv420p[out]`,
      '-map',
      '[out]',
      '-c:v',
      'libx264',
      '-preset',
      'veryfast',
      '-crf',
      '21',
      '-threads',
      '2',
      '-fflags',
      '+bitexact',
      '-flags:v',
      '+bitexact',
      '-map_metadata',
      '-1',
      '-movflags',
      '+faststart',
      out,
    ]);
    return await readFile(out);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

const making = new Map<string, Promise<void>>();

/** Makes a clip that is not there yet; two who want it at once wait for the one film. */
export async function makeClip(hash: string): Promise<void> {
  if (await photoStore.has(filmKey(hash))) return;
  const known = making.get(hash);
  if (known) return known;
  const work = (async () => {
    const plan = JSON.parse((await photoStore.read(planKey(hash))).toString()) as ClipPlan; // written by `keepClip`
    await photoStore.write(filmKey(hash), await make(plan));
  })().finally(() => making.delete(hash));
  making.set(hash, work);
  return work;
}

export const hasClip = (hash: string): Promise<boolean> => photoStore.has(filmKey(hash));

/** A clip's bytes; made when it is not there yet. */
export async function readClip(hash: string): Promise<Buffer> {
  await makeClip(hash);
  return photoStore.read(filmKey(hash));
}

/**
 * Makes clips one after the other. One that cannot be made now is made when it is looked at or sent, and says then why.
 * @param alive told before each: a clip takes some seconds
 */
export async function makeClips(hashes: readonly string[], alive: () => Promise<void>): Promise<void> {
  for (const hash of hashes) {
    await alive();
    await makeClip(hash).catch(() => undefined);
  }
}
