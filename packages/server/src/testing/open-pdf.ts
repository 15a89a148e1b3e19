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
