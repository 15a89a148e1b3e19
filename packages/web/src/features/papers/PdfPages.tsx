import { Box, Button, Stack, TextField, Typography } from '@mui/material';
import worker from 'pdfjs-dist/build/pdf.worker.min.mjs?url';
import { useMemo, useState } from 'react';
import { Document, Page, pdfjs } from 'react-pdf';
import 'react-pdf/dist/Page/TextLayer.css';
import { useSearchParams } from 'react-router';
import { LoadingSkeleton } from '../../components/States.js';
import { useKeys } from '../../components/use-keys.js';
import { useWidth } from '../../components/use-width.js';

pdfjs.GlobalWorkerOptions.workerSrc = worker;

/** Nothing of a paper runs, and nothing is fetched for it. */
const options = { isEvalSupported: false, enableXfa: false, disableAutoFetch: true } as const;

const WIDEST_PX = 900;
const zooms = [1, 1.5, 2.25] as const;

interface PdfPagesProps {
  readonly content: ArrayBuffer;
  readonly title: string;
}

/** One page at a time: its number stands in the address, so that a link leads to it. */
export function PdfPages({ content, title }: PdfPagesProps) {
  const [search, setSearch] = useSearchParams();
  const [count, setCount] = useState<number | null>(null);
  const [zoom, setZoom] = useState(0);
  const [isBroken, setBroken] = useState(false);
  const [measure, width] = useWidth<HTMLDivElement>();
  // What draws takes the bytes for itself: it gets its own.
  const file = useMemo(() => ({ data: new Uint8Array(content.slice(0)) }), [content]);
  const asked = Number(search.get('page') ?? 1);
  const page = Math.min(count ?? 1, Math.max(1, Number.isInteger(asked) ? asked : 1));
  const turn = (to: number) => {
    if (count === null || to < 1 || to > count) return;
    setSearch({ page: String(to) }, { replace: true });
    window.scrollTo({ top: 0 });
  };
  useKeys({ ArrowRight: () => turn(page + 1), ArrowLeft: () => turn(page - 1) });
  if (isBroken) return <Typography role="alert">This PDF cannot be drawn on this device.</Typography>;
  return (
    <Box ref={measure}>
      <Stack
        direction="row"
        sx={{
          alignItems: 'center',
          gap: 0.5,
          flexWrap: 'wrap',
          position: 'sticky',
          top: 0,
          zIndex: 2,
          bgcolor: 'background.default',
          py: 0.5,
        }}
      >
        <Button disabled={page <= 1} onClick={() => turn(page - 1)} sx={turnLook}>
          Back
        </Button>
        <PageField key={page} page={page} count={count} onPage={turn} />
        <Button disabled={count === null || page >= count} onClick={() => turn(page + 1)} sx={turnLook}>
          On
        </Button>
        <Button onClick={() => setZoom((zoom + 1) % zooms.length)} sx={{ minHeight: 48, ml: 'auto' }}>
          {zoom === zooms.length - 1 ? 'Whole width' : 'Larger'}
        </Button>
      </Stack>
      <Box sx={{ overflowX: 'auto' }} aria-label={`${title}, page ${page}`} role="region" tabIndex={0}>
        <Document
          file={file}
          options={options}
          loading={<LoadingSkeleton lines={12} />}
          onLoadSuccess={({ numPages }) => setCount(numPages)}
          onLoadError={() => setBroken(true)}
          onPassword={() => setBroken(true)}
        >
          {width > 0 && count !== null && (
            <Page
              pageNumber={page}
              width={Math.min(width, WIDEST_PX) * zooms[zoom]!}
              renderAnnotationLayer={false}
              loading={<LoadingSkeleton lines={12} />}
            />
          )}
        </Document>
      </Box>
    </Box>
  );
}

const turnLook = { minHeight: 48, minWidth: 72 } as const;

interface PageFieldProps {
  readonly page: number;
  readonly count: number | null;
  readonly onPage: (page: number) => void;
}

function PageField({ page, count, onPage }: PageFieldProps) {
  const [text, setText] = useState(String(page));
  return (
    <Stack
      component="form"
      direction="row"
      onSubmit={(event) => {
        event.preventDefault();
        onPage(Number(text));
      }}
      sx={{ alignItems: 'center', gap: 0.75 }}
    >
      <TextField
        size="small"
        value={text}
        onChange={(event) => setText(event.target.value.replace(/\D/g, '').slice(0, 4))}
        onBlur={() => onPage(Number(text))}
        slotProps={{ htmlInput: { inputMode: 'numeric', 'aria-label': 'Page' } }}
        sx={{ width: 72 }}
      />
      <Typography variant="body2">of {count ?? '…'}</Typography>
    </Stack>
  );
}
