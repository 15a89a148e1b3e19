import type { LogbookEntryView, Page } from '@entretien/contracts';
import { keepPreviousData, useInfiniteQuery } from '@tanstack/react-query';
import { getJson } from './api.js';

const PAGE = 60;

/**
 * What is on record, the latest first, page by page: of the fleet or of a unit.
 *
 * @param query as the address of the server takes it
 */
export function useLogbook(query: string, key: readonly string[] = ['logbook', query]) {
  const entries = useInfiniteQuery({
    queryKey: key,
    queryFn: ({ pageParam }) =>
      getJson<Page<LogbookEntryView>>(`/logbook?limit=${PAGE}&${query}${pageParam}`),
    initialPageParam: '',
    getNextPageParam: ({ nextCursor }) =>
      nextCursor === null ? null : `&cursor=${encodeURIComponent(nextCursor)}`,
    // What was found stays until what is typed has been looked for.
    placeholderData: keepPreviousData,
    retry: false,
  });
  return { ...entries, items: entries.data?.pages.flatMap((page) => page.items) ?? [] };
}
