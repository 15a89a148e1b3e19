import { Box, Checkbox, FormControlLabel, MenuItem, TextField, Typography } from '@mui/material';
import { type FleetCompressorView, PlanVisit, type VisitView } from '@entretien/contracts';
import { formatDay, localDayAt } from '@entretien/core/basics';
import { isClosedOn } from '@entretien/core/hours';
import { worthPlanning } from '@entretien/core/visit';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { v7 as newId } from 'uuid';
import { sentenceOf } from '../../data/api.js';
import { useFleet, usePost, useSettings, useSites } from '../../data/queries.js';
import { DayField } from '../../components/DayField.js';
import { figureFont } from '../../components/theme/theme.js';
import { FormDialog } from '../../components/FormDialog.js';
import { useNow } from '../../components/use-now.js';

interface PlanVisitProps {
  /** The site, where it is known. */
  readonly siteId?: string | undefined;
  /** The only unit that is chosen at first. */
  readonly compressorId?: string | undefined;
  readonly onClose: () => void;
}

/** Which machines of a site, with what is due on them: then the visit begins. */
export function PlanVisitDialog({ siteId, compressorId, onClose }: PlanVisitProps) {
  const navigate = useNavigate();
  const now = useNow();
  const { units } = useFleet({ all: true });
  const { data: sites } = useSites();
  const holidays = useSettings().data?.holidays ?? [];
  const [chosenSite, setChosenSite] = useState(siteId ?? '');
  const [changed, setChanged] = useState<ReadonlyMap<string, boolean>>(new Map());
  const [day, setDay] = useState<string | null>(null);
  const [id] = useState(() => newId());
  const post = usePost<PlanVisit, VisitView>(PlanVisit, '/visits');
  const here = units.filter((unit) => unit.siteId === chosenSite);
  const site = sites?.find((one) => one.id === chosenSite);
  const plannedOn = day ?? formatDay(localDayAt(now, site?.timeZone ?? 'UTC'));
  const isChosen = (unit: FleetCompressorView) =>
    changed.get(unit.compressorId) ??
    (compressorId === undefined
      ? // Where only one machine stands, one comes for that one.
        here.length === 1 || worthPlanning(unit.tasks).length > 0
      : unit.compressorId === compressorId);
  const chosen = here.filter(isChosen);
  const begin = () =>
    post.mutate(
      {
        id,
        siteId: chosenSite,
        plannedOn,
        units: chosen.map(({ compressorId, tasks }) => ({ compressorId, tasks: [...worthPlanning(tasks)] })),
      },
      { onSuccess: (visit) => void navigate(`/visits/${visit.id}`) },
    );
  return (
    <FormDialog
      title={site ? `Visit ${site.name}` : 'Plan a visit'}
      submit="Prepare the visit"
      canSubmit={chosen.length > 0 && plannedOn !== ''}
      isSending={post.isPending}
      problem={post.error ? sentenceOf(post.error) : null}
      onSubmit={begin}
      onClose={onClose}
    >
      {siteId === undefined && (
        <TextField
          select
          label="Site"
          value={chosenSite}
          onChange={(event) => setChosenSite(event.target.value)}
        >
          {(sites ?? []).map(({ id: value, name }) => (
            <MenuItem key={value} value={value}>
              {name}
            </MenuItem>
          ))}
        </TextField>
      )}
      {here.map((unit) => {
        const count = worthPlanning(unit.tasks).length;
        return (
          <FormControlLabel
            key={unit.compressorId}
            sx={{ alignItems: 'center', m: 0, minHeight: 48, borderBottom: 1, borderColor: 'divider' }}
            control={
              <Checkbox
                checked={isChosen(unit)}
                onChange={(_event, on) => setChanged(new Map(changed).set(unit.compressorId, on))}
              />
            }
            label={
              <Box>
                <Box component="span" sx={{ ...figureFont, fontWeight: 700 }}>
                  {unit.tag}
                </Box>{' '}
                <Typography component="span" variant="body2" sx={{ color: 'text.secondary' }}>
                  {unit.description} ·{' '}
                  {count === 0 ? 'nothing due' : count === 1 ? '1 task' : `${count} tasks`}
                </Typography>
              </Box>
            }
          />
        );
      })}
      {chosenSite !== '' && here.length === 0 && <Typography>No machine stands here.</Typography>}
      <DayField
        label="On"
        day={plannedOn}
        onDay={setDay}
        hint={isClosedOn(holidays, plannedOn) ? 'The workshop is closed on that day.' : undefined}
      />
    </FormDialog>
  );
}
