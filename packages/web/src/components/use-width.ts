import { useCallback, useRef, useState } from 'react';

/** The width of an element in pixels, 0 until it is laid out: what drawings that must not be stretched need. */
export function useWidth<Target extends HTMLElement>(): [(element: Target | null) => void, number] {
  const [width, setWidth] = useState(0);
  const observer = useRef<ResizeObserver | null>(null);
  const ref = useCallback((element: Target | null) => {
    observer.current?.disconnect();
    if (!element) return;
    // Known before the first picture, the drawing stands in it: nothing moves when it comes.
    setWidth(innerWidthOf(element));
    observer.current = new ResizeObserver(([entry]) => setWidth(Math.round(entry!.contentRect.width)));
    observer.current.observe(element);
  }, []);
  return [ref, width];
}

function innerWidthOf(element: HTMLElement): number {
  const { paddingLeft, paddingRight } = getComputedStyle(element);
  return Math.max(
    0,
    Math.round(element.clientWidth - (parseFloat(paddingLeft) || 0) - (parseFloat(paddingRight) || 0)),
  );
}
