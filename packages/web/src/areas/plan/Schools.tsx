import { Box, FormControlLabel, Radio, RadioGroup, Typography } from '@mui/material';
import type { SchoolOfUnit } from '@entretien/core/plan';

interface SchoolsProps {
  readonly schools: readonly SchoolOfUnit[];
  readonly onChoose: (school: string, option: string) => void;
}

/** Where practice knows more than one way: each by name with its sentence, the usual one and why. */
export function Schools({ schools, onChoose }: SchoolsProps) {
  return (
    <Box>
      {schools.map((school) => (
        <Box component="section" key={school.code} sx={{ mb: 2 }}>
          <Typography variant="h3" id={`school-${school.code}`}>
            {school.name}
          </Typography>
          <RadioGroup
            aria-labelledby={`school-${school.code}`}
            value={school.chosen}
            onChange={(event) => onChoose(school.code, event.target.value)}
          >
            {school.options.map(({ code, name, sentence }) => (
              <FormControlLabel
                key={code}
                value={code}
                control={<Radio size="small" />}
                sx={{ alignItems: 'start', mr: 0, py: 0.25 }}
                label={
                  <Box sx={{ pt: 0.75 }}>
                    <Typography variant="body2" sx={{ fontWeight: 600, lineHeight: 1.25 }}>
                      {name}
                      {code === school.usual && (
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
                      {code === school.usual ? ` ${school.why}` : ''}
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
