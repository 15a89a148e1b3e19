import { Box, Button, Stack, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense } from 'react';
import { Link, useParams } from 'react-router';
import { getBytes } from '../../data/api.js';
import { useCompressor, usePapers } from '../../data/queries.js';
import { ErrorState, LoadingSkeleton } from '../../components/States.js';

/** What draws a PDF is large: it comes when one is opened. */
const PdfPages = lazy(() => import('./PdfPages.js').then((part) => ({ default: part.PdfPages })));

/** A paper of a machine, page by page. Once it was opened the device keeps it: it opens without a connection. */
export function PaperPage() {
  const { compressorId = '', paperId = '' } = useParams();
  const unit = useCompressor(compressorId);
  const papers = usePapers(compressorId);
  const paper = papers.data?.find(({ id }) => id === paperId);
  const file = useQuery({
    queryKey: ['paper', paperId],
    queryFn: () => getBytes(`/compressors/${compressorId}/papers/${paperId}/file`),
    // It never changes, and it is large.
    staleTime: Infinity,
    gcTime: 60_000,
    retry: false,
  });
  return (
    <Box sx={{ px: { xs: 1, md: 3.5 }, pt: 1.5, pb: 4, width: '100%' }}>
      <Stack direction="row" sx={{ alignItems: 'baseline', justifyContent: 'space-between', gap: 1, mb: 1 }}>
        <Typography variant="h1" sx={{ overflowWrap: 'anywhere' }}>
          {paper?.title ?? 'Paper'}
        </Typography>
        {unit.data && (
          <Button component={Link} to={`/units/${compressorId}`} sx={{ minHeight: 44, flex: 'none' }}>
            {unit.data.tag}
          </Button>
        )}
      </Stack>
      {file.isPending && <LoadingSkeleton lines={12} />}
      {file.isError && <ErrorState error={file.error} onRetry={() => void file.refetch()} />}
      {file.data && (
        <Suspense fallback={<LoadingSkeleton lines={12} />}>
          <PdfPages content={file.data} title={paper?.title ?? 'Paper'} />
        </Suspense>
      )}
    </Box>
  );
}
