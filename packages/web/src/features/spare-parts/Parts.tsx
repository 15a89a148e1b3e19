import { Box, Button, Stack, TextField, Typography } from '@mui/material';
import type { PartView } from '@entretien/contracts';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { figureFont } from '../../components/theme/theme.js';
import { useParts, useSettings } from '../../data/queries.js';
import { Figure } from '../../components/Figure.js';
import { Empty, ErrorState, LoadingSkeleton } from '../../components/States.js';

import { CompareDialog } from './CompareDialog.js';
import { MoveDialog } from './MoveDialog.js';
import { PartDialog } from './PartDialog.js';

type OpenDialog =
  | { readonly dialog: 'add' }
  | { readonly dialog: 'edit'; readonly part: PartView }
  | { readonly dialog: 'move'; readonly part: PartView }
  | { readonly dialog: 'compare'; readonly part: PartView };

/** The catalogue, with what the van holds. */
export function Parts() {
  const parts = useParts();
  const currency = useSettings().data?.currency ?? 'EUR';
  const [search, setSearch] = useSearchParams();
  const [open, setOpen] = useState<OpenDialog | null>(null);
  const text = search.get('q') ?? '';
  const [withRetired, setWithRetired] = useState(false);
  const hasRetired = (parts.data ?? []).some(({ isRetired }) => isRetired);
  const shown = (parts.data ?? []).filter(
    (part) =>
      (withRetired || !part.isRetired) &&
      `${part.name} ${part.number} ${part.answers}`.toLowerCase().includes(text.trim().toLowerCase()),
  );
  const close = () => setOpen(null);
  return (
    <Box sx={{ px: { xs: 2, md: 3.5 }, pt: 2, pb: 4, width: '100%' }}>
      <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'start', gap: 2, mb: 1.5 }}>
        <Typography variant="h1">Parts</Typography>
        <Button variant="contained" onClick={() => setOpen({ dialog: 'add' })} sx={{ minHeight: 44 }}>
          Add a part
        </Button>
      </Stack>
      {parts.isPending && <LoadingSkeleton lines={8} />}
      {parts.isError && <ErrorState error={parts.error} onRetry={() => void parts.refetch()} />}
      {parts.data?.length === 0 && (
        <Empty title="The catalogue is empty.">
          With the parts in it, a visit says beforehand what the van is short of.
        </Empty>
      )}
      {(parts.data?.length ?? 0) > 0 && (
        <TextField
          label="Find a part"
          size="small"
          value={text}
          onChange={(event) =>
            setSearch(event.target.value === '' ? {} : { q: event.target.value }, { replace: true })
          }
          slotProps={{ htmlInput: { maxLength: 80 } }}
          sx={{ mb: 1, width: { xs: '100%', sm: 320 } }}
        />
      )}
      <Box component="ul" aria-label="Parts" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {shown.map((part) => (
          <PartRow
            key={part.id}
            part={part}
            currency={currency}
            onEdit={() => setOpen({ dialog: 'edit', part })}
            onMove={() => setOpen({ dialog: 'move', part })}
            onCompare={() => setOpen({ dialog: 'compare', part })}
          />
        ))}
      </Box>
      {hasRetired && (
        <Button onClick={() => setWithRetired(!withRetired)} sx={{ minHeight: 44, px: 0 }}>
          {withRetired ? 'Hide those out of the catalogue' : 'Show those out of the catalogue'}
        </Button>
      )}
      {open?.dialog === 'add' && <PartDialog onClose={close} />}
      {open?.dialog === 'edit' && <PartDialog part={open.part} onClose={close} />}
      {open?.dialog === 'move' && <MoveDialog part={open.part} onClose={close} />}
      {open?.dialog === 'compare' && (
        <CompareDialog original={open.part} parts={parts.data ?? []} onClose={close} />
      )}
    </Box>
  );
}

interface RowProps {
  readonly part: PartView;
  readonly currency: string;
  readonly onEdit: () => void;
  readonly onMove: () => void;
  readonly onCompare: () => void;
}

/** What it comes to in a year of use. */
function yearText({ usedPastYear, priceCents }: PartView, currency: string): string {
  if (usedPastYear === 0) return '';
  const cost =
    priceCents === undefined ? '' : `, ${((usedPastYear * priceCents) / 100).toFixed(0)} ${currency}`;
  return ` · ${formatCount(usedPastYear)} used in a year${cost}`;
}

function PartRow({ part, currency, onEdit, onMove, onCompare }: RowProps) {
  return (
    <Box
      component="li"
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr auto', md: '110px minmax(0, 1fr) 90px 90px auto' },
        columnGap: 2,
        alignItems: 'center',
        borderTop: 1,
        borderColor: 'divider',
        minHeight: 56,
        py: 0.5,
      }}
    >
      <Typography variant="body2" sx={{ ...figureFont, color: 'text.secondary' }}>
        {part.number}
      </Typography>
      <Box sx={{ minWidth: 0, gridRow: { xs: 2, md: 'auto' }, gridColumn: { xs: '1 / -1', md: 'auto' } }}>
        <Typography sx={{ fontWeight: 650, lineHeight: 1.25 }}>{part.name}</Typography>
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          {part.answers}
          {part.fits.length > 0
            ? ` · for ${part.fits.length} ${part.fits.length === 1 ? 'unit' : 'units'}`
            : ''}
          {part.supplier ? ` · ${part.supplier}` : ''}
          {part.secondSource ? `, or ${part.secondSource}` : ''}
          {part.leadDays === undefined ? '' : ` · comes within ${part.leadDays} d`}
          {yearText(part, currency)}
          {part.isRetired ? ' · out of the catalogue' : ''}
        </Typography>
        {part.contents && (
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            In it: {part.contents}
          </Typography>
        )}
      </Box>
      <Figure
        value={formatCount(part.inVan)}
        unit="in van"
        sx={{
          color: part.inVan < 0 ? 'oxide' : part.inVan === 0 ? 'brass' : 'text.primary',
          textAlign: 'right',
        }}
      />
      <Box sx={{ textAlign: 'right', display: { xs: 'none', md: 'block' } }}>
        {part.priceCents !== undefined && (
          <Figure value={(part.priceCents / 100).toFixed(2)} unit={currency} />
        )}
      </Box>
      <Stack direction="row" sx={{ gridColumn: { xs: '1 / -1', md: 'auto' } }}>
        <Button onClick={onEdit} aria-label={`Edit ${part.name}`} sx={{ minHeight: 44 }}>
          Edit
        </Button>
        <Button onClick={onMove} aria-label={`Count ${part.name}`} sx={{ minHeight: 44 }}>
          Count
        </Button>
        <Button onClick={onCompare} aria-label={`Compare ${part.name}`} sx={{ minHeight: 44 }}>
          Compare
        </Button>
      </Stack>
    </Box>
  );
}

function formatCount(count: number): string {
  return Number.isInteger(count) ? String(count) : count.toFixed(1);
}
