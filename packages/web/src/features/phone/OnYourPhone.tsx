import { Box, Button, Stack, Typography } from '@mui/material';
import type { ReachView } from '@entretien/contracts';
import { describeDay } from '@entretien/core/basics';
import { useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { getJson } from '../../data/api.js';
import { isInstalled, useInstall } from '../../data/install.js';
import { Brand } from '../../components/Brand.js';
import { ScanCode } from '../../components/ScanCode.js';
import { ErrorState, LoadingSkeleton } from '../../components/States.js';
import { figureFont } from '../../components/theme/theme.js';

/** From the desk to the phone in three steps: open the address, trust the workshop, put it among the programs. */
export function OnYourPhone() {
  const reach = useQuery({ queryKey: ['reach'], queryFn: () => getJson<ReachView>('/reach') });
  return (
    <Box component="main" sx={{ width: '100%', maxWidth: 760, mx: 'auto', px: 2, py: { xs: 2, sm: 4 } }}>
      <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'center', mb: 2 }}>
        <Brand />
        <Button component={Link} to="/" sx={{ minHeight: 44 }}>
          To the work
        </Button>
      </Stack>
      <Typography variant="h1">On your phone</Typography>
      {reach.isPending && <LoadingSkeleton lines={5} />}
      {reach.isError && <ErrorState error={reach.error} onRetry={() => void reach.refetch()} />}
      {reach.data && <Steps reach={reach.data} />}
    </Box>
  );
}

function Steps({ reach }: { readonly reach: ReachView }) {
  const { address, isBeyondThisMachine, authority } = reach;
  if (!isBeyondThisMachine || address === null) return <NotYet />;
  return (
    <Box component="ol" sx={{ listStyle: 'none', p: 0, m: 0 }}>
      {authority && (
        <Step number={1} title="Trust this workshop">
          <Trust address={address} {...authority} />
        </Step>
      )}
      <Step number={authority ? 2 : 1} title="Open it">
        <Stack direction={{ xs: 'column', sm: 'row' }} sx={{ gap: 2, alignItems: { sm: 'center' } }}>
          <ScanCode address={address} name={`Code that opens ${address}`} size={168} />
          <Box>
            <Typography>Scan the code with the phone’s camera, or type the address:</Typography>
            <Typography sx={{ ...figureFont, fontWeight: 700, overflowWrap: 'anywhere' }}>
              {address}
            </Typography>
          </Box>
        </Stack>
      </Step>
      <Step number={authority ? 3 : 2} title="Put it on the home screen">
        <Install />
      </Step>
    </Box>
  );
}

function NotYet() {
  return (
    <Stack sx={{ gap: 1.5 }}>
      <Typography sx={{ color: 'text.secondary' }}>
        So far only this computer reaches it. Whoever runs the server opens it to phones:
      </Typography>
      <Box component="ol" sx={{ m: 0, pl: 3, '& li': { mb: 1 } }}>
        <li>Make the first account: the server prints an address for it when it starts.</li>
        <li>
          Give the server a name in the workshop’s network, and make a certificate for it:{' '}
          <Code>npm run certificate -- compressors.workshop.home</Code>
        </li>
        <li>Start it again with the settings that this prints. Then this page shows a code to scan.</li>
      </Box>
    </Stack>
  );
}

interface TrustProps {
  readonly address: string;
  readonly fingerprint: string;
  readonly until: string;
}

/** How a phone comes to trust the workshop’s own authority. */
function Trust({ address, fingerprint, until }: TrustProps) {
  const file = `${address}/api/authority.crt`;
  return (
    <Stack sx={{ gap: 1.5 }}>
      <Typography>
        The workshop has a certificate of its own, which no phone knows yet: it warns until it was told, once.
      </Typography>
      <Stack direction={{ xs: 'column', sm: 'row' }} sx={{ gap: 2, alignItems: { sm: 'center' } }}>
        <Box sx={{ display: { xs: 'none', sm: 'block' } }}>
          <ScanCode address={file} name="Code of the certificate" size={168} />
        </Box>
        <Box component="ol" sx={{ m: 0, pl: 3, '& li': { mb: 1 } }}>
          <li>
            On the phone, scan the code or press <strong>The certificate</strong>. It warns this once: go on.
          </li>
          <li>
            Compare the fingerprint that the phone shows with the one below. If one pair differs, stop:
            somebody stands in between.
          </li>
          <li>
            Some phones ask what it is for: choose <strong>CA certificate</strong>, under Security in the
            settings. Others show it as a <strong>profile</strong> at the top of the settings: install it, and
            switch it on under General, About, Certificate trust.
          </li>
        </Box>
      </Stack>
      <Box
        aria-label="Fingerprint"
        role="group"
        sx={{
          ...figureFont,
          fontSize: '0.95rem',
          lineHeight: 1.7,
          wordSpacing: '0.3em',
          overflowWrap: 'anywhere',
        }}
      >
        {fingerprint.split(':').join(' ')}
      </Box>
      <Stack direction="row" sx={{ gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
        <Button component="a" href="/api/authority.crt" download variant="outlined" sx={{ minHeight: 48 }}>
          The certificate
        </Button>
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          Good until {describeDay(until)}. To take it back, remove it in the phone’s settings.
        </Typography>
      </Stack>
    </Stack>
  );
}

function Install() {
  const install = useInstall();
  if (isInstalled()) return <Typography>It is there already.</Typography>;
  return (
    <Stack sx={{ gap: 1.5, alignItems: 'start' }}>
      <Typography>
        Then it opens like any other program, without a connection too. What you enter waits on the phone
        until there is one.
      </Typography>
      {install ? (
        <Button variant="contained" onClick={() => void install()} sx={{ minHeight: 48 }}>
          Put it there
        </Button>
      ) : (
        <Typography sx={{ color: 'text.secondary' }}>
          In the browser’s menu on the phone: <strong>Add to home screen</strong>, or <strong>Install</strong>
          .
        </Typography>
      )}
    </Stack>
  );
}

interface StepProps {
  readonly number: number;
  readonly title: string;
  readonly children: ReactNode;
}

function Step({ number, title, children }: StepProps) {
  return (
    <Box component="li" sx={{ borderTop: 1, borderColor: 'divider', py: 2.5 }}>
      <Typography variant="h2" sx={{ mb: 1.5 }}>
        {number}. {title}
      </Typography>
      {children}
    </Box>
  );
}

function Code({ children }: { readonly children: string }) {
  return (
    <Box component="code" sx={{ ...figureFont, bgcolor: 'slateGround', px: 0.5, overflowWrap: 'anywhere' }}>
      {children}
    </Box>
  );
}
