import { Alert, Box, Button, Stack, Typography } from '@mui/material';
import type { FillableCylinderView, FillingView } from '@entretien/contracts';
import { describeDay, describeDayAt, formatDay, localDayAt } from '@entretien/core/basics';
import { fillProblems, forecastFill, USUAL_AMBIENT_C, usualAim } from '@entretien/core/filling';
import { currentInstant } from '../../data/clock.js';
import { useFormatQuantity } from '../../components/use-format-quantity.js';
import { figureFont } from '../../components/theme/theme.js';
import { CylinderGlyph } from './CylinderGlyph.js';
import { readCo, type FillDraft } from './draft.js';
import { BeforeAir } from './BeforeAir.js';
import { Running } from './Running.js';
import { AfterAir } from './AfterAir.js';

export interface GuidedFillProps {
  readonly filling: FillingView;
  readonly cylinder: FillableCylinderView;
  readonly draft: FillDraft;
  readonly put: (changes: Partial<FillDraft>) => void;
  readonly onSaved: () => void;
  readonly onEnd: () => void;
}

/** One fill, from the cylinder in the hand to the log. */
export function GuidedFill({ filling, cylinder, draft, put, onSaved, onEnd }: GuidedFillProps) {
  const today = formatDay(localDayAt(currentInstant(), filling.timeZone));
  const aim = draft.aim.value ?? usualAim(filling.set, cylinder);
  const fromBar = draft.from.value;
  const problems = fillProblems(filling.set, {
    cylinder,
    fromBar,
    coPpm: readCo(draft.co) ?? null,
    toBar: aim,
    connectorBar: draft.connectorBar ?? cylinder.connectorBar ?? 0,
    today,
  });
  const forecast =
    fromBar === null || !cylinder.volumeL
      ? null
      : forecastFill(
          {
            volumeL: cylinder.volumeL,
            fromBar,
            toBar: aim,
            ambientC: USUAL_AMBIENT_C,
            atmosphereBarAbs: filling.atmosphereBarAbs,
          },
          filling.set.plate.fadLpm,
        );
  const expected = forecast?.ok ? forecast.value : null;
  const level = draft.end.value ?? fromBar;
  return (
    <Box component="section" aria-label={`Fill ${cylinder.tag}`}>
      <Head
        cylinder={cylinder}
        timeZone={filling.timeZone}
        share={cylinder.ratedBar && level !== null ? level / cylinder.ratedBar : 0}
      />
      {problems.length > 0 && draft.startedAt === null && (
        <Alert severity="error" sx={{ my: 1.5 }}>
          <strong>Do not fill.</strong> {problems.map(({ sentence }) => sentence).join(' ')}
        </Alert>
      )}
      {draft.startedAt === null && (
        <BeforeAir
          filling={filling}
          draft={draft}
          put={put}
          aim={aim}
          expected={expected}
          isRefused={problems.length > 0}
        />
      )}
      {draft.startedAt !== null && draft.endedAt === null && (
        <Running
          timeZone={filling.timeZone}
          startedAt={draft.startedAt}
          fromBar={fromBar!}
          aim={aim}
          minutes={expected?.minutes ?? null}
          onEnd={put}
        />
      )}
      {draft.endedAt !== null && (
        <AfterAir
          filling={filling}
          cylinder={cylinder}
          draft={draft}
          put={put}
          onSaved={onSaved}
          onEnd={onEnd}
        />
      )}
      {draft.endedAt === null && (
        <Button color="inherit" onClick={onEnd} sx={{ minHeight: 44, mt: 1 }}>
          {draft.startedAt === null ? 'Another cylinder' : 'Give up this fill'}
        </Button>
      )}
    </Box>
  );
}

interface HeadProps {
  readonly cylinder: FillableCylinderView;
  readonly timeZone: string;
  readonly share: number;
}

function Head({ cylinder, timeZone, share }: HeadProps) {
  const format = useFormatQuantity();
  const { tag, volumeL, ratedBar, testedUntil, lastFilledAt, siteName } = cylinder;
  const lines = [
    [
      siteName,
      volumeL ? format(volumeL, 'volume') : '',
      ratedBar ? `rated ${format(ratedBar, 'pressure')}` : '',
    ],
    [
      testedUntil === null ? 'no test on record' : `tested until ${describeDay(testedUntil)}`,
      lastFilledAt === null ? '' : `last filled ${describeDayAt(Date.parse(lastFilledAt), timeZone)}`,
    ],
  ];
  return (
    <Stack
      direction="row"
      sx={{ gap: 2, alignItems: 'center', pb: 1.5, borderBottom: 1, borderColor: 'divider' }}
    >
      <CylinderGlyph share={share} />
      <Box>
        <Typography
          component="h2"
          sx={{ ...figureFont, fontWeight: 750, fontSize: '1.7rem', lineHeight: 1.2 }}
        >
          {tag}
        </Typography>
        {lines.map((parts, index) => (
          <Typography key={index} variant={index === 0 ? 'body1' : 'body2'} sx={{ color: 'text.secondary' }}>
            {parts.filter((part) => part !== '').join(' · ')}
          </Typography>
        ))}
      </Box>
    </Stack>
  );
}
