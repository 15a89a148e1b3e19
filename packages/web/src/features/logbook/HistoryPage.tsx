import { Box, Button, Stack, Typography } from '@mui/material';
import type { LogbookEntryView, Page } from '@entretien/contracts';
import { describeMachine } from '@entretien/core/machine';
import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import { getJson } from '../../data/api.js';
import { useSites, useCompressor } from '../../data/queries.js';
import { ErrorState, LoadingSkeleton } from '../../components/States.js';
import { Entries } from '../../components/Entries.js';

/** Most entries on the page: decades of a busy machine. */
const MOST = 5000;

async function wholeHistory(compressorId: string): Promise<readonly LogbookEntryView[]> {
  const items: LogbookEntryView[] = [];
  let cursor = '';
  while (items.length < MOST) {
    const page: Page<LogbookEntryView> = await getJson(
      `/logbook?limit=200&compressorId=${compressorId}${cursor}`,
    );
    items.push(...page.items);
    if (page.nextCursor === null) break;
    cursor = `&cursor=${encodeURIComponent(page.nextCursor)}`;
  }
  return items;
}

/** The whole history of a unit on one page, to be read or printed. */
export function HistoryPage() {
  const { compressorId = '' } = useParams();
  const unit = useCompressor(compressorId);
  const { data: sites } = useSites();
  const entries = useQuery({
    queryKey: ['unit', compressorId, 'history'],
    queryFn: () => wholeHistory(compressorId),
    retry: false,
  });
  const failed = unit.isError ? unit : entries.isError ? entries : null;
  if (failed) {
    return (
      <Frame>
        <ErrorState error={failed.error} onRetry={() => void failed.refetch()} />
      </Frame>
    );
  }
  if (!unit.data || !entries.data) {
    return (
      <Frame>
        <LoadingSkeleton lines={10} />
      </Frame>
    );
  }
  const { tag, maker, model, serial, siteId } = unit.data;
  const site = sites?.find(({ id }) => id === siteId)?.name;
  return (
    <Frame>
      <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'start', gap: 2, mb: 1.5 }}>
        <Box>
          <Typography variant="h1">History of {tag}</Typography>
          <Typography sx={{ color: 'text.secondary' }}>
            {[describeMachine(unit.data), site, maker, model, serial].filter(Boolean).join(' · ')} ·{' '}
            {entries.data.length} entries
          </Typography>
        </Box>
        <Stack direction="row" sx={{ gap: 1, '@media print': { display: 'none' } }}>
          <Button variant="contained" onClick={() => window.print()} sx={{ minHeight: 44 }}>
            Print
          </Button>
          <Button component={Link} to={`/units/${compressorId}`} sx={{ minHeight: 44 }}>
            Back to {tag}
          </Button>
        </Stack>
      </Stack>
      <Entries items={entries.data} />
    </Frame>
  );
}

function Frame({ children }: { readonly children: React.ReactNode }) {
  return <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 2, pb: 4, maxWidth: 1600, width: '100%' }}>{children}</Box>;
}
