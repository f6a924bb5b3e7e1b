/** As large as a camera's picture is, pixels: what is larger is kept in vain. */
const MOST = { width: 960, height: 720 };

/** A picture as large as it is needed, as data of a JPEG. Fails where the browser cannot read it. */
export async function shrunk(file: Blob): Promise<string> {
  const image = await createImageBitmap(file);
  const scale = Math.min(1, Math.max(MOST.width / image.width, MOST.height / image.height));
  const canvas = document.createElement('canvas');
  Object.assign(canvas, {
    width: Math.max(1, Math.round(image.width * scale)),
    height: Math.max(1, Math.round(image.height * scale)),
  });
  canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
  image.close();
  return canvas.toDataURL('image/jpeg', 0.8);
}
