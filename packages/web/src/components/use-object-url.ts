import { useEffect, useMemo } from 'react';

/** An address under which the page can show what the device holds, for as long as it is shown. */
export function useObjectUrl(blob: Blob | undefined): string | undefined {
  const address = useMemo(() => blob && URL.createObjectURL(blob), [blob]);
  useEffect(
    () => () => {
      if (address !== undefined) URL.revokeObjectURL(address);
    },
    [address],
  );
  return address;
}
