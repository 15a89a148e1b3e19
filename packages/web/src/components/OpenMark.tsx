import { Link as MuiLink } from '@mui/material';
import { Link } from 'react-router';
import { useOpenWorkOf } from '../data/queries.js';

interface OpenMarkProps {
  readonly compressorId: string;
  /** Within a row that is a link itself it is words alone. */
  readonly isText?: boolean;
}

/** Beside a unit, wherever it stands: that a repair or a visit is open on it. */
export function OpenMark({ compressorId, isText = false }: OpenMarkProps) {
  const { repairs, visits } = useOpenWorkOf(compressorId);
  const [repair] = repairs;
  const marks = [
    ...(repair
      ? [
          {
            text: repairs.length === 1 ? '1 open repair' : `${repairs.length} open repairs`,
            to: repairs.length === 1 ? `/repairs/${repair.id}` : `/units/${compressorId}?tab=repairs`,
          },
        ]
      : []),
    ...visits.map(({ id, state }) => ({
      text: state === 'planned' ? 'visit planned' : 'visit under way',
      to: `/visits/${id}?unit=${compressorId}`,
    })),
  ];
  return (
    <>
      {marks.map(({ text, to }) =>
        isText ? (
          <strong key={to}>{text} </strong>
        ) : (
          <MuiLink
            key={to}
            component={Link}
            to={to}
            onClick={(event) => event.stopPropagation()}
            sx={{ fontWeight: 650, color: 'oxide', pr: 1, display: 'inline-block', py: 0.25 }}
          >
            {text}
          </MuiLink>
        ),
      )}
    </>
  );
}
