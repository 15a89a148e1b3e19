import { Box, Button, Link as MuiLink, MenuItem, Stack, TextField, Typography } from '@mui/material';
import type { LogbookEntryView, Page } from '@entretien/contracts';
import { factKinds } from '@entretien/core/facts';
import { keepPreviousData, useInfiniteQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { figureFont } from '../../app/theme.js';
import { getJson } from '../../data/api.js';
import { useSites } from '../../data/queries.js';
import { Empty, Failed, Waiting } from '../../parts/States.js';
import { toLocalText } from '../../parts/WhenField.js';

/** So long after the last key nobody is typing any more. */
const TYPING_MS = 250;

const FILTERS = ['q', 'kind', 'siteId', 'from', 'to'] as const;

/** What stands in the address, as the server is asked. */
function queryOf(search: URLSearchParams): URLSearchParams {
  const query = new URLSearchParams();
  for (const filter of FILTERS) {
    const value = search.get(filter);
    if (!value) continue;
    const isDay = filter === 'from' || filter === 'to';
    query.set(filter, isDay ? dayEdge(value, filter === 'to') : value);
  }
  return query;
}

/** The edge of a day; days are taken by UTC, for sites lie in zones of their own. */
function dayEdge(day: string, isEnd: boolean): string {
  return isEnd ? `${day}T23:59:59.999Z` : `${day}T00:00:00.000Z`;
}

/** Every fact of the fleet, found by words, kind, site and time, and written as a list. */
export function FleetLogbook() {
  const [search, setSearch] = useSearchParams();
  const [words, setWords] = useState(search.get('q') ?? '');
  const soon = useRef<ReturnType<typeof setTimeout>>(undefined);
  const { data: sites } = useSites();
  const query = queryOf(search);
  const entries = useInfiniteQuery({
    queryKey: ['logbook', query.toString()],
    queryFn: ({ pageParam }) =>
      getJson<Page<LogbookEntryView>>(`/logbook?limit=60&${query.toString()}${pageParam}`),
    initialPageParam: '',
    getNextPageParam: ({ nextCursor }) =>
      nextCursor === null ? null : `&cursor=${encodeURIComponent(nextCursor)}`,
    // What was found stays until what is typed has been looked for.
    placeholderData: keepPreviousData,
    retry: false,
  });
  const put = (name: (typeof FILTERS)[number], value: string) =>
    setSearch(
      (before) => {
        const next = new URLSearchParams(before);
        if (value === '') next.delete(name);
        else next.set(name, value);
        return next;
      },
      { replace: true },
    );
  const lookFor = (typed: string) => {
    setWords(typed);
    clearTimeout(soon.current);
    soon.current = setTimeout(() => put('q', typed.trim()), TYPING_MS);
  };
  const items = entries.data?.pages.flatMap((page) => page.items) ?? [];
  return (
    <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 2, pb: 4, maxWidth: 1180, width: '100%' }}>
      <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'start', gap: 2, mb: 1.5 }}>
        <Typography variant="h1">Logbook</Typography>
        <Stack direction="row" sx={{ gap: 1 }}>
          {(['csv', 'json'] as const).map((format) => (
            <Button
              key={format}
              variant="outlined"
              href={`/api/logbook/export?format=${format}&${query.toString()}`}
              sx={{ minHeight: 44 }}
            >
              {format.toUpperCase()}
            </Button>
          ))}
        </Stack>
      </Stack>
      <Box
        component="form"
        role="search"
        onSubmit={(event) => {
          event.preventDefault();
          put('q', words.trim());
        }}
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr 1fr', md: '2fr 1.2fr 1.4fr 1fr 1fr' },
          gap: 1,
          mb: 1.5,
          '& > :first-of-type': { gridColumn: { xs: '1 / -1', md: 'auto' } },
        }}
      >
        <TextField
          label="Words"
          value={words}
          onChange={(event) => lookFor(event.target.value)}
          onBlur={() => put('q', words.trim())}
          size="small"
          slotProps={{ htmlInput: { maxLength: 120, enterKeyHint: 'search' } }}
        />
        <TextField
          select
          label="Kind"
          size="small"
          value={search.get('kind') ?? ''}
          onChange={(event) => put('kind', event.target.value)}
        >
          <MenuItem value="">All kinds</MenuItem>
          {factKinds.map(
            ({ kind, title }) =>
              title !== undefined && (
                <MenuItem key={kind} value={kind}>
                  {title}
                </MenuItem>
              ),
          )}
        </TextField>
        <TextField
          select
          label="Site"
          size="small"
          value={search.get('siteId') ?? ''}
          onChange={(event) => put('siteId', event.target.value)}
        >
          <MenuItem value="">All sites</MenuItem>
          {(sites ?? []).map(({ id, name }) => (
            <MenuItem key={id} value={id}>
              {name}
            </MenuItem>
          ))}
        </TextField>
        {/* With several fields, Enter looks for a button to press. */}
        <button type="submit" style={{ display: 'none' }} aria-hidden tabIndex={-1} />
        {(['from', 'to'] as const).map((edge) => (
          <TextField
            key={edge}
            type="date"
            label={edge === 'from' ? 'From' : 'To'}
            size="small"
            value={search.get(edge) ?? ''}
            onChange={(event) => put(edge, event.target.value)}
            slotProps={{ inputLabel: { shrink: true } }}
          />
        ))}
      </Box>
      {entries.isPending && <Waiting lines={10} />}
      {entries.isError && <Failed error={entries.error} onRetry={() => void entries.refetch()} />}
      {entries.data && items.length === 0 && (
        <Empty title="Nothing is on record like that.">
          Other words, a longer time, or all kinds may find it.
        </Empty>
      )}
      <Entries items={items} />
      {entries.hasNextPage && (
        <Button
          onClick={() => void entries.fetchNextPage()}
          disabled={entries.isFetchingNextPage}
          sx={{ mt: 1, minHeight: 44 }}
        >
          Show earlier
        </Button>
      )}
    </Box>
  );
}

function localOf({ at, timeZone }: LogbookEntryView): string {
  return toLocalText(Date.parse(at), timeZone);
}

/** Lines of the logbook under their days. */
export function Entries({ items }: { readonly items: readonly LogbookEntryView[] }) {
  return (
    <Box component="ol" aria-label="Entries" sx={{ listStyle: 'none', p: 0, m: 0 }}>
      {items.map((entry, index) => {
        const [day, time] = localOf(entry).split('T') as [string, string];
        const before = items[index - 1];
        const isNewDay = before === undefined || localOf(before).slice(0, 10) !== day;
        return (
          <Box
            component="li"
            key={entry.id}
            sx={{
              display: 'grid',
              gridTemplateColumns: { xs: '58px 1fr', md: '104px 52px 74px minmax(0, 1fr) 140px' },
              columnGap: 1.5,
              borderTop: isNewDay ? 1 : 0,
              borderColor: 'divider',
              py: 0.4,
              opacity: entry.voided ? 0.7 : 1,
            }}
          >
            <Typography
              variant="body2"
              sx={{
                ...figureFont,
                fontWeight: 650,
                gridColumn: { xs: '1 / -1', md: 'auto' },
                display: isNewDay ? 'block' : { xs: 'none', md: 'block' },
                visibility: isNewDay ? 'visible' : 'hidden',
              }}
            >
              {day}
            </Typography>
            <Typography
              variant="body2"
              sx={{ ...figureFont, color: 'text.secondary', display: { xs: 'none', md: 'block' } }}
            >
              {time}
            </Typography>
            {entry.compressorId === null ? (
              <span />
            ) : (
              <MuiLink
                component={Link}
                to={`/units/${entry.compressorId}`}
                sx={{ ...figureFont, fontWeight: 700, typography: 'body2' }}
              >
                {entry.tag}
              </MuiLink>
            )}
            <Box sx={{ minWidth: 0 }}>
              <Typography variant="body2" sx={{ textDecoration: entry.voided ? 'line-through' : 'none' }}>
                {entry.said}
              </Typography>
              {entry.note && (
                <Typography variant="body2" sx={{ color: 'text.secondary' }}>
                  {entry.note}
                </Typography>
              )}
            </Box>
            <Typography
              variant="body2"
              sx={{ color: 'text.secondary', gridColumn: { xs: 2, md: 'auto' } }}
              noWrap
            >
              {entry.byName}
            </Typography>
          </Box>
        );
      })}
    </Box>
  );
}
