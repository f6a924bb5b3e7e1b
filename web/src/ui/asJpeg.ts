interface Size {
  width: number;
  height: number;
}

/** A picture as data of a JPEG, and how large it is, pixels. */
export interface Jpeg extends Size {
  data: string;
}

/** How much is kept of a picture, in turn, until it is short enough. */
const QUALITIES = [0.8, 0.65, 0.5];
const SMALLER = 0.75;

/**
 * A picture of a person's own as large as it is needed: `scale` says by how much of it, and `most` how long its data may be,
 * characters. Fails where the browser cannot read it.
 */
export async function asJpeg(
  file: Blob,
  { scale, most = Infinity }: { scale: (of: Size) => number; most?: number },
): Promise<Jpeg> {
  const image = await createImageBitmap(file);
  try {
    for (let by = Math.min(1, scale(image)); ; by *= SMALLER) {
      const canvas = drawn(image, by);
      for (const quality of QUALITIES) {
        const data = canvas.toDataURL('image/jpeg', quality);
        if (data.length <= most) return { data, width: canvas.width, height: canvas.height };
      }
    }
  } finally {
    image.close();
  }
}

/** What can be seen through is white in a JPEG, and not black. */
function drawn(image: ImageBitmap, by: number): HTMLCanvasElement {
  const canvas = document.createElement('canvas');
  const size = (n: number) => Math.max(1, Math.round(n * by));
  Object.assign(canvas, { width: size(image.width), height: size(image.height) });
  const pen = canvas.getContext('2d')!;
  pen.fillStyle = '#ffffff';
  pen.fillRect(0, 0, canvas.width, canvas.height);
  pen.drawImage(image, 0, 0, canvas.width, canvas.height);
  return canvas;
}

/** What the browser takes for a picture. */
export const PICTURES = 'image/jpeg,image/png,image/webp';
export const NO_PICTURE = 'This is no picture that the browser can read. Take a JPEG, PNG or WebP.';
