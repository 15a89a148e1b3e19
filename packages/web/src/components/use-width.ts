import { useCallback, useRef, useState } from 'react';

/** The width of an element in pixels, 0 until it is laid out: what drawings that must not be stretched need. */
export function useWidth<Target extends HTMLElement>(): [(element: Target | null) => void, number] {
  const [width, setWidth] = useState(0);
  const observer = useRef<ResizeObserver | null>(null);
  const ref = useCallback((element: Target | null) => {
    observer.current?.disconnect();
    if (!element) return;
    observer.current = new ResizeObserver(([entry]) => setWidth(Math.round(entry!.contentRect.width)));
    observer.current.observe(element);
  }, []);
  return [ref, width];
}
