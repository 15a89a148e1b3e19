import { Box, Typography } from '@mui/material';

interface PhotoThumbProps {
  /** Where the picture comes from; nothing while it is neither here nor on the server. */
  readonly source: string | undefined;
  readonly alt: string;
  readonly caption: string | undefined;
  /** Pixels; it is three quarters as high. */
  readonly width: number;
  /** Whether it opens by itself, as large as it is. */
  readonly opens: boolean;
}

/** A photo made small, with what it shows. */
export function PhotoThumb({ source, alt, caption, width, opens }: PhotoThumbProps) {
  const link = opens ? ({ component: 'a', href: source, target: '_blank', rel: 'noreferrer' } as const) : {};
  return (
    <Box {...link} sx={{ display: 'block', width, color: 'text.secondary' }}>
      {source !== undefined && (
        <Box
          component="img"
          src={source}
          alt={alt}
          sx={{ width, height: width * 0.75, objectFit: 'cover', borderRadius: 0.5, display: 'block' }}
        />
      )}
      {caption && <Typography variant="caption">{caption}</Typography>}
    </Box>
  );
}
