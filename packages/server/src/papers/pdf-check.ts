import type { PDFDict as Dict } from 'pdf-lib';
import { impossible } from '../common/problem.js';

/** Keys under which a PDF does something by itself, or brings something along (PDF 32000-1:2008 *(memory)*). */
const ACTIVE = ['JS', 'JavaScript', 'Launch', 'RichMedia', 'EmbeddedFile', 'EmbeddedFiles', 'XFA', 'Movie'];
/** Of an action’s kind: what it may not be. */
const ACTIVE_ACTIONS = new Set([
  '/JavaScript',
  '/Launch',
  '/ImportData',
  '/SubmitForm',
  '/RichMediaExecute',
  '/GoToE',
]);

/** Refuses a PDF that cannot be read, is locked, or holds more than pages. */
export async function refuseActivePdf(content: Buffer): Promise<{ readonly pages: number }> {
  const pdf = await import('pdf-lib');
  let document;
  try {
    document = await pdf.PDFDocument.load(content, {
      updateMetadata: false,
      parseSpeed: pdf.ParseSpeeds.Medium,
    });
  } catch (error) {
    if (error instanceof pdf.EncryptedPDFError)
      throw impossible({
        code: 'pdf-locked',
        sentence: 'This PDF is locked: save it again without a password, and send that.',
      });
    throw notReadable();
  }
  const { PDFDict, PDFName, PDFStream } = pdf;
  const isActive = (dict: Dict): boolean =>
    ACTIVE.some((key) => dict.has(PDFName.of(key))) || ACTIVE_ACTIONS.has(String(dict.get(PDFName.of('S'))));
  const seen = new Set<unknown>();
  const walk = (value: unknown): boolean => {
    if (value instanceof PDFStream) return walk(value.dict);
    if (value instanceof pdf.PDFArray) return visit(value, () => value.asArray());
    if (!(value instanceof PDFDict)) return false;
    return isActive(value) || visit(value, () => value.values());
  };
  const visit = (value: unknown, inside: () => readonly unknown[]): boolean => {
    if (seen.has(value)) return false;
    seen.add(value);
    return inside().some(walk);
  };
  const objects = document.context.enumerateIndirectObjects();
  if (objects.some(([, value]) => walk(value)))
    throw impossible({
      code: 'pdf-active',
      sentence:
        'This PDF holds a script, a form that sends or another file: print it into a new PDF, and send that one.',
    });
  try {
    const pages = document.getPageCount();
    if (pages > 0) return { pages };
  } catch {
    // A file without its tree of pages is none that can be read.
  }
  throw notReadable();
}

function notReadable() {
  return impossible({ code: 'not-a-pdf', sentence: 'That is no PDF that can be read.' });
}
