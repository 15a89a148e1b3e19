import { useLocation } from 'react-router';

/** The code in an address, behind its `#`: it is sent to no server by itself, and stands in no log. */
export function useCode(): string {
  return useLocation().hash.slice(1);
}
