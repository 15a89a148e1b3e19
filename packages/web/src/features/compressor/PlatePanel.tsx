import WarningAmberIcon from '@mui/icons-material/WarningAmber';
import { Box, Button, Stack, Typography } from '@mui/material';
import type { CompressorView } from '@entretien/contracts';
import { formatQuantity, unitByCode } from '@entretien/core/quantities';
import { Link } from 'react-router';
import { usePreferences } from '../../data/preferences.js';
import { Figure } from '../../components/Figure.js';
import { formatDate } from '../../components/describe-due.js';
import {
  allPlateGroups,
  familyName,
  fieldsFor,
  formatPlateValue,
  type PlateField,
} from '../../components/plate-fields.js';
import { ModelNotes } from '../../components/ModelNotes.js';
import { UnitPapers } from '../../components/papers/UnitPapers.js';
import { UnitPhotos } from '../../components/UnitPhotos.js';
import { useNow } from '../../components/use-now.js';

interface PlatePanelProps {
  readonly unit: CompressorView;
  readonly timeZone: string;
  readonly onEdit: () => void;
  readonly onMove: () => void;
}

/** What is known of the machine; what is not known says so. */
export function PlatePanel({ unit, timeZone, onEdit, onMove }: PlatePanelProps) {
  const now = useNow();
  return (
    <Stack spacing={1.75}>
      {unit.doubts.map((doubt) => (
        <Stack
          key={`${doubt.code} ${doubt.field}`}
          direction="row"
          spacing={1}
          sx={{ bgcolor: 'brassGround', color: 'brass', p: 1 }}
        >
          <WarningAmberIcon fontSize="small" />
          <Typography variant="body2" sx={{ color: 'text.primary' }}>
            {doubt.sentence}
          </Typography>
        </Stack>
      ))}
      <Box component="dl" sx={list}>
        <Row label="Family" value={familyName(unit.family)} />
        <Row
          label={unit.history === 'new' ? 'Commissioned' : 'On record since'}
          value={formatDate(unit.commissionedOn, now, timeZone)}
        />
        <Row label="History" value={unit.history === 'new' ? 'counted from new' : 'not known'} />
      </Box>
      {allPlateGroups.map(({ title, fields }) => (
        <Box key={title}>
          <Typography variant="h3" component="h3" sx={{ mb: 0.5 }}>
            {title}
          </Typography>
          <Box component="dl" sx={list}>
            {fieldsFor(fields, unit.family).map((field) => (
              <PlateRow key={field.name} field={field} unit={unit} />
            ))}
          </Box>
        </Box>
      ))}
      <ModelNotes unit={unit} timeZone={timeZone} mayAdd />
      <Box component="section" aria-label="Papers of this machine">
        <Typography variant="h3" component="h3" sx={{ mb: 0.5 }}>
          Papers and sounds
        </Typography>
        <UnitPapers compressorId={unit.id} />
      </Box>
      <Box>
        <Typography variant="h3" component="h3" sx={{ mb: 0.5 }}>
          Photos
        </Typography>
        <UnitPhotos compressorId={unit.id} />
      </Box>
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
        <Button variant="outlined" onClick={onEdit}>
          Change data plate
        </Button>
        <Button onClick={onMove}>Move or retire</Button>
        <Button component={Link} to={`/points?unit=${unit.id}`}>
          Points of use
        </Button>
      </Stack>
    </Stack>
  );
}

const list = { display: 'grid', gridTemplateColumns: 'minmax(0, 1fr) auto', m: 0, columnGap: 2 };

function PlateRow({ field, unit }: { readonly field: PlateField; readonly unit: CompressorView }) {
  const chosen = usePreferences((preferences) => preferences.units);
  const value = unit[field.name];
  if (value === undefined || value === null) return <Row label={field.label} value="not known" faint />;
  if (field.as === 'quantity') {
    const shown = formatQuantity(value as number, field.kind, unitByCode(field.kind, chosen[field.kind]));
    return <Row label={field.label} value={shown.figure} unit={shown.unit} />;
  }
  if (typeof value === 'boolean') return <Row label={field.label} value={value ? 'yes' : 'no'} />;
  return <Row label={field.label} value={formatPlateValue(field, value)} />;
}

interface RowProps {
  readonly label: string;
  readonly value: string;
  readonly unit?: string;
  readonly faint?: boolean;
}

function Row({ label, value, unit, faint = false }: RowProps) {
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: 'subgrid',
        gridColumn: '1 / -1',
        borderBottom: 1,
        borderColor: 'divider',
        py: 0.55,
        alignItems: 'baseline',
      }}
    >
      <Typography component="dt" variant="body2" sx={{ color: 'text.secondary' }}>
        {label}
      </Typography>
      <Box component="dd" sx={{ m: 0, textAlign: 'right' }}>
        {faint ? (
          <Typography variant="body2" sx={{ color: 'text.secondary', fontStyle: 'italic' }}>
            {value}
          </Typography>
        ) : (
          <Figure
            value={value}
            {...(unit === undefined ? {} : { unit })}
            sx={{ fontSize: '0.88rem', whiteSpace: 'normal' }}
          />
        )}
      </Box>
    </Box>
  );
}
