import jsqr from 'jsqr';
import { getDocument, OPS } from 'pdfjs-dist/legacy/build/pdf.mjs';

/** Text and pictures of a PDF, read by a library that did not write it. */
export async function openPdf(bytes: Buffer) {
  const pdf = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
  const texts: string[] = [];
  const pictures: { width: number; height: number; data: Uint8Array }[] = [];
  for (let number = 1; number <= pdf.numPages; number += 1) {
    const page = await pdf.getPage(number);
    const { items } = await page.getTextContent();
    texts.push(items.map((item) => ('str' in item ? item.str : '')).join(' '));
    const { fnArray, argsArray } = await page.getOperatorList();
    for (const [index, operation] of fnArray.entries()) {
      if (operation !== OPS.paintImageXObject) continue;
      const [name] = argsArray[index] as [string];
      pictures.push(await new Promise((resolve) => page.objs.get(name, resolve)));
    }
  }
  const pages = pdf.numPages;
  await pdf.destroy();
  return { text: texts.join(' ').replace(/\s+/g, ' '), pages, pictures };
}

interface Picture {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array;
}

/** What a code in a PDF says, read by a library that did not draw it; undefined where it is none. */
export function readCode(picture: Picture): string | undefined {
  const read = jsqr as unknown as typeof jsqr.default;
  return read(opaque(picture), picture.width, picture.height)?.data;
}

/** Pixels with an alpha channel, as the decoder wants them. */
function opaque({ width, height, data }: Picture): Uint8ClampedArray {
  const channels = data.length / (width * height);
  const pixels = new Uint8ClampedArray(width * height * 4).fill(255);
  for (let at = 0; at < width * height; at += 1) {
    for (let channel = 0; channel < 3; channel += 1) {
      pixels[4 * at + channel] = data[channels * at + (channels < 3 ? 0 : channel)]!;
    }
  }
  return pixels;
}
