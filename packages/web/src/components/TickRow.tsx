import { Box, ButtonBase, Typography } from '@mui/material';
import { Tick } from './Tick.js';

interface TickRowProps {
  readonly isOn: boolean;
  readonly title: string;
  readonly hint: string;
  readonly onPress: () => void;
  /** On which side of it a line parts it from the next. */
  readonly edge?: 'top' | 'bottom';
}

/** Something that is gone through and ticked, wide enough for a glove. */
export function TickRow({ isOn, title, hint, onPress, edge = 'bottom' }: TickRowProps) {
  return (
    <ButtonBase
      role="checkbox"
      aria-checked={isOn}
      aria-label={title}
      onClick={onPress}
      sx={{
        display: 'flex',
        width: '100%',
        gap: 1.5,
        alignItems: 'center',
        justifyContent: 'start',
        textAlign: 'left',
        minHeight: 62,
        py: 1,
        ...(edge === 'top' ? { borderTop: 1 } : { borderBottom: 1 }),
        borderColor: 'divider',
      }}
    >
      <Tick on={isOn} />
      <Box>
        <Typography sx={{ fontWeight: 650, lineHeight: 1.3 }}>{title}</Typography>
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          {hint}
        </Typography>
      </Box>
    </ButtonBase>
  );
}
