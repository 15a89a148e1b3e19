import { Box, Button, Link as MuiLink, Stack, Typography } from '@mui/material';
import { useState } from 'react';
import { Link } from 'react-router';
import { emptyEntry } from '../../components/QuantityField.js';
import { MeterFigure } from '../../components/meter/MeterFigure.js';
import { LastFigure, LookAgain } from '../../components/meter/MeterTexts.js';
import { lastReading, meterLog, typedHint } from '../../components/meter/typed-figure.js';
import { useTypedFigure } from '../../components/meter/use-typed-figure.js';
import { useNow } from '../../components/use-now.js';
import { useOutbox } from '../../data/outbox/outbox.js';
import { useSiteMeters } from '../../data/queries.js';
import type { PhaseProps } from './PhaseFooter.js';

/** The meter of the machine that is worked on: what it showed last, and what the figure says while it is typed. */
export function ReadMeter({ atWork }: Pick<PhaseProps, 'atWork'>) {
  const { visit, view } = atWork;
  const [entry, setEntry] = useState(emptyEntry);
  const queued = useOutbox(({ items }) => items);
  const { data: site } = useSiteMeters(visit.siteId);
  const now = useNow();
  // Without a connection, and never asked for on this device, nothing is known of it: the figure is taken as it is.
  const meter = site?.items.find(({ compressorId }) => compressorId === view.compressorId);
  const log = meter && meterLog(meter, queued, now);
  const last = log && lastReading(log);
  const { verdict, canSave, isAsking, confirm } = useTypedFigure(log, entry.value, now, visit.timeZone);
  const save = () => {
    if (entry.value === null || !confirm()) return;
    void atWork.record({ kind: 'hours', hours: entry.value }).then(() => setEntry(emptyEntry));
  };
  return (
    <Box sx={{ mt: 2 }}>
      {last && (
        <Typography variant="body2" component="p" sx={{ mb: 1 }}>
          <LastFigure last={last} now={now} timeZone={visit.timeZone} />
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
        <MeterFigure
          entry={entry}
          onEntry={setEntry}
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
      {isAsking && <LookAgain />}
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
