import {
  Alert,
  Box,
  Button,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  Typography,
} from '@mui/material';
import type { ImportResultView, SiteView } from '@entretien/contracts';
import { describeDay } from '@entretien/core/basics';
import { formatFigure } from '@entretien/core/quantities';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { postList, sentenceOf } from '../../data/api.js';
import { deviceZone } from '../../data/clock.js';
import { refresh, useSites } from '../../data/queries.js';
import { LoadingSkeleton } from '../../components/States.js';
import { ImportOptionsForm } from './ImportOptionsForm.js';
import { ImportRows } from './ImportRows.js';
import {
  guessOptions,
  importQuery,
  missingColumns,
  openList,
  rememberedOptions,
  rememberOptions,
  type ChosenList,
  type ImportOptions,
} from './import-options.js';

/** Readings in and out as lists. */
export function Lists() {
  return (
    <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 2, pb: 4, width: '100%' }}>
      <Typography variant="h1">Import and export</Typography>
      <Typography sx={{ color: 'text.secondary', mb: 2 }}>
        From a spreadsheet or another logbook, and back.
      </Typography>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', xl: 'minmax(0, 1fr) 480px' },
          columnGap: 6,
          rowGap: 4,
          alignItems: 'start',
        }}
      >
        <ImportList />
        <Box
          component="section"
          sx={{ borderTop: { xs: '1px solid var(--mui-palette-divider)', xl: 'none' }, pt: { xs: 2, xl: 0 } }}
        >
          <Typography variant="h2">Export</Typography>
          <Typography variant="body2" sx={{ color: 'text.secondary', my: 1 }}>
            Every reading that stands, of all units. Days are written year first, times in UTC, figures with
            your decimal sign.
          </Typography>
          <Button
            component="a"
            href="/api/readings/export"
            download
            variant="outlined"
            sx={{ minHeight: 44 }}
          >
            Save all readings
          </Button>
        </Box>
      </Box>
    </Box>
  );
}

/** What a list must hold, by three rows of one. */
function ExampleList() {
  return (
    <Box sx={{ mt: 2 }}>
      <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1 }}>
        The first row names the columns: a unit, a date and the hours are needed. Columns may be separated by
        commas, semicolons or tabs. For example:
      </Typography>
      <Table size="small" aria-label="Example of a list" sx={{ width: 'auto', '& td, & th': { pr: 4 } }}>
        <TableHead>
          <TableRow>
            {['Unit', 'Date', 'Hours', 'Note'].map((name) => (
              <TableCell key={name}>{name}</TableCell>
            ))}
          </TableRow>
        </TableHead>
        <TableBody>
          {EXAMPLE.map(([tag, day, hours, note]) => (
            <TableRow key={tag + day}>
              <TableCell>{tag}</TableCell>
              <TableCell>{describeDay(day)}</TableCell>
              <TableCell>{formatFigure(hours, { figures: 6 })}</TableCell>
              <TableCell>{note}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </Box>
  );
}

const EXAMPLE: readonly (readonly [string, string, number, string])[] = [
  ['CJ-1', '2026-11-03', 4120, ''],
  ['CJ-2', '2026-11-03', 812.5, 'Belt is noisy'],
  ['CJ-1', '2026-12-01', 4298, ''],
];

/** The time zone that most sites lie in; that of this device while there are none. */
function usualZone(sites: readonly SiteView[]): string {
  const counts = new Map<string, number>();
  for (const { timeZone } of sites) counts.set(timeZone, (counts.get(timeZone) ?? 0) + 1);
  const [usual] = [...counts].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1));
  return usual?.[0] ?? deviceZone();
}

interface Chosen {
  readonly list: ChosenList;
  readonly options: ImportOptions;
}

interface Sending {
  readonly mode: 'preview' | 'commit';
  readonly without: readonly number[];
  readonly of: Chosen;
}

function ImportList() {
  const input = useRef<HTMLInputElement>(null);
  const client = useQueryClient();
  const sites = useSites();
  const [chosen, setChosen] = useState<Chosen | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [leaveOut, setLeaveOut] = useState<readonly number[]>([]);
  const send = useMutation({
    mutationFn: ({ mode, without, of: { list, options } }: Sending) =>
      postList<ImportResultView>(
        `/readings/import?${importQuery(mode, options, list.delimiter, without)}`,
        list.file,
      ),
    onSuccess: (result, { of: { list, options } }) => {
      if (result.mode !== 'commit') return undefined;
      rememberOptions(list, options);
      return refresh(client);
    },
  });
  const choose = async (file: File | undefined) => {
    if (!file) return;
    send.reset();
    setLeaveOut([]);
    const list = await openList(file).catch(() => null);
    setProblem(list ? null : `“${file.name}” is no list: its first row must name at least two columns.`);
    if (list === null) return setChosen(null);
    const known = rememberedOptions(list);
    const next = { list, options: known ?? guessOptions(list, usualZone(sites.data ?? [])) };
    setChosen(next);
    // From a source that was read before: it is checked at once.
    if (known) send.mutate({ mode: 'preview', without: [], of: next });
  };
  const change = (options: ImportOptions) => {
    send.reset();
    setLeaveOut([]);
    setChosen(chosen && { ...chosen, options });
  };
  // Until the sites are known, so is not the zone: a list read in another would be another list.
  if (sites.isPending) return <LoadingSkeleton lines={4} />;
  const missing = chosen ? missingColumns(chosen.options) : [];
  const result = send.data;
  return (
    <Box component="section">
      <Typography variant="h2">Import</Typography>
      <Stack direction="row" sx={{ alignItems: 'center', gap: 2, my: 1, flexWrap: 'wrap' }}>
        <Button
          variant={chosen ? 'outlined' : 'contained'}
          onClick={() => input.current?.click()}
          sx={{ minHeight: 44 }}
        >
          {chosen ? 'Choose another file' : 'Choose a file'}
        </Button>
        <input
          ref={input}
          type="file"
          accept=".csv,.txt,text/csv,text/plain"
          aria-label="List to read"
          hidden
          onChange={(event) => {
            void choose(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
        {chosen && <Typography sx={{ fontWeight: 600 }}>{chosen.list.file.name}</Typography>}
      </Stack>
      {problem && (
        <Alert severity="error" variant="outlined">
          {problem}
        </Alert>
      )}
      {!chosen && <ExampleList />}
      {chosen && <ImportOptionsForm list={chosen.list} options={chosen.options} onChange={change} />}
      {chosen && !result && (
        <Stack direction="row" sx={{ alignItems: 'center', gap: 2, mt: 1.5 }}>
          <Button
            variant="contained"
            disabled={missing.length > 0 || send.isPending}
            onClick={() => send.mutate({ mode: 'preview', without: [], of: chosen })}
            sx={{ minHeight: 44 }}
          >
            {send.isPending ? 'Reading …' : 'Check'}
          </Button>
          {missing.length > 0 && (
            <Typography variant="body2" sx={{ color: 'oxide' }}>
              Say which column holds {missing.join(', ')}.
            </Typography>
          )}
        </Stack>
      )}
      {send.isError && (
        <Alert severity="error" variant="outlined" sx={{ mt: 1.5 }}>
          {sentenceOf(send.error)}
        </Alert>
      )}
      {result && (
        <ImportRows
          result={result}
          timeZone={chosen!.options.timeZone}
          leaveOut={leaveOut}
          onLeaveOut={setLeaveOut}
          isSending={send.isPending}
          onCommit={() => send.mutate({ mode: 'commit', without: leaveOut, of: chosen! })}
        />
      )}
    </Box>
  );
}
