import ArrowDownwardIcon from '@mui/icons-material/ArrowDownward';
import ArrowUpwardIcon from '@mui/icons-material/ArrowUpward';
import { Alert, Box, Button, IconButton, Stack, Typography } from '@mui/material';
import { ChangeSite, type SiteMetersView, type SiteView } from '@entretien/contracts';
import { useState } from 'react';
import { v7 as newId } from 'uuid';
import { figureFont } from '../../components/theme/theme.js';
import { sentenceOf } from '../../data/api.js';
import { usePost } from '../../data/queries.js';

interface WalkOrderProps {
  readonly meters: SiteMetersView;
  readonly onDone: () => void;
}

/** Puts the units of a site into the order in which one walks by them. */
export function WalkOrder({ meters, onDone }: WalkOrderProps) {
  const [order, setOrder] = useState(meters.items);
  const post = usePost<ChangeSite, SiteView>(ChangeSite, `/sites/${meters.siteId}/changes`);
  const move = (index: number, step: number) => {
    const next = [...order];
    const [moved] = next.splice(index, 1);
    next.splice(index + step, 0, moved!);
    setOrder(next);
  };
  const save = () =>
    post.mutate({ id: newId(), walk: order.map(({ compressorId }) => compressorId) }, { onSuccess: onDone });
  return (
    <Box>
      <Box component="ol" aria-label="Walking order" sx={{ listStyle: 'none', p: 0, m: 0, mb: 2 }}>
        {order.map(({ compressorId, tag, name, description }, index) => (
          <Stack
            component="li"
            key={compressorId}
            direction="row"
            sx={{
              alignItems: 'center',
              gap: 1,
              borderBottom: '1px solid var(--mui-palette-divider)',
              py: 0.5,
            }}
          >
            <Box sx={{ flex: 1, minWidth: 0 }}>
              <Typography noWrap>
                <Box component="span" sx={{ ...figureFont, fontWeight: 650, pr: 1 }}>
                  {tag}
                </Box>
                <Box component="span" sx={{ color: 'text.secondary' }}>
                  {name ?? description}
                </Box>
              </Typography>
            </Box>
            <IconButton
              aria-label={`${tag} earlier`}
              disabled={index === 0}
              onClick={() => move(index, -1)}
              sx={{ minWidth: 44, minHeight: 44 }}
            >
              <ArrowUpwardIcon />
            </IconButton>
            <IconButton
              aria-label={`${tag} later`}
              disabled={index === order.length - 1}
              onClick={() => move(index, 1)}
              sx={{ minWidth: 44, minHeight: 44 }}
            >
              <ArrowDownwardIcon />
            </IconButton>
          </Stack>
        ))}
      </Box>
      {post.isError && (
        <Alert severity="error" variant="outlined" sx={{ mb: 1.5 }}>
          {sentenceOf(post.error)}
        </Alert>
      )}
      <Button variant="contained" onClick={save} disabled={post.isPending} sx={{ minHeight: 44 }}>
        Keep this order
      </Button>
    </Box>
  );
}
