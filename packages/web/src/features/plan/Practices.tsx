import { Box, FormControlLabel, Radio, RadioGroup, Typography } from '@mui/material';
import type { PracticeOfCompressor } from '@entretien/core/plan';

interface PracticesProps {
  readonly practices: readonly PracticeOfCompressor[];
  readonly onChoose: (practice: string, option: string) => void;
}

/** Where practice knows more than one way: each by name with its sentence, the usual one and why. */
export function Practices({ practices, onChoose }: PracticesProps) {
  return (
    <Box>
      {practices.map((practice) => (
        <Box component="section" key={practice.code} sx={{ mb: 2 }}>
          <Typography variant="h3" id={`school-${practice.code}`}>
            {practice.name}
          </Typography>
          <RadioGroup
            aria-labelledby={`school-${practice.code}`}
            value={practice.chosen}
            onChange={(event) => onChoose(practice.code, event.target.value)}
          >
            {practice.options.map(({ code, name, sentence }) => (
              <FormControlLabel
                key={code}
                value={code}
                control={<Radio size="small" />}
                sx={{ alignItems: 'start', mr: 0, py: 0.25 }}
                label={
                  <Box sx={{ pt: 0.75 }}>
                    <Typography variant="body2" sx={{ fontWeight: 600, lineHeight: 1.25 }}>
                      {name}
                      {code === practice.usual && (
                        <Box component="span" sx={{ color: 'text.secondary', fontWeight: 400 }}>
                          {' '}
                          · usual
                        </Box>
                      )}
                    </Typography>
                    <Typography
                      variant="caption"
                      sx={{ color: 'text.secondary', lineHeight: 1.35, display: 'block' }}
                    >
                      {sentence}
                      {code === practice.usual ? ` ${practice.why}` : ''}
                    </Typography>
                  </Box>
                }
              />
            ))}
          </RadioGroup>
        </Box>
      ))}
    </Box>
  );
}
