import { Alert, Box, Button, Skeleton, Stack, Typography } from '@mui/material';
import type { ReactNode } from 'react';
import { sentenceOf } from '../data/api.js';

/** While something is being fetched: lines where the words will stand. */
export function LoadingSkeleton({ lines = 6 }: { readonly lines?: number }) {
  return (
    <Stack role="status" spacing={1.5} aria-busy aria-label="Loading" sx={{ py: 2 }}>
      {Array.from({ length: lines }, (_, index) => (
        <Skeleton
          key={index}
          variant="rounded"
          height={28}
          animation="wave"
          sx={{ bgcolor: 'divider', opacity: 0.6 }}
        />
      ))}
    </Stack>
  );
}

/** When it could not be fetched: why, and a way to try again. */
export function ErrorState({ error, onRetry }: { readonly error: unknown; readonly onRetry: () => void }) {
  return (
    <Alert
      severity="error"
      variant="outlined"
      sx={{ my: 2 }}
      action={
        <Button color="inherit" onClick={onRetry}>
          Try again
        </Button>
      }
    >
      {sentenceOf(error)}
    </Alert>
  );
}

/** When there is nothing yet: what would stand here, and how to begin. */
export function Empty({
  title,
  children,
  action,
  isPage = false,
}: {
  readonly title: string;
  /** Whether it is all of the page: then its title is the page's heading. */
  readonly isPage?: boolean;
  readonly children: ReactNode;
  readonly action?: ReactNode;
}) {
  return (
    <Box sx={{ py: 6, maxWidth: 460 }}>
      <Typography variant="h2" component={isPage ? 'h1' : 'p'} gutterBottom>
        {title}
      </Typography>
      <Typography sx={{ color: 'text.secondary', mb: 2 }}>{children}</Typography>
      {action}
    </Box>
  );
}
