import { Box, Button, Stack, Typography } from '@mui/material';
import type { FillableCylinderView, FillingView } from '@entretien/contracts';
import { useQuery } from '@tanstack/react-query';
import { Link, useParams, useSearchParams } from 'react-router';
import { getJson } from '../../data/api.js';
import { ErrorState, LoadingSkeleton } from '../../components/States.js';
import { useDraft } from './draft.js';
import { ChooseCylinder } from './ChooseCylinder.js';
import { FillLog } from './FillLog.js';
import { GuidedFill } from './GuidedFill.js';

/** Filling cylinders from a set, one after the other: on the phone, with one hand. */
export function FillPage() {
  const { compressorId } = useParams();
  const filling = useQuery({
    queryKey: ['filling', compressorId],
    queryFn: () => getJson<FillingView>(`/compressors/${compressorId}/filling`),
  });
  return (
    <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 1.5, pb: 4, width: '100%', maxWidth: 1200 }}>
      {filling.isPending && <LoadingSkeleton lines={8} />}
      {filling.isError && <ErrorState error={filling.error} onRetry={() => void filling.refetch()} />}
      {filling.data && <Filling filling={filling.data} />}
    </Box>
  );
}

function Filling({ filling }: { readonly filling: FillingView }) {
  const { draft, put, clear, forget } = useDraft(filling.compressorId);
  const [search, setSearch] = useSearchParams();
  const asked = search.get('cylinder');
  const chosen = filling.cylinders.find(({ id }) => id === (draft.vesselId ?? asked));
  const begin = ({ id }: FillableCylinderView) => put({ vesselId: id });
  const end = () => {
    clear();
    setSearch({}, { replace: true });
  };
  const { tag } = filling.set.plate;
  return (
    <>
      <Stack direction="row" sx={{ alignItems: 'baseline', justifyContent: 'space-between', gap: 1, mb: 1 }}>
        <Typography variant="h1">Fill from {tag}</Typography>
        <Button component={Link} to={`/units/${filling.compressorId}`} sx={{ minHeight: 44, flex: 'none' }}>
          {tag}
        </Button>
      </Stack>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 560px) minmax(0, 1fr)' },
          columnGap: 6,
          rowGap: 4,
          alignItems: 'start',
        }}
      >
        {chosen ? (
          <GuidedFill
            key={draft.id}
            filling={filling}
            cylinder={chosen}
            draft={draft}
            put={(changes) => put({ vesselId: chosen.id, ...changes })}
            onSaved={forget}
            onEnd={end}
          />
        ) : (
          <ChooseCylinder filling={filling} onChoose={begin} />
        )}
        <FillLog filling={filling} />
      </Box>
    </>
  );
}
