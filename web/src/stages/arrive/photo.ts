// A photo as the shop keeps it: drawn anew in the browser, so that it is no larger than asked and carries nothing but the picture.

/** Longest side, pixels. */
export const SIDE = 1280;
/** Largest file, bytes: under what the server takes. */
export const BYTES = 450_000;

/** Size of a picture once its longer side is no more than `side`. */
export function fitted(width: number, height: number, side = SIDE): { width: number; height: number } {
  const k = Math.min(1, side / Math.max(width, height));
  return { width: Math.max(1, Math.round(width * k)), height: Math.max(1, Math.round(height * k)) };
}

const base64 = (b: Blob): Promise<string> =>
  new Promise((done, fail) => {
    const r = new FileReader();
    r.onload = () => done(String(r.result).replace(/^data:[^,]*,/, ''));
    r.onerror = () => fail(new Error('The photo could not be read.'));
    r.readAsDataURL(b);
  });

/** A file from the camera as JPEG in base 64. Refused in words when it is no picture. */
export async function asKept(file: File): Promise<string> {
  const picture = await createImageBitmap(file).catch(() => {
    throw new Error(`${file.name} is no picture this browser can read: a photo as JPEG or PNG.`);
  });
  // Smaller and coarser until it is no larger than asked.
  for (const [side, quality] of [
    [SIDE, 0.82],
    [SIDE, 0.65],
    [960, 0.65],
    [640, 0.6],
  ] as const) {
    const size = fitted(picture.width, picture.height, side);
    const canvas = document.createElement('canvas');
    Object.assign(canvas, size);
    canvas.getContext('2d')?.drawImage(picture, 0, 0, size.width, size.height);
    const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', quality));
    if (blob && blob.size <= BYTES) return base64(blob);
  }
  throw new Error('The photo stays too large. Take it again from nearer.');
}
