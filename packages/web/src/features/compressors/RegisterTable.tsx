import { RunHours } from '../../components/RunHours.js';
import { DataGrid, type GridColDef } from '@mui/x-data-grid';
import type { FleetCompressorView } from '@entretien/contracts';
import { Box, Link as MuiLink, useMediaQuery, type Theme } from '@mui/material';
import { Link, useNavigate } from 'react-router';
import { usePreferences } from '../../data/preferences.js';
import { StopMark } from '../../components/stop/StopMark.js';
import { figureFont } from '../../components/theme/theme.js';
import { OpenMark } from '../../components/OpenMark.js';
import { RulerRow } from '../../components/ruler/RulerRow.js';
import { NextTask } from './NextTask.js';
import type { RegisterProps } from './RegisterCards.js';

/** A narrow screen shows less of the ruler, and all of what is due. */
const RULER = { wide: 330, narrow: 160 };

export function RegisterTable({ units, zoneOf }: RegisterProps) {
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
    {
      field: 'siteName',
      headerName: 'Site',
      flex: 1,
      minWidth: isWide ? 130 : 116,
      renderCell: ({ row }) => <Shortened text={row.siteName} />,
    },
    {
      field: 'description',
      headerName: 'Machine',
      flex: 1,
      minWidth: isWide ? 130 : 116,
      renderCell: ({ row }) => (
        <>
          <StopMark compressorId={row.compressorId} /> <OpenMark compressorId={row.compressorId} />{' '}
          <Shortened text={row.description} />
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

/** What has no room ends in dots, and is whole where one points at it. */
function Shortened({ text }: { readonly text: string }) {
  return (
    <Box
      component="span"
      title={text}
      sx={{ minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}
    >
      {text}
    </Box>
  );
}
