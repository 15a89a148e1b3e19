import { useEffect, useState } from 'react';

/** Draws anew each second: for what is waited for at a machine. */
export function useSecond(): void {
  const [, setCount] = useState(0);
  useEffect(() => {
    const timer = window.setInterval(() => setCount((count) => count + 1), 1000);
    return () => window.clearInterval(timer);
  }, []);
}
