/** A drawing from the reader's own disk, as a design keeps it: a picture, or one page of a PDF. */
import { MAX_PICTURE } from '@helb/core';
import workerUrl from 'pdfjs-dist/build/pdf.worker.min.mjs?url';

/** A file that cannot be kept; the message is a sentence. */
export class DrawingRefused extends Error {}

export interface ReadPicture {
  readonly picture: string;
  readonly width: number;
  readonly height: number;
  /** mm on the paper, where the file tells. */
  readonly pixel?: number;
}

export interface DrawingFile {
  readonly name: string;
  readonly pages: number;
  /** @param page from 1. @throws DrawingRefused */
  picture(page: number): Promise<ReadPicture>;
}

const MOST_BYTES = 64 * 1024 * 1024;
/** Pixels along the longer side: fine enough for an A2 to be read. */
const LONGEST = 2400;
const LEAST_LONGEST = 600;
const POINTS_A_MM = 72 / 25.4;

/** @throws DrawingRefused */
export async function openDrawing(file: File): Promise<DrawingFile> {
  if (file.size > MOST_BYTES) throw new DrawingRefused(`${file.name} is larger than 64 MB; save it smaller.`);
  if (/\.pdf$/i.test(file.name) || file.type === 'application/pdf') return openPdf(file);
  return { name: file.name, pages: 1, picture: () => ofPicture(file) };
}

async function ofPicture(file: File): Promise<ReadPicture> {
  let bitmap: ImageBitmap;
  try {
    bitmap = await createImageBitmap(file);
  } catch {
    throw new DrawingRefused(`${file.name} is no picture that can be read; use PNG, JPEG, WebP or PDF.`);
  }
  try {
    return await fitting(file.name, bitmap.width, bitmap.height, (canvas, context) => {
      context.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
      return Promise.resolve();
    });
  } finally {
    bitmap.close();
  }
}

async function openPdf(file: File): Promise<DrawingFile> {
  const pdfjs = await import('pdfjs-dist');
  pdfjs.GlobalWorkerOptions.workerSrc = workerUrl;
  const refused = new DrawingRefused(`${file.name} cannot be read as a PDF; save it once more, without a password.`);
  const document = await pdfjs
    .getDocument({ data: new Uint8Array(await file.arrayBuffer()), isEvalSupported: false })
    .promise.catch(() => Promise.reject(refused));
  return {
    name: file.name,
    pages: document.numPages,
    async picture(number) {
      const page = await document.getPage(number);
      const paper = page.getViewport({ scale: 1 });
      const read = await fitting(file.name, Math.ceil(paper.width * 4), Math.ceil(paper.height * 4), async (canvas) => {
        const viewport = page.getViewport({ scale: canvas.width / paper.width });
        await page.render({ canvas, viewport }).promise.catch(() => Promise.reject(refused));
      });
      return { ...read, pixel: paper.width / POINTS_A_MM / read.width };
    },
  };
}

/** Drawn as large as has room in a design. */
async function fitting(
  name: string,
  width: number,
  height: number,
  draw: (canvas: HTMLCanvasElement, context: CanvasRenderingContext2D) => Promise<void>,
): Promise<ReadPicture> {
  for (let longest = Math.min(LONGEST, Math.max(width, height)); ; longest *= 0.75) {
    const by = Math.min(1, longest / Math.max(width, height));
    const canvas = document.createElement('canvas');
    canvas.width = Math.max(1, Math.round(width * by));
    canvas.height = Math.max(1, Math.round(height * by));
    const context = canvas.getContext('2d');
    if (!context) throw new DrawingRefused(`${name} is too large for this browser to draw; save it smaller.`);
    // What shines through is paper.
    context.fillStyle = '#ffffff';
    context.fillRect(0, 0, canvas.width, canvas.height);
    await draw(canvas, context);
    const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/webp', 0.8));
    const picture = blob && (await asDataUrl(blob));
    if (picture && picture.length <= MAX_PICTURE) return { picture, width: canvas.width, height: canvas.height };
    if (longest < LEAST_LONGEST) throw new DrawingRefused(`${name} is too large to go with a design; cut out what you need.`); // prettier-ignore
  }
}

const asDataUrl = (blob: Blob): Promise<string> =>
  new Promise((done, fail) => {
    const reader = new FileReader();
    reader.onload = () => done(reader.result as string);
    reader.onerror = () => fail(new DrawingRefused('The picture could not be kept; try again.'));
    reader.readAsDataURL(blob);
  });
