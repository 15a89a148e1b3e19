import { Box, ButtonBase, Typography } from '@mui/material';
import type { Family } from '@entretien/core/machine';
import type { ReactNode } from 'react';
import { DropMark } from '../../../components/DropMark.js';
import { verdictColour } from '../../../components/VerdictMark.js';
import { StationGlyph } from '../../../components/air-path/glyphs.js';
import { leadingTask, type MachineFacts, type StationFacts } from './station-facts.js';

interface AirWalkProps {
  readonly family: Family;
  readonly machine: MachineFacts;
  /** Open station; null where all are shut. */
  readonly chosen: string | null;
  readonly onChoose: (station: string | null) => void;
  /** What stands under the open station. */
  readonly children: ReactNode;
}

/** The machine on a narrow screen: walked from the intake down, the open station unfolding in its place. */
export function AirWalk({ family, machine, chosen, onChoose, children }: AirWalkProps) {
  const all = [...machine.path, ...machine.beside];
  return (
    <Box component="ol" aria-label="Air path, from the intake on" sx={{ listStyle: 'none', p: 0, m: 0 }}>
      {all.map((station, index) => (
        <Box component="li" key={station.code}>
          {index === machine.path.length && (
            <Typography variant="body2" sx={{ color: 'text.secondary', mt: 1.5, mb: 0.5 }}>
              Beside the path
            </Typography>
          )}
          <Row
            family={family}
            station={station}
            isOpen={station.code === chosen}
            onToggle={() => onChoose(station.code === chosen ? null : station.code)}
          />
          {station.code === chosen && <Box sx={{ pl: 1, pb: 1.5 }}>{children}</Box>}
        </Box>
      ))}
    </Box>
  );
}

interface RowProps {
  readonly family: Family;
  readonly station: StationFacts;
  readonly isOpen: boolean;
  readonly onToggle: () => void;
}

function Row({ family, station, isOpen, onToggle }: RowProps) {
  const task = leadingTask(station);
  const { verdict, text } = station;
  const grave = verdict !== null && verdict !== 'good';
  const shownText = [text, grave ? verdict : ''].filter(Boolean).join(' · ');
  return (
    <ButtonBase
      onClick={onToggle}
      aria-expanded={isOpen}
      sx={{
        width: '100%',
        minHeight: 52,
        gap: 1.25,
        textAlign: 'left',
        justifyContent: 'start',
        borderRadius: 1,
        bgcolor: isOpen ? 'verdigrisGround' : undefined,
      }}
    >
      <svg width={52} height={52} viewBox="-34 -40 68 80" aria-hidden style={{ flex: 'none' }}>
        {station.place !== null && (
          <path d="M0 -40 V40" stroke="var(--mui-palette-strongRule)" strokeWidth={2.5} />
        )}
        <g transform="scale(0.78)">
          <StationGlyph code={station.code} vessel={family === 'screw'} />
        </g>
      </svg>
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <Typography sx={{ fontWeight: 600, lineHeight: 1.2 }}>{station.name}</Typography>
        <Typography
          variant="caption"
          sx={{ color: grave ? verdictColour(verdict) : 'text.secondary', fontWeight: grave ? 700 : 400 }}
        >
          {shownText || task?.name}
        </Typography>
      </Box>
      {task && <DropMark state={task.state} used={task.usedFraction} size={28} />}
    </ButtonBase>
  );
}
