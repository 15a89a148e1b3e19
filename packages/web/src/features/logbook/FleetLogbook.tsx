import { Box, Button, MenuItem, Stack, TextField, Typography } from '@mui/material';
import { factKinds } from '@entretien/core/facts';
import { useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { useLogbook } from '../../data/logbook.js';
import { useSites } from '../../data/queries.js';
import { DayField } from '../../components/DayField.js';
import { Entries } from '../../components/Entries.js';
import { Empty, ErrorState, LoadingSkeleton } from '../../components/States.js';

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
  const query = queryOf(search);
  const entries = useLogbook(query.toString());
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
  const { items } = entries;
  return (
    <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 2, pb: 4, maxWidth: 1600, width: '100%' }}>
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
      <FindForm search={search} onPut={put} />
      {entries.isPending && <LoadingSkeleton lines={10} />}
      {entries.isError && <ErrorState error={entries.error} onRetry={() => void entries.refetch()} />}
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

interface FindFormProps {
  readonly search: URLSearchParams;
  readonly onPut: (name: (typeof FILTERS)[number], value: string) => void;
}

/** What is looked for; words while they are typed. */
function FindForm({ search, onPut }: FindFormProps) {
  const [text, setText] = useState(search.get('q') ?? '');
  const soon = useRef<ReturnType<typeof setTimeout>>(undefined);
  const { data: sites } = useSites();
  const lookFor = (typed: string) => {
    setText(typed);
    clearTimeout(soon.current);
    soon.current = setTimeout(() => onPut('q', typed.trim()), TYPING_MS);
  };
  return (
    <Box
      component="form"
      role="search"
      onSubmit={(event) => {
        event.preventDefault();
        onPut('q', text.trim());
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
        label="Search"
        value={text}
        onChange={(event) => lookFor(event.target.value)}
        onBlur={() => onPut('q', text.trim())}
        size="small"
        slotProps={{ htmlInput: { maxLength: 120, enterKeyHint: 'search' } }}
      />
      <TextField
        select
        label="Kind"
        size="small"
        value={search.get('kind') ?? ''}
        onChange={(event) => onPut('kind', event.target.value)}
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
        onChange={(event) => onPut('siteId', event.target.value)}
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
        <DayField
          key={edge}
          label={edge === 'from' ? 'From' : 'To'}
          size="small"
          day={search.get(edge) ?? ''}
          onDay={(day) => onPut(edge, day)}
        />
      ))}
    </Box>
  );
}
