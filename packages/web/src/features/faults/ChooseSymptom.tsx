import { Box, Button, Stack, Typography } from '@mui/material';
import type { CompressorView, MeasurementView } from '@entretien/contracts';
import { engineListsOf, symptomsOf, type Symptom } from '@entretien/core/faults';
import { checkByCode } from '@entretien/core/checks';
import { FaultLists } from '../../components/FaultLists.js';
import { measuredSymptoms } from './suggest.js';

interface ChooseSymptomProps {
  readonly unit: CompressorView;
  readonly measurements: readonly MeasurementView[];
  readonly now: number;
  readonly onChoose: (symptom: Symptom) => void;
}

/** What is seen on the machine: named by the technician, or measured already. */
export function ChooseSymptom({ unit, measurements, now, onChoose }: ChooseSymptomProps) {
  const measured = measuredSymptoms(unit, measurements, now);
  return (
    <>
      {measured.length > 0 && (
        <Box component="section" aria-label="Measured lately" sx={{ mb: 3 }}>
          <Typography variant="h2" sx={{ mb: 1 }}>
            Measured lately
          </Typography>
          <Stack sx={{ gap: 1, maxWidth: 720 }}>
            {measured.map(({ symptom, measurement }) => (
              <SymptomButton
                key={symptom.code}
                text={symptom.text}
                more={`${checkByCode(measurement.check)?.name ?? measurement.check}: ${measurement.judgement.reason}`}
                onClick={() => onChoose(symptom)}
              />
            ))}
          </Stack>
        </Box>
      )}
      <Box component="section" aria-label="What is seen">
        <Typography variant="h2" sx={{ mb: 1 }}>
          What is seen?
        </Typography>
        <Box
          sx={{
            display: 'grid',
            gap: 1,
            gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr', lg: '1fr 1fr 1fr' },
          }}
        >
          {symptomsOf(unit).map((symptom) => (
            <SymptomButton key={symptom.code} text={symptom.text} onClick={() => onChoose(symptom)} />
          ))}
        </Box>
      </Box>
      <FaultLists title="The engine" lists={engineListsOf(unit)} />
    </>
  );
}

interface SymptomButtonProps {
  readonly text: string;
  readonly more?: string;
  readonly onClick: () => void;
}

function SymptomButton({ text, more, onClick }: SymptomButtonProps) {
  return (
    <Button
      variant="outlined"
      color="inherit"
      onClick={onClick}
      sx={{
        minHeight: 60,
        justifyContent: 'start',
        textAlign: 'left',
        lineHeight: 1.25,
        fontWeight: 600,
        fontSize: '1rem',
        borderColor: 'strongRule',
      }}
    >
      <span>
        {text}
        {more !== undefined && (
          <Typography component="span" variant="body2" sx={{ display: 'block', color: 'text.secondary' }}>
            {more}
          </Typography>
        )}
      </span>
    </Button>
  );
}
