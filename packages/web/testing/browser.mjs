import 'fake-indexeddb/auto';

/* What a page finds in a browser and not in jsdom. A desk: wide, with a mouse. */

const WIDTH = 1280;

class ResizeObserver {
  // Nothing is laid out here, so nothing changes its size.
  observe() {}
  unobserve() {}
  disconnect() {}
}

function matchMedia(query) {
  const least = /min-width:\s*([\d.]+)px/.exec(query);
  const most = /max-width:\s*([\d.]+)px/.exec(query);
  const asksForWidth = least !== null || most !== null;
  return Object.assign(new EventTarget(), {
    matches:
      /pointer: fine/.test(query) ||
      (asksForWidth && WIDTH >= Number(least?.[1] ?? 0) && WIDTH <= Number(most?.[1] ?? Infinity)),
    media: query,
    onchange: null,
    addListener() {},
    removeListener() {},
  });
}

Object.assign(globalThis, { ResizeObserver, matchMedia });

// What this document lacks of reading files: the reader that it has does it.
globalThis.Blob.prototype.text ??= function () {
  return new Promise((resolve, reject) => {
    const reader = new globalThis.FileReader();
    reader.onload = () => resolve(reader.result);
    reader.onerror = () => reject(reader.error);
    reader.readAsText(this);
  });
};
