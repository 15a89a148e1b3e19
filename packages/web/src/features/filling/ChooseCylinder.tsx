import { Alert, Box, Button, ButtonBase, Stack, TextField, Typography } from '@mui/material';
import type { FillableCylinderView, FillingView } from '@entretien/contracts';
import { describeDay, describeDayAt, formatDay, localDayAt } from '@entretien/core/basics';
import { cylinderProblems, setProblems } from '@entretien/core/filling';
import { useState } from 'react';
import { useFormatQuantity } from '../../components/use-format-quantity.js';
import { useNow } from '../../components/use-now.js';
import { figureFont } from '../../components/theme/theme.js';

interface ChooseCylinderProps {
  readonly filling: FillingView;
  readonly onChoose: (cylinder: FillableCylinderView) => void;
}

/** With so many, a list wants a search. */
const MANY = 8;

/** Which cylinder: what must not be filled says so before anybody carries it over. */
export function ChooseCylinder({ filling, onChoose }: ChooseCylinderProps) {
  const [sought, setSought] = useState('');
  const { cylinders, set, timeZone } = filling;
  const today = formatDay(localDayAt(useNow(), timeZone));
  // A side of the panel alone may be shut: that is asked when the connector is known.
  const against = setProblems({ ...set, stops: set.stops.filter(({ scope }) => scope !== 'side') }, 0);
  const shown = cylinders.filter(({ tag, retiredOn }) => {
    const isGone = retiredOn !== undefined && retiredOn !== null && retiredOn <= today;
    return !isGone && tag.toLowerCase().includes(sought.trim().toLowerCase());
  });
  return (
    <Box component="section" aria-label="Cylinders">
      {against.length > 0 && (
        <Alert severity="error" sx={{ mb: 2 }}>
          {against.map(({ sentence }) => sentence).join(' ')}
        </Alert>
      )}
      {cylinders.length > MANY && (
        <TextField
          fullWidth
          label="Find a cylinder"
          value={sought}
          onChange={(event) => setSought(event.target.value)}
          slotProps={{ htmlInput: { maxLength: 24 } }}
          sx={{ mb: 1 }}
        />
      )}
      {cylinders.length === 0 && (
        <Typography sx={{ color: 'text.secondary' }}>
          No cylinder is on record here. Add them at the fill station on the page of {set.plate.tag}.
        </Typography>
      )}
      {shown.map((cylinder) => (
        <CylinderRow
          key={cylinder.id}
          cylinder={cylinder}
          problem={cylinderProblems(cylinder, today)[0]?.sentence ?? null}
          timeZone={timeZone}
          onChoose={() => onChoose(cylinder)}
        />
      ))}
      {cylinders.length > 0 && (
        <Button
          component="a"
          href={`/api/compressors/${filling.compressorId}/cylinder-labels.pdf`}
          target="_blank"
          sx={{ minHeight: 44, mt: 1 }}
        >
          Print a code for each
        </Button>
      )}
    </Box>
  );
}

interface CylinderRowProps {
  readonly cylinder: FillableCylinderView;
  readonly problem: string | null;
  readonly timeZone: string;
  readonly onChoose: () => void;
}

function CylinderRow({ cylinder, problem, timeZone, onChoose }: CylinderRowProps) {
  const format = useFormatQuantity();
  const { tag, volumeL, ratedBar, testedUntil, lastFilledAt } = cylinder;
  const about = [
    volumeL ? format(volumeL, 'volume') : null,
    ratedBar ? `rated ${format(ratedBar, 'pressure')}` : null,
    testedUntil === null ? null : `tested until ${describeDay(testedUntil)}`,
    lastFilledAt === null ? null : `last filled ${describeDayAt(Date.parse(lastFilledAt), timeZone)}`,
  ].filter((part) => part !== null);
  return (
    <ButtonBase
      onClick={onChoose}
      sx={{
        display: 'block',
        width: '100%',
        textAlign: 'left',
        minHeight: 64,
        py: 1,
        borderTop: 1,
        borderColor: 'divider',
      }}
    >
      <Stack direction="row" sx={{ gap: 1.5, alignItems: 'baseline', flexWrap: 'wrap' }}>
        <Typography component="span" sx={{ ...figureFont, fontWeight: 700, fontSize: '1.15rem' }}>
          {tag}
        </Typography>
        <Typography component="span" variant="body2" sx={{ color: 'text.secondary' }}>
          {about.join(' · ')}
        </Typography>
      </Stack>
      {problem !== null && (
        <Typography variant="body2" sx={{ color: 'oxide', fontWeight: 600 }}>
          Do not fill: {problem}
        </Typography>
      )}
    </ButtonBase>
  );
}
