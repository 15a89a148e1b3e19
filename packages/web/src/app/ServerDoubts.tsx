import { Alert } from '@mui/material';
import { useServerHealth } from '../data/queries.js';

/** What the server itself finds strange, on every page: with a wrong clock no date can be trusted. */
export function ServerDoubts() {
  const { data } = useServerHealth();
  return data?.doubts.map(({ code, sentence }) => (
    <Alert key={code} severity="warning" sx={{ mx: { xs: 2, md: 3.5 }, mt: 1.5 }}>
      {sentence}
    </Alert>
  ));
}
