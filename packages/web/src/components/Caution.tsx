import WarningAmberIcon from '@mui/icons-material/WarningAmber';
import { Stack, Typography } from '@mui/material';

/** The hazard of what is about to be done, where it is done. */
export function Caution({ text }: { readonly text: string }) {
  return (
    <Stack
      role="note"
      direction="row"
      spacing={1}
      sx={{
        bgcolor: 'brassGround',
        color: 'brass',
        borderLeft: 4,
        borderColor: 'brass',
        p: 1,
        mb: 1,
      }}
    >
      <WarningAmberIcon fontSize="small" />
      <Typography variant="body2" sx={{ color: 'text.primary' }}>
        {text}
      </Typography>
    </Stack>
  );
}
