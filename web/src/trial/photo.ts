const LONGEST = 1280; // px of the longer side
const QUALITY = 0.72;

/** A picture drawn anew and small: what the camera wrote beside it (place, owner) does not come along. */
export async function madeSmall(file: File): Promise<string> {
  const picture = await createImageBitmap(file);
  const scale = Math.min(1, LONGEST / Math.max(picture.width, picture.height));
  const canvas = document.createElement("canvas");
  canvas.width = Math.round(picture.width * scale);
  canvas.height = Math.round(picture.height * scale);
  canvas.getContext("2d")!.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  return canvas.toDataURL("image/jpeg", QUALITY).split(",")[1] ?? "";
}
