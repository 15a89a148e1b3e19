import CloseIcon from '@mui/icons-material/Close';
import {
  Box,
  Button,
  Dialog,
  DialogContent,
  DialogTitle,
  IconButton,
  Link as MuiLink,
  Stack,
  Typography,
} from '@mui/material';
import { formatFigure, parseQuantity } from '@entretien/core/quantities';
import { useState } from 'react';
import { Link } from 'react-router';
import { figureFont } from '../components/theme/theme.js';
import { Figure } from '../components/Figure.js';
import { QuantityField, type QuantityEntry } from '../components/QuantityField.js';
import { formatMoment } from '@entretien/core/basics';
import { fromLocalText, toLocalText, WhenField } from '../components/WhenField.js';
import { discard, putInOutbox, sendOutbox, useOutbox } from '../data/outbox/outbox.js';
import { useOwnAccount } from '../data/me.js';
import { byAge, isAnothers, type OutboxItem } from '../data/outbox/outbox-item.js';

/** The tray: what waits to be sent, and what was refused and wants mending. */
export function OutboxDialog({ onClose }: { readonly onClose: () => void }) {
  const { items, isConnected } = useOutbox();
  const waiting = items.filter(({ problem }) => problem === null).length;
  const sorted = [...items].sort(
    (a, b) => Number(b.problem !== null) - Number(a.problem !== null) || byAge(a, b),
  );
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="outbox-title">
      <DialogTitle id="outbox-title" sx={{ pr: 7, pb: 1 }}>
        Outbox
      </DialogTitle>
      <IconButton aria-label="Close" onClick={onClose} sx={{ position: 'absolute', right: 10, top: 10 }}>
        <CloseIcon />
      </IconButton>
      <DialogContent>
        <Stack direction="row" sx={{ alignItems: 'center', gap: 2, justifyContent: 'space-between', mb: 1 }}>
          <Typography sx={{ color: 'text.secondary' }}>
            {items.length === 0
              ? 'Everything has reached the server.'
              : isConnected
                ? 'Kept on this device until the server has it.'
                : 'No connection. It is sent as soon as there is one.'}
          </Typography>
          {waiting > 0 && (
            <Button onClick={() => void sendOutbox()} sx={{ flex: 'none', minHeight: 44 }}>
              Try now
            </Button>
          )}
        </Stack>
        <Box component="ul" aria-label="Not on record yet" sx={{ listStyle: 'none', p: 0, m: 0 }}>
          {sorted.map((item) => (
            <Item key={item.id} item={item} onLeave={onClose} />
          ))}
        </Box>
      </DialogContent>
    </Dialog>
  );
}

/** The figure and the moment of what waits; what belongs to a visit is told in words. */
function describeItem({ kind, body, queuedAt }: OutboxItem): { hours: number | null; at: number } {
  if (kind === 'reading')
    return { hours: body['hours'] as number, at: Date.parse(body['takenAt'] as string) };
  if (kind !== 'meter-change') return { hours: null, at: queuedAt };
  return { hours: body['oldFinalHours'] as number, at: Date.parse(body['changedAt'] as string) };
}

/** Where it was recorded. */
function pageOf({ visitId, page, compressorId }: OutboxItem): string {
  return visitId === undefined ? (page ?? `/units/${compressorId}`) : `/visits/${visitId}`;
}

interface ItemProps {
  readonly item: OutboxItem;
  readonly onLeave: () => void;
}

function Item({ item, onLeave }: ItemProps) {
  const [isMending, setMending] = useState(false);
  const { kind, problem, timeZone } = item;
  const { hours, at } = describeItem(item);
  const account = useOwnAccount();
  return (
    <Box component="li" sx={{ borderTop: '1px solid var(--mui-palette-divider)', py: 1 }}>
      <Stack direction="row" sx={{ gap: 1.5, alignItems: 'baseline', flexWrap: 'wrap' }}>
        <Box component="span" sx={{ ...figureFont, fontWeight: 700 }}>
          {item.tag}
        </Box>
        {hours === null ? (
          <span>{item.text}</span>
        ) : (
          <Figure value={formatFigure(hours, { figures: 6, maxDecimals: 1 })} unit="h" />
        )}
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          {kind === 'meter-change' ? 'meter changed ' : ''}
          {formatMoment(at, timeZone)}
        </Typography>
        <Typography variant="body2" sx={{ ml: 'auto', fontWeight: 600, color: problem ? 'oxide' : 'brass' }}>
          {problem
            ? 'refused'
            : isAnothers(item, account?.personId ?? null)
              ? 'waits for whoever recorded it'
              : 'waiting'}
        </Typography>
      </Stack>
      {problem && (
        <>
          <Typography variant="body2" sx={{ color: 'oxide', my: 0.5 }}>
            {problem.detail ?? problem.title}
          </Typography>
          {isMending ? (
            <Mend item={item} onDone={() => setMending(false)} />
          ) : (
            <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'center' }}>
              {kind === 'reading' && (
                <Button variant="outlined" onClick={() => setMending(true)} sx={{ minHeight: 44 }}>
                  Correct it
                </Button>
              )}
              {(item.visitId !== undefined || kind === 'fact') && (
                <Button
                  variant="outlined"
                  onClick={() => void putInOutbox({ ...item, problem: null })}
                  sx={{ minHeight: 44 }}
                >
                  Send it again
                </Button>
              )}
              <Button color="error" onClick={() => void discard(item.id)} sx={{ minHeight: 44 }}>
                Delete
              </Button>
              <MuiLink
                component={Link}
                to={pageOf(item)}
                onClick={onLeave}
                sx={{ fontWeight: 600, py: 1.25 }}
              >
                Look at {item.tag}
              </MuiLink>
            </Stack>
          )}
        </>
      )}
    </Box>
  );
}

/** The figure and its moment once more; sent again under the id that was refused. */
function Mend({ item, onDone }: Omit<ItemProps, 'onLeave'> & { readonly onDone: () => void }) {
  const hours = item.body['hours'] as number;
  const takenAt = Date.parse(item.body['takenAt'] as string);
  const before = toLocalText(takenAt, item.timeZone);
  const [entry, setEntry] = useState<QuantityEntry>({ text: String(hours), value: hours, problem: null });
  const [whenText, setWhenText] = useState(before);
  // The field shows minutes: left alone, the moment keeps its seconds.
  const when = whenText === before ? takenAt : fromLocalText(whenText, item.timeZone);
  const isReady = entry.value !== null && parseQuantity(entry.text, 'hours').ok && when !== null;
  const send = async () => {
    const body = { ...item.body, hours: entry.value, takenAt: new Date(when!).toISOString() };
    await putInOutbox({ ...item, body, problem: null });
    onDone();
  };
  return (
    <Stack sx={{ gap: 1, mt: 1 }}>
      <QuantityField
        kind="hours"
        label={`Figure on ${item.tag}`}
        autoFocus
        entry={entry}
        onEntry={setEntry}
        min={0}
        max={1_000_000}
      />
      <WhenField
        label="Read at"
        text={whenText}
        onText={setWhenText}
        problem={when === null ? 'Say when it was read.' : null}
      />
      <Button variant="contained" disabled={!isReady} onClick={() => void send()} sx={{ minHeight: 44 }}>
        Send it again
      </Button>
    </Stack>
  );
}
