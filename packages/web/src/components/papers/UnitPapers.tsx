import { Box, Button, Stack, Typography } from '@mui/material';
import type { PaperView } from '@entretien/contracts';
import { formatNumber } from '@entretien/core/basics';
import { paperKindNames } from '@entretien/core/machine';
import { useQueryClient } from '@tanstack/react-query';
import { lazy, Suspense, useState } from 'react';
import { Link } from 'react-router';
import { postJson, sentenceOf } from '../../data/api.js';
import { refresh, usePapers } from '../../data/queries.js';

const AddPaper = lazy(() => import('./AddPaper.js').then((part) => ({ default: part.AddPaper })));

/** The papers of a machine, and a way to add one. */
export function UnitPapers({ compressorId }: { readonly compressorId: string }) {
  const { data = [] } = usePapers(compressorId);
  const [isAdding, setAdding] = useState(false);
  return (
    <Stack spacing={0.5}>
      {data.length === 0 && (
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          No manual is kept here yet.
        </Typography>
      )}
      <Box component="ul" aria-label="Papers" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {data.map((paper) => (
          <PaperRow key={paper.id} paper={paper} />
        ))}
      </Box>
      <Box>
        <Button variant="outlined" onClick={() => setAdding(true)} sx={{ minHeight: 44 }}>
          Add a paper or a sound
        </Button>
      </Box>
      <Suspense fallback={null}>
        {isAdding && <AddPaper compressorId={compressorId} onClose={() => setAdding(false)} />}
      </Suspense>
    </Stack>
  );
}

function PaperRow({ paper }: { readonly paper: PaperView }) {
  const client = useQueryClient();
  const [problem, setProblem] = useState<string | null>(null);
  const [isAsking, setAsking] = useState(false);
  const { id, compressorId, kind, title, type, pages, bytes } = paper;
  const path = `/compressors/${compressorId}/papers/${id}`;
  const putAside = async () => {
    try {
      await postJson(`${path}/aside`, {});
      await refresh(client);
    } catch (error) {
      setProblem(sentenceOf(error));
    }
  };
  const about = [
    paperKindNames[kind],
    pages === null ? '' : `${pages} ${pages === 1 ? 'page' : 'pages'}`,
    `${formatNumber(Math.max(0.1, Math.round(bytes / 100_000) / 10))} MB`,
  ];
  return (
    <Box component="li" sx={{ borderBottom: 1, borderColor: 'divider', py: 0.5 }}>
      <Stack direction="row" sx={{ alignItems: 'center', gap: 1, minHeight: 44 }}>
        <Box sx={{ flex: 1, minWidth: 0 }}>
          {type === 'pdf' ? (
            <Box
              component={Link}
              to={`/units/${compressorId}/papers/${id}`}
              sx={{ color: 'primary.main', fontWeight: 600, display: 'block', py: 0.5 }}
            >
              {title}
            </Box>
          ) : (
            <Typography sx={{ fontWeight: 600 }}>{title}</Typography>
          )}
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            {about.filter(Boolean).join(', ')}
          </Typography>
        </Box>
        <Button
          onClick={() => (isAsking ? void putAside() : setAsking(true))}
          aria-label={isAsking ? `Yes, put ${title} aside` : `Put ${title} aside`}
          sx={{ minHeight: 44, color: isAsking ? 'oxide' : 'text.secondary', flex: 'none' }}
        >
          {isAsking ? 'Yes, aside' : 'Put aside'}
        </Button>
      </Stack>
      {type !== 'pdf' && (
        <Box
          component="audio"
          controls
          preload="none"
          src={`/api${path}/file`}
          aria-label={title}
          sx={{ width: '100%', height: 44, display: 'block' }}
        />
      )}
      {problem && (
        <Typography role="alert" variant="body2" sx={{ color: 'oxide' }}>
          {problem}
        </Typography>
      )}
    </Box>
  );
}
