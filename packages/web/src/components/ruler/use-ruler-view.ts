import { useEffect, useEffectEvent, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { RulerView } from './ruler-points.js';

/** Narrowest and widest span that zooming reaches, in hours or days. */
const SPAN = { least: 4, most: 20_000 };

/** Which part of a ruler is in view, and the hands that move it. */
export function useRulerView(home: RulerView, width: number, element: HTMLElement | null) {
  const [moved, setMoved] = useState<RulerView | null>(null);
  const drag = useRef<{ x: number; view: RulerView } | null>(null);
  const view = moved ?? home;

  const zoomAbout = (factor: number, about: number) => {
    const span = Math.min(SPAN.most, Math.max(SPAN.least, (view.to - view.from) * factor));
    const share = (about - view.from) / (view.to - view.from);
    setMoved({ from: about - span * share, to: about + span * (1 - share) });
  };
  const pan = (share: number) => {
    const by = (view.to - view.from) * share;
    setMoved({ from: view.from + by, to: view.to + by });
  };

  const onWheel = useEffectEvent((event: WheelEvent, target: HTMLElement) => {
    if (!event.ctrlKey && !event.metaKey) return;
    event.preventDefault();
    const share = (event.clientX - target.getBoundingClientRect().left) / width;
    zoomAbout(event.deltaY > 0 ? 1.2 : 1 / 1.2, view.from + share * (view.to - view.from));
  });
  useEffect(() => {
    if (!element) return;
    // Not a React handler: those are passive, and zooming must keep the page from zooming too.
    const listener = (event: WheelEvent) => onWheel(event, element);
    element.addEventListener('wheel', listener, { passive: false });
    return () => element.removeEventListener('wheel', listener);
  }, [element]);

  const handlers = {
    onPointerDown: (event: PointerEvent<HTMLElement>) => {
      drag.current = { x: event.clientX, view };
    },
    onPointerMove: (event: PointerEvent<HTMLElement>) => {
      if (!drag.current || event.buttons === 0) return;
      const dx = event.clientX - drag.current.x;
      if (Math.abs(dx) < 3) return;
      event.currentTarget.setPointerCapture(event.pointerId);
      const { from, to } = drag.current.view;
      const by = (-dx / width) * (to - from);
      setMoved({ from: from + by, to: to + by });
    },
    onPointerUp: () => {
      drag.current = null;
    },
    onKeyDown: (event: KeyboardEvent<HTMLElement>) => {
      const moves: Record<string, () => void> = {
        ArrowLeft: () => pan(-0.1),
        ArrowRight: () => pan(0.1),
        '+': () => zoomAbout(1 / 1.5, 0),
        '-': () => zoomAbout(1.5, 0),
        Home: () => setMoved(null),
      };
      const move = moves[event.key];
      if (!move || event.ctrlKey || event.metaKey || event.altKey) return;
      event.preventDefault();
      move();
    },
  };

  return {
    view,
    isHome: moved === null,
    reset: () => setMoved(null),
    zoom: (factor: number) => zoomAbout(factor, view.from < 0 && view.to > 0 ? 0 : (view.from + view.to) / 2),
    handlers,
  };
}
