import { RunHours } from '../../components/RunHours.js';
import { Box, Button, Link as MuiLink, Stack, Typography, useMediaQuery, type Theme } from '@mui/material';
import { DataGrid, type GridColDef } from '@mui/x-data-grid';
import type { FleetCompressorView } from '@entretien/contracts';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { usePreferences } from '../../data/preferences.js';
import { StopMark } from '../../components/stop/StopMark.js';
import { figureFont } from '../../components/theme/theme.js';
import { OpenMark } from '../../components/OpenMark.js';
import { DropMark } from '../../components/DropMark.js';
import { namePressing, describeDue } from '../../components/describe-due.js';
import { RulerRow } from '../../components/ruler/RulerRow.js';
import { DueFigure } from '../../components/DueFigure.js';
import { NothingDue } from '../../components/NothingDue.js';

interface ListProps {
  readonly units: readonly FleetCompressorView[];
  readonly zoneOf: (siteId: string) => string;
}

/** A narrow screen shows less of the ruler, and all of what is due. */
const RULER = { wide: 330, narrow: 160 };

export function RegisterTable({ units, zoneOf }: ListProps) {
  const mode = usePreferences((preferences) => preferences.rulerIn);
  const isWide = useMediaQuery((theme: Theme) => theme.breakpoints.up('lg'));
  const ruler = isWide ? RULER.wide : RULER.narrow;
  const navigate = useNavigate();
  const order = new Map(units.map((unit, index) => [unit.compressorId, index]));
  const columns: GridColDef<FleetCompressorView>[] = [
    {
      field: 'tag',
      headerName: 'Unit',
      width: isWide ? 92 : 74,
      renderCell: ({ row }) => (
        <MuiLink
          component={Link}
          to={`/units/${row.compressorId}`}
          sx={{ ...figureFont, fontWeight: 700, textDecoration: 'none' }}
        >
          {row.tag}
        </MuiLink>
      ),
    },
    { field: 'siteName', headerName: 'Site', flex: 1, minWidth: isWide ? 130 : 116 },
    {
      field: 'description',
      headerName: 'Machine',
      flex: 1,
      minWidth: isWide ? 130 : 116,
      renderCell: ({ row }) => (
        <>
          <StopMark compressorId={row.compressorId} /> <OpenMark compressorId={row.compressorId} />{' '}
          {row.description}
        </>
      ),
    },
    {
      field: 'runHours',
      headerName: 'Meter',
      width: isWide ? 150 : 138,
      align: 'right',
      headerAlign: 'right',
      renderCell: ({ row }) => (row.runHours === null ? '–' : <RunHours of={row} isInline />),
    },
    {
      field: 'ruler',
      headerName: !isWide
        ? 'Ruler'
        : mode === 'days'
          ? 'Two months back, four ahead'
          : '400 h back, 800 ahead',
      width: ruler + 24,
      sortable: false,
      renderCell: ({ row }) => <RulerRow unit={row} mode={mode} width={ruler} ownNow />,
    },
    {
      field: 'next',
      headerName: 'Next',
      flex: 1.5,
      minWidth: 230,
      valueGetter: (_value, row) => order.get(row.compressorId),
      renderCell: ({ row }) => <NextTask unit={row} timeZone={zoneOf(row.siteId)} />,
    },
  ];
  return (
    <DataGrid
      rows={units}
      columns={columns}
      getRowId={(unit) => unit.compressorId}
      rowHeight={40}
      columnHeaderHeight={40}
      hideFooter={units.length <= 100}
      disableColumnMenu
      disableRowSelectionOnClick
      onRowClick={({ row }) => void navigate(`/units/${row.compressorId}`)}
      aria-label="Register of units"
      sx={{
        border: 0,
        '--DataGrid-rowBorderColor': 'var(--mui-palette-divider)',
        '--DataGrid-containerBackground': 'var(--mui-palette-background-default)',
        '--DataGrid-t-color-background-base': 'var(--mui-palette-background-default)',
        '& .MuiDataGrid-row': { cursor: 'pointer' },
        '& .MuiDataGrid-cell': { display: 'flex', alignItems: 'center' },
        '& .MuiDataGrid-columnHeaderTitle': { fontWeight: 600, color: 'text.secondary' },
      }}
    />
  );
}

function NextTask({ unit, timeZone }: { readonly unit: FleetCompressorView; readonly timeZone: string }) {
  const [first] = unit.tasks;
  if (!first) return <NothingDue unit={unit} />;
  const due = describeDue(first, Date.parse(unit.at), timeZone, unit.meter);
  return (
    <Stack direction="row" spacing={1} sx={{ alignItems: 'center', minWidth: 0, width: '100%' }}>
      <DropMark state={first.state} used={first.usedFraction} size={24} />
      <Typography variant="body2" noWrap sx={{ flex: 1, fontWeight: 600 }}>
        {namePressing(first)}
      </Typography>
      <DueFigure text={due.short} state={first.state} size="0.86rem" />
    </Stack>
  );
}

const CARDS_AT_FIRST = 30;

export function RegisterCards({ units, zoneOf }: ListProps) {
  const [shown, setShown] = useState(CARDS_AT_FIRST);
  return (
    <>
      <Box component="ul" aria-label="Register of units" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {units.slice(0, shown).map((unit) => (
          <Box component="li" key={unit.compressorId} sx={{ borderBottom: 1, borderColor: 'divider' }}>
            <Box
              component={Link}
              to={`/units/${unit.compressorId}`}
              sx={{ display: 'block', color: 'inherit', textDecoration: 'none', py: 1, minHeight: 44 }}
            >
              <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'baseline', gap: 1 }}>
                <Typography noWrap>
                  <Box component="span" sx={{ ...figureFont, fontWeight: 700, pr: 1 }}>
                    {unit.tag}
                  </Box>
                  <Box component="span" sx={{ color: 'text.secondary', typography: 'body2' }}>
                    <StopMark compressorId={unit.compressorId} />
                    <OpenMark compressorId={unit.compressorId} isText /> {unit.siteName}, {unit.description}
                  </Box>
                </Typography>
                <RunHours of={unit} isInline />
              </Stack>
              <NextTask unit={unit} timeZone={zoneOf(unit.siteId)} />
            </Box>
          </Box>
        ))}
      </Box>
      {units.length > shown && (
        <Button onClick={() => setShown(shown + 100)}>Show more ({units.length - shown})</Button>
      )}
    </>
  );
}
