import { Box, Button, Link as MuiLink, Typography } from '@mui/material';
import type { LogbookEntryView } from '@entretien/contracts';
import { describeDay } from '@entretien/core/basics';
import { Link } from 'react-router';
import { figureFont } from './theme/theme.js';
import { describeMark } from './describe-mark.js';
import { toLocalText } from './WhenField.js';

function localOf({ at, timeZone }: LogbookEntryView): string {
  return toLocalText(Date.parse(at), timeZone);
}

interface EntriesProps {
  readonly items: readonly LogbookEntryView[];
  readonly label?: string;
  /** Of one unit: its tag need not stand in every line. */
  readonly isOfOneCompressor?: boolean;
  /** Offers to take back what was recorded in error. */
  readonly onWithdraw?: ((entry: LogbookEntryView) => void) | undefined;
}

/** Lines of the logbook under their days. */
export function Entries({ items, label = 'Entries', isOfOneCompressor = false, onWithdraw }: EntriesProps) {
  const columns = isOfOneCompressor
    ? { xs: 'minmax(0, 1fr) auto', md: '92px 46px minmax(0, 1fr) auto' }
    : { xs: '58px 1fr', md: '104px 52px 74px minmax(0, 1fr) 140px' };
  return (
    <Box component="ol" aria-label={label} sx={{ listStyle: 'none', p: 0, m: 0 }}>
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
              gridTemplateColumns: columns,
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
              {describeDay(day)}
            </Typography>
            <Typography
              variant="body2"
              sx={{ ...figureFont, color: 'text.secondary', display: { xs: 'none', md: 'block' } }}
            >
              {time}
            </Typography>
            {isOfOneCompressor ? null : entry.compressorId === null ? (
              <span />
            ) : (
              <MuiLink
                component={Link}
                to={`/units/${entry.compressorId}`}
                sx={{
                  ...figureFont,
                  fontWeight: 700,
                  typography: 'body2',
                  display: 'inline-flex',
                  minHeight: { xs: 44, md: 24 },
                }}
              >
                {entry.tag}
              </MuiLink>
            )}
            <Box sx={{ minWidth: 0 }}>
              <Typography variant="body2" sx={{ textDecoration: entry.voided ? 'line-through' : 'none' }}>
                {entry.text}
              </Typography>
              {(entry.marks ?? []).length > 0 && (
                <Typography variant="caption" sx={{ color: 'brass', fontWeight: 600, display: 'block' }}>
                  {entry.marks!.map(describeMark).join(', ')}
                </Typography>
              )}
              {[entry.note, entry.voidedHow === 'corrected' ? 'Corrected by a later record.' : undefined].map(
                (remark) =>
                  remark && (
                    <Typography key={remark} variant="body2" sx={{ color: 'text.secondary' }}>
                      {remark}
                    </Typography>
                  ),
              )}
              {/* Who it was stands where it changes: one person does most of a day. */}
              {isOfOneCompressor && (isNewDay || before.by !== entry.by) && (
                <Typography variant="caption" sx={{ color: 'text.secondary', display: 'block' }}>
                  {entry.byName}
                </Typography>
              )}
            </Box>
            {isOfOneCompressor ? (
              <WithdrawButton entry={entry} onWithdraw={onWithdraw} />
            ) : (
              <Typography
                variant="body2"
                sx={{ color: 'text.secondary', gridColumn: { xs: 2, md: 'auto' } }}
                noWrap
              >
                {entry.byName}
              </Typography>
            )}
          </Box>
        );
      })}
    </Box>
  );
}

interface WithdrawButtonProps extends Pick<EntriesProps, 'onWithdraw'> {
  readonly entry: LogbookEntryView;
}

/** Nothing where there is nothing to take back: what was withdrawn before, or cannot be. */
function WithdrawButton({ entry, onWithdraw }: WithdrawButtonProps) {
  if (!onWithdraw || entry.collection === undefined || entry.voided) return <span />;
  return (
    <Button
      size="small"
      aria-label={`Withdraw: ${entry.text}`}
      onClick={() => onWithdraw(entry)}
      sx={{
        minWidth: { xs: 44, md: 24 },
        minHeight: { xs: 44, md: 24 },
        p: 0,
        lineHeight: 1,
        color: 'text.secondary',
        alignSelf: 'start',
      }}
    >
      ···
    </Button>
  );
}
