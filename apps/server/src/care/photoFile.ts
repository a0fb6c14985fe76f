import { createHash } from 'node:crypto';
import fs from 'node:fs/promises';
import path from 'node:path';
import sharp, { type Metadata, type Sharp } from 'sharp';
import type { Asker } from '../kernel/heavy';
import { LIMITS } from '../kernel/limits';
import { Problem } from '../kernel/problem';
import { Turns } from '../kernel/turns';

/** Longest side of a kept photo and of its small one, pixels. */
const FULL = 1600;
const SMALL = 320;
/** Decoding takes one thread, and keeps nothing of the picture before. */
sharp.concurrency(1);
sharp.cache(false);
const turns = new Turns(LIMITS.photos);
const TAKEN = new Set(['jpeg', 'png', 'webp']);
const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;

export type PhotoSize = 'small' | 'full';

interface KeptPhoto {
  width: number;
  height: number;
  bytes: number;
  sha256: string;
}

/** Where a photo lies. Its name is made of its id alone, and only when that is one: no way out of the folder. */
export function photoPath(folder: string, id: string, size: PhotoSize): string {
  if (!UUID.test(id)) throw new Error('photoPath needs the id of a photo');
  return path.join(folder, size === 'full' ? `${id}.jpg` : `${id}-small.jpg`);
}

/**
 * Makes a photo fit to keep: what it is is seen by its content, it is turned as the camera was held, made small, and
 * written anew as JPEG, which leaves behind whatever else the file carried (place, comments, scripts).
 * One photo is read at a time, in its sender's turn.
 * @throws Problem no photo of a known type, damaged, too many pixels, or too long to read; 429 too many of theirs wait
 */
export function keepPhoto(folder: string, id: string, upload: Buffer, { who, signal }: Asker): Promise<KeptPhoto> {
  if (upload.length === 0) throw new Problem(415, 'no-photo', 'This photo is empty. Take it again.');
  return turns.run(who, () => keepNow(folder, id, upload), signal);
}

async function keepNow(folder: string, id: string, upload: Buffer): Promise<KeptPhoto> {
  const image = sharp(upload, { limitInputPixels: LIMITS.photoPixels, failOn: 'error', animated: false });
  const refuse = (message: string, cause?: unknown) => Object.assign(new Problem(415, 'no-photo', message), { cause });
  let seen: Metadata;
  try {
    seen = await image.metadata();
  } catch (cause) {
    throw refuse('This is no photo that can be read. Take JPEG, PNG or WebP.', cause);
  }
  if (!TAKEN.has(seen.format)) throw refuse('Photos are taken as JPEG, PNG or WebP; this file is something else.');
  // What comes in passes lies in memory as a whole, several times over, before a line of it can be made small.
  const most = seen.isProgressive
    ? LIMITS.photoPixelsInPasses
    : seen.format === 'webp'
      ? LIMITS.photoPixelsWhole
      : Infinity;
  if (seen.width * seen.height > most)
    throw refuse('This photo has too many pixels for its kind of file. Send it smaller, or as an ordinary JPEG.');
  const shrink = (from: Sharp, side: number) =>
    from
      .timeout({ seconds: LIMITS.photoSeconds })
      .resize({ width: side, height: side, fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#ffffff' })
      .jpeg({ quality: 82 })
      .toBuffer({ resolveWithObject: true });
  try {
    const full = await shrink(image.rotate(), FULL);
    const small = await shrink(sharp(full.data), SMALL);
    await fs.mkdir(folder, { recursive: true });
    await place(photoPath(folder, id, 'small'), small.data);
    await place(photoPath(folder, id, 'full'), full.data);
    return {
      width: full.info.width,
      height: full.info.height,
      bytes: full.data.length,
      sha256: createHash('sha256').update(full.data).digest('hex'),
    };
  } catch (cause) {
    if (cause instanceof Error && 'code' in cause) throw cause;
    throw refuse('This photo is damaged or has too many pixels. Take it again, smaller.', cause);
  }
}

/** Takes the files of a photo away again that was not written down. */
export async function dropPhoto(folder: string, id: string): Promise<void> {
  for (const size of ['small', 'full'] as const) await fs.rm(photoPath(folder, id, size), { force: true });
}

/** Writes a file whole or not at all, not executable. */
async function place(file: string, data: Buffer): Promise<void> {
  const part = `${file}.part`;
  await fs.writeFile(part, data, { mode: 0o640 });
  await fs.rename(part, file);
}
