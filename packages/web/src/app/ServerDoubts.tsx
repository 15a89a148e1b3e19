import { Alert } from '@mui/material';
import type { HealthView } from '@entretien/contracts';
import { useQuery } from '@tanstack/react-query';
import { getJson } from '../data/api.js';

/** What the server itself finds strange, on every page: with a wrong clock no date can be trusted. */
export function ServerDoubts() {
  const { data } = useQuery({
    queryKey: ['health'],
    queryFn: () => getJson<HealthView>('/health'),
    staleTime: Infinity,
    retry: false,
  });
  return data?.doubts.map(({ code, sentence }) => (
    <Alert key={code} severity="warning" sx={{ mx: { xs: 2, md: 3.5 }, mt: 1.5 }}>
      {sentence}
    </Alert>
  ));
}
