// Tablets make pictures of 48 million points; a record of a parcel needs a tenth of that.

/** The longer side of what is sent, in points. */
const LONGEST = 3000;
const QUALITY = 0.86;
/** A JPEG that is no larger goes as it is. */
const SMALL_BYTES = 2 << 20;

/** Returns a picture as it is sent; what the browser can't read goes as it is, and the server says why it does not take it. */
export async function scaled(file: Blob): Promise<Blob> {
  const picture = await createImageBitmap(file).catch(() => undefined);
  if (!picture) return file;
  try {
    const by = Math.min(1, LONGEST / Math.max(picture.width, picture.height));
    if (by === 1 && file.type === 'image/jpeg' && file.size <= SMALL_BYTES) return file;
    const canvas = document.createElement('canvas');
    canvas.width = Math.round(picture.width * by);
    canvas.height = Math.round(picture.height * by);
    canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
    const made = await new Promise<Blob | null>((seen) => {
      canvas.toBlob(seen, 'image/jpeg', QUALITY);
    });
    return made ?? file;
  } finally {
    picture.close();
  }
}
