import { Box, Button, Link as MuiLink, Stack, Typography } from '@mui/material';
import { formatFigure } from '@entretien/core/quantities';
import { useState } from 'react';
import { Link } from 'react-router';
import { Figure } from '../../components/Figure.js';
import { emptyEntry, QuantityField } from '../../components/QuantityField.js';
import { formatAgo } from '../../components/describe-due.js';
import {
  judgeTyped,
  lastReading,
  meterLog,
  oddMarks,
  typedHint,
} from '../../components/meter/typed-figure.js';
import { useNow } from '../../components/use-now.js';
import { useOutbox } from '../../data/outbox/outbox.js';
import { useSiteMeters } from '../../data/queries.js';
import type { PhaseProps } from './PhaseFooter.js';

/** The meter of the machine that is worked on: what it showed last, and what the figure says while it is typed. */
export function ReadMeter({ atWork }: Pick<PhaseProps, 'atWork'>) {
  const { visit, view } = atWork;
  const [entry, setEntry] = useState(emptyEntry);
  const [asked, setAsked] = useState<number | null>(null);
  const queued = useOutbox(({ items }) => items);
  const { data: site } = useSiteMeters(visit.siteId);
  const now = useNow();
  // Without a connection, and never asked for on this device, nothing is known of it: the figure is taken as it is.
  const meter = site?.items.find(({ compressorId }) => compressorId === view.compressorId);
  const log = meter && meterLog(meter, queued, now);
  const last = log && lastReading(log);
  const verdict = log && entry.value !== null ? judgeTyped(log, entry.value, now, visit.timeZone) : null;
  const odd = oddMarks(verdict);
  const isAsking = odd.length > 0 && asked === entry.value;
  const canSave = entry.value !== null && (verdict?.problem ?? null) === null;
  const save = () => {
    if (!canSave || entry.value === null) return;
    if (odd.length > 0 && !isAsking) return setAsked(entry.value);
    void atWork.record({ kind: 'hours', hours: entry.value }).then(() => setEntry(emptyEntry));
  };
  return (
    <Box sx={{ mt: 2 }}>
      {last && (
        <Typography variant="body2" component="p" sx={{ color: 'text.secondary', mb: 1 }}>
          last{' '}
          <Figure
            value={formatFigure(last.hours, { figures: 6, maxDecimals: 1 })}
            unit={last.source === 'estimated' ? 'h est.' : 'h'}
          />{' '}
          · {formatAgo(last.takenAt, now, visit.timeZone)}
        </Typography>
      )}
      <Stack
        direction="row"
        component="form"
        sx={{ gap: 1, alignItems: 'start' }}
        onSubmit={(event) => {
          event.preventDefault();
          save();
        }}
      >
        <QuantityField
          label="Figure on the meter"
          kind="hours"
          entry={entry}
          onEntry={setEntry}
          min={0}
          max={1_000_000}
          problem={verdict?.problem?.sentence ?? null}
          hint={meter && site ? typedHint(meter, site, verdict, now) : 'Counts as a reading.'}
        />
        <Button
          type="submit"
          variant={isAsking ? 'contained' : 'outlined'}
          disabled={!canSave}
          sx={{ minHeight: 56 }}
        >
          {isAsking ? 'Read right' : 'Save'}
        </Button>
      </Stack>
      {isAsking && (
        <Box role="alert" sx={{ typography: 'body2', color: 'brass', fontWeight: 600 }}>
          Look again. If it stands there like that, say it was read right.
        </Box>
      )}
      {verdict?.problem?.code === 'goes-backwards' && (
        <Typography variant="body2">
          Was the meter replaced, or set back?{' '}
          <MuiLink
            component={Link}
            to={`/units/${view.compressorId}?do=read`}
            sx={{ display: 'inline-block', py: 1.5, fontWeight: 600 }}
          >
            Say so on its page
          </MuiLink>
        </Typography>
      )}
    </Box>
  );
}
