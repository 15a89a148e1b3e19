import { formatMoment, formatNumber } from '@entretien/core/basics';
import { Alert, Box, Button, Checkbox, Stack, Typography } from '@mui/material';
import type { ImportedRowView, ImportResultView } from '@entretien/contracts';
import { formatFigure } from '@entretien/core/quantities';
import { useState } from 'react';
import { figureFont } from '../../components/theme/theme.js';
import { Figure } from '../../components/Figure.js';
import { describeMark } from '../../components/describe-mark.js';

interface RowsProps {
  readonly result: ImportResultView;
  readonly timeZone: string;
  readonly leaveOut: readonly number[];
  readonly onLeaveOut: (rows: readonly number[]) => void;
  readonly isSending: boolean;
  readonly onCommit: () => void;
}

const SHOWN_AT_ONCE = 100;

/** What becomes of each row, and why; rows can be left out before the list is taken in. */
export function ImportRows({ result, timeZone, leaveOut, onLeaveOut, isSending, onCommit }: RowsProps) {
  const [shown, setShown] = useState(SHOWN_AT_ONCE);
  const isDone = result.mode === 'commit';
  const wanted = result.stored - leaveOut.length;
  // What needs a decision comes first.
  const rows = [...result.rows].sort((a, b) => rank(a) - rank(b) || a.row - b.row);
  const toggle = (row: number) =>
    onLeaveOut(leaveOut.includes(row) ? leaveOut.filter((one) => one !== row) : [...leaveOut, row]);
  return (
    <Box sx={{ mt: 2 }}>
      <Stack direction={{ xs: 'column', sm: 'row' }} sx={{ gap: 2, alignItems: { sm: 'center' }, mb: 1 }}>
        <Typography role="status" sx={{ flex: 1 }}>
          <strong>{formatCounts(result, isDone)}</strong>
          {result.isCut && ' Not every row is listed below.'}
        </Typography>
        {!isDone && (
          <Button
            variant="contained"
            disabled={wanted <= 0 || isSending}
            onClick={onCommit}
            sx={{ minHeight: 44 }}
          >
            {isSending
              ? 'Importing …'
              : `Import ${formatNumber(wanted)} ${wanted === 1 ? 'reading' : 'readings'}`}
          </Button>
        )}
      </Stack>
      {isDone && (
        <Alert severity="success" variant="outlined" sx={{ mb: 1 }}>
          Done. Reading the same list again adds nothing.
        </Alert>
      )}
      <Box component="ol" aria-label="Rows of the list" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {rows.slice(0, shown).map((row) => (
          <Row
            key={row.row}
            row={row}
            timeZone={timeZone}
            isDone={isDone}
            isIn={!leaveOut.includes(row.row)}
            onToggle={() => toggle(row.row)}
          />
        ))}
      </Box>
      {rows.length > shown && (
        <Button onClick={() => setShown(shown + 400)} sx={{ mt: 1, minHeight: 44 }}>
          Show more rows
        </Button>
      )}
    </Box>
  );
}

function rank({ outcome, marks }: ImportedRowView): number {
  if (outcome === 'refused') return 0;
  if (outcome === 'stored') return marks.length > 0 ? 1 : 2;
  return 3;
}

function formatCounts({ stored, known, refused, units, leftOut }: ImportResultView, isDone: boolean): string {
  const count = (figure: number, text: string) => `${formatNumber(figure)} ${text}`;
  const parts = [
    count(
      stored,
      `${isDone ? 'imported' : 'can be imported'}${units > 0 ? `, for ${count(units, units === 1 ? 'unit' : 'units')}` : ''}`,
    ),
    known > 0 ? count(known, 'known already') : '',
    leftOut > 0 ? count(leftOut, 'left out') : '',
    refused > 0 ? count(refused, 'refused') : '',
  ];
  return `${parts.filter(Boolean).join('; ')}.`;
}

interface RowProps {
  readonly row: ImportedRowView;
  readonly timeZone: string;
  readonly isDone: boolean;
  readonly isIn: boolean;
  readonly onToggle: () => void;
}

function Row({ row, timeZone, isDone, isIn, onToggle }: RowProps) {
  const isGood = row.outcome === 'stored';
  return (
    <Box component="li" sx={rowLayout}>
      {isGood && !isDone ? (
        <Checkbox
          checked={isIn}
          onChange={onToggle}
          slotProps={{ input: { 'aria-label': `Import row ${row.row}` } }}
          sx={{ p: 0.5, width: { xs: 44, md: 34 }, height: { xs: 44, md: 34 } }}
        />
      ) : (
        <span />
      )}
      <Box component="span" sx={{ ...figureFont, color: 'text.secondary', fontSize: '0.85rem' }}>
        {row.row}
      </Box>
      <Box component="span" sx={{ ...figureFont, fontWeight: 650 }}>
        {row.tag ?? ''}
      </Box>
      <Figure
        value={row.hours === undefined ? '' : formatFigure(row.hours, { figures: 7, maxDecimals: 1 })}
        unit={row.hours === undefined ? '' : row.counts === 'loaded' ? 'h loaded' : 'h'}
      />
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {row.takenAt === undefined ? '' : formatMoment(Date.parse(row.takenAt), timeZone)}
      </Typography>
      <Typography
        variant="body2"
        sx={{ gridColumn: { xs: '2 / -1', md: 'auto' }, minWidth: 0, ...tone(row) }}
      >
        {format(row)}
      </Typography>
    </Box>
  );
}

function tone({ outcome, marks }: ImportedRowView) {
  if (outcome === 'refused') return { color: 'oxide' };
  return marks.length > 0 ? { color: 'brass', fontWeight: 600 } : { color: 'text.secondary' };
}

function format({ outcome, marks, reason, text }: ImportedRowView): string {
  if (outcome === 'refused') return text === undefined ? `${reason}` : `${reason} The row says: ${text}`;
  if (outcome === 'known') return 'known already';
  return marks.length > 0 ? `${marks.map(describeMark).join(', ')}. Imported all the same.` : 'good';
}

const rowLayout = {
  display: 'grid',
  gridTemplateColumns: { xs: '44px 34px 1fr auto auto', md: '40px 52px 110px 120px 150px minmax(0, 1fr)' },
  columnGap: 1,
  alignItems: 'center',
  minHeight: 36,
  borderBottom: '1px solid var(--mui-palette-divider)',
};
