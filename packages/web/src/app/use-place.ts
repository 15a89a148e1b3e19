import { useEffect, useLayoutEffect, useRef, type RefObject } from 'react';
import { useLocation, useNavigationType } from 'react-router';

/** How long a page that grows is waited for before it is scrolled to where it was. */
const GROWN_WITHIN_MS = 1500;

/**
 * What a new place does for those who cannot see that it is one, and for those who come back: a new place begins at
 * its top with the focus in it, one gone back to stands where it stood, and the window is called by its heading.
 */
export function usePlace(main: RefObject<HTMLElement | null>): void {
  const { pathname, key } = useLocation();
  const way = useNavigationType();
  const positions = useRef(new Map<string, number>());
  const shown = useRef(pathname);

  useEffect(() => {
    const note = () => positions.current.set(key, window.scrollY);
    window.addEventListener('scroll', note, { passive: true });
    return () => window.removeEventListener('scroll', note);
  }, [key]);

  useLayoutEffect(() => {
    if (shown.current === pathname) return;
    shown.current = pathname;
    const stood = way === 'POP' ? (positions.current.get(key) ?? 0) : 0;
    // A field that asked for the focus has it already.
    if (!main.current?.contains(document.activeElement)) main.current?.focus({ preventScroll: true });
    window.scrollTo(0, stood);
    if (stood === 0) return;
    const began = performance.now();
    const again = () => {
      if (Math.abs(window.scrollY - stood) < 2 || performance.now() - began > GROWN_WITHIN_MS) return;
      window.scrollTo(0, stood);
      frame = requestAnimationFrame(again);
    };
    let frame = requestAnimationFrame(again);
    return () => cancelAnimationFrame(frame);
  }, [pathname, key, way, main]);

  useEffect(() => {
    const place = main.current;
    if (!place) return;
    const name = () => {
      const heading = place.querySelector('h1')?.textContent;
      document.title = heading ? `${heading} · Entretien` : 'Entretien';
    };
    const changes = new MutationObserver(name);
    changes.observe(place, { childList: true, subtree: true, characterData: true });
    name();
    return () => changes.disconnect();
  }, [main]);
}
