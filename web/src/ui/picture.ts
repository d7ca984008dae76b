/** Pixels a millimetre of a picture that is kept: about 300 an inch. */
export const fine = 12;
const mostPx = 8000;

/** png paints a picture at its size in pixels, less closely where it would be too large for one. */
export async function png(svg: string): Promise<Blob> {
  const url = URL.createObjectURL(new Blob([svg], { type: "image/svg+xml" }));
  try {
    const img = new Image();
    img.src = url;
    await img.decode();
    // Its size is told in millimetres, 96 pixels an inch.
    const mm = 25.4 / 96;
    const k = Math.min(fine * mm, mostPx / Math.max(img.naturalWidth, img.naturalHeight));
    const canvas = document.createElement("canvas");
    canvas.width = Math.max(1, Math.round(img.naturalWidth * k));
    canvas.height = Math.max(1, Math.round(img.naturalHeight * k));
    canvas.getContext("2d")?.drawImage(img, 0, 0, canvas.width, canvas.height);
    return await new Promise((done, fail) =>
      canvas.toBlob((b) => (b ? done(b) : fail(new Error("the browser gave no picture"))), "image/png"),
    );
  } finally {
    URL.revokeObjectURL(url);
  }
}

/** download keeps a file under a name, and gives back what is said of it. */
export function download(blob: Blob, name: string, said: string): string {
  const url = URL.createObjectURL(blob);
  const a = document.createElement("a");
  a.href = url;
  a.download = name;
  a.click();
  setTimeout(() => URL.revokeObjectURL(url), 1000);
  return said;
}
