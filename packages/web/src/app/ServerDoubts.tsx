import { Alert } from '@mui/material';
import { useMay } from '../data/me.js';
import { useServerHealth } from '../data/queries.js';

/** What concerns whoever reads a date; the rest is for those who look after the server. */
const FOR_ALL = new Set(['clock-behind']);

/** What the server itself finds strange, on every page: with a wrong clock no date can be trusted. */
export function ServerDoubts() {
  const { data } = useServerHealth();
  const isStaff = useMay('see');
  return data?.doubts
    .filter(({ code }) => isStaff || FOR_ALL.has(code))
    .map(({ code, sentence }) => (
      <Alert key={code} severity="warning" sx={{ mx: { xs: 2, md: 3.5 }, mt: 1.5 }}>
        {sentence}
      </Alert>
    ));
}
