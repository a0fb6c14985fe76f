import jsQR from 'jsqr';

/** Longest side in which a picture is searched for a code, pixels: larger is slower and finds no more. */
const LONGEST = 1200;

type Source = HTMLVideoElement | ImageBitmap;
const sizeOf = (source: Source) =>
  'videoWidth' in source
    ? { width: source.videoWidth, height: source.videoHeight }
    : { width: source.width, height: source.height };

/** The text of a code in a picture or a frame of the camera; null when there is none to be read. */
export function readCode(source: Source, canvas: HTMLCanvasElement): string | null {
  const { width, height } = sizeOf(source);
  const scale = Math.min(1, LONGEST / Math.max(width, height));
  canvas.width = Math.max(1, Math.round(width * scale));
  canvas.height = Math.max(1, Math.round(height * scale));
  const context = canvas.getContext('2d', { willReadFrequently: true });
  if (!context) return null;
  context.drawImage(source, 0, 0, canvas.width, canvas.height);
  const { data } = context.getImageData(0, 0, canvas.width, canvas.height);
  return jsQR(data, canvas.width, canvas.height)?.data ?? null;
}
