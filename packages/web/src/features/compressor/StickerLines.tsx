import { Box, Typography } from '@mui/material';
import type { TaskStart } from '@entretien/contracts';
import type { ServiceTask } from '@entretien/core/plan';
import { DayField } from '../../components/DayField.js';
import { QuantityField, emptyEntry, type QuantityEntry } from '../../components/QuantityField.js';
import { UnitPhotos } from '../../components/UnitPhotos.js';

/** What was copied of the sticker, by task. */
export type StickerEntries = Readonly<
  Record<string, { readonly day: string; readonly hours: QuantityEntry } | undefined>
>;

const blank = { day: '', hours: emptyEntry };

/** The lines that say something, as they are sent. */
export function stickerPoints(tasks: readonly ServiceTask[], entries: StickerEntries): readonly TaskStart[] {
  return tasks.flatMap(({ code }) => {
    const { day, hours } = entries[code] ?? blank;
    if (day === '' && hours.value === null) return [];
    return [
      {
        task: code,
        ...(day === '' ? {} : { countsFromOn: day }),
        ...(hours.value === null ? {} : { hoursThen: hours.value }),
      },
    ];
  });
}

/** Whether what is typed can be sent: nothing in it is not understood. */
export function isStickerRead(entries: StickerEntries): boolean {
  return Object.values(entries).every((entry) => !entry?.hours.problem);
}

interface StickerLinesProps {
  readonly compressorId: string;
  readonly tasks: readonly ServiceTask[];
  readonly entries: StickerEntries;
  readonly onEntries: (entries: StickerEntries) => void;
  /** What the server said of a line. */
  readonly problemOf: (task: string, field: 'countsFromOn' | 'hoursThen') => string | null | undefined;
}

/** What the sticker on the machine says was last done: for each task a day, hours, or both; or a photo of it. */
export function StickerLines({ compressorId, tasks, entries, onEntries, problemOf }: StickerLinesProps) {
  return (
    <>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        Copy what it says was done, not what it says is due: the day, the figure on the meter then, or both.
        What keeps somebody safe needs its day.
      </Typography>
      <UnitPhotos compressorId={compressorId} caption="Sticker" button="Photo of the sticker" />
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr) minmax(0, 1fr)', sm: 'minmax(0, 1fr) 176px 168px' },
          columnGap: 1.25,
          rowGap: 1,
          alignItems: 'start',
        }}
      >
        {tasks.map(({ code, name }) => {
          const { day, hours } = entries[code] ?? blank;
          const put = (part: Partial<typeof blank>) =>
            onEntries({ ...entries, [code]: { ...(entries[code] ?? blank), ...part } });
          return (
            <Box key={code} role="group" aria-label={name} sx={{ display: 'contents' }}>
              <Typography
                sx={{ fontWeight: 600, gridColumn: { xs: '1 / -1', sm: 'auto' }, alignSelf: 'center' }}
              >
                {name}
              </Typography>
              <DayField
                label="Done on"
                size="small"
                day={day}
                onDay={(next) => put({ day: next })}
                problem={problemOf(code, 'countsFromOn')}
              />
              <QuantityField
                label="At, on the meter"
                size="small"
                kind="hours"
                entry={hours}
                onEntry={(next) => put({ hours: next })}
                min={0}
                max={1_000_000}
                problem={problemOf(code, 'hoursThen')}
                hint=""
              />
            </Box>
          );
        })}
      </Box>
    </>
  );
}
