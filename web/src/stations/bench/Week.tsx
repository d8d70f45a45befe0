/** The last seven days, a line a saw and one for what was done to blades: small glyphs, and a touch tells. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import Popover from '@mui/material/Popover';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link } from 'react-router';
import { useSeason } from '../../api/log';
import type { DayMark, Saw, Units } from '../../api/types';
import { WeekGlyphs, type DayGlyphs } from '../../drawings/WeekGlyphs';
import { Trouble } from '../../ui/Notice';
import { SignKey } from '../../ui/SignKey';
import { useDates } from '../../ui/useDates';
import { daysUpTo, glyphsOf, saidOf } from './week';

const DAYS = 7;

interface Props {
  saws: Saw[];
  units: Units;
}

interface Shown {
  at: HTMLElement;
  lane: string;
  day: string;
  marks: DayMark[];
}

export function Week({ saws, units }: Props) {
  const { weekdayOf } = useDates();
  const asked = useSeason(DAYS);
  const season = asked.data;
  const [shown, setShown] = useState<Shown>();
  if (!season)
    return (
      <Box sx={{ minHeight: 170 }}>
        {asked.error && <Trouble onAgain={() => void asked.refetch()}>{asked.error.message}</Trouble>}
      </Box>
    );
  const days = daysUpTo(season.until, DAYS);
  const lanes = [
    ...saws.map((s) => ({ id: s.id, name: s.name, marks: season.marks.filter((m) => m.saw_id === s.id) })),
    {
      id: '',
      name: t`Blades`,
      marks: season.marks.filter((m) => m.saw_id === undefined && m.kind !== 'struck'),
    },
  ].filter((l) => l.id !== '' || l.marks.length > 0);
  const most = Math.max(
    1,
    ...lanes.flatMap((l) => days.map((d) => glyphsOf(l.marks.filter((m) => m.day === d)).metres)),
  );
  return (
    <Box component="section" aria-labelledby="week" sx={{ mt: 1 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 3, alignItems: 'baseline' }}>
        <Typography id="week" variant="h2">{t`Seven days`}</Typography>
        <SignKey
          signs={signs}
          before={
            <li>
              <Box
                component="span"
                sx={{ display: 'inline-block', width: 22, height: 6, bgcolor: 'text.primary', mr: 0.75 }}
              />
              {t`cut`}
            </li>
          }
        />
      </Box>
      <Box
        component="table"
        sx={{
          width: '100%',
          borderCollapse: 'collapse',
          tableLayout: 'fixed',
          mt: 0.5,
          '& td, & th': { p: 0, borderTop: '1px solid', borderColor: 'divider', verticalAlign: 'middle' },
          '& thead th': {
            border: 0,
            fontWeight: 500,
            color: 'text.secondary',
            fontSize: 14,
            textAlign: 'left',
            pl: 0.5,
          },
          '& td': { borderLeft: '1px solid', borderLeftColor: 'divider', height: 38 },
        }}
      >
        <Box component="colgroup">
          <Box component="col" sx={{ width: { xs: 50, sm: 132 } }} />
          {days.map((d) => (
            <col key={d} />
          ))}
        </Box>
        <thead>
          <tr>
            <Box component="th" scope="col">
              <Box component="span" sx={{ position: 'absolute', clipPath: 'inset(50%)' }}>{t`Where`}</Box>
            </Box>
            {days.map((d) => (
              <th key={d} scope="col">
                {weekdayOf(d)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {lanes.map((l) => (
            <tr key={l.id}>
              <Box
                component="th"
                scope="row"
                sx={{
                  textAlign: 'left',
                  fontWeight: 600,
                  fontSize: { xs: 14, sm: 16 },
                  overflowWrap: 'anywhere',
                  lineHeight: 1.15,
                }}
              >
                {l.name}
              </Box>
              {days.map((day) => {
                const marks = l.marks.filter((m) => m.day === day);
                return (
                  <td key={day}>
                    {marks.length > 0 && (
                      <ButtonBase
                        aria-label={`${l.name}, ${weekdayOf(day)}: ${saidOf(marks, units).join(', ')}`}
                        onClick={(e) => setShown({ at: e.currentTarget, lane: l.name, day, marks })}
                        sx={{
                          display: 'block',
                          width: '100%',
                          minHeight: { xs: 48, sm: 38 },
                          px: { xs: 0.25, sm: 0.5 },
                        }}
                      >
                        <WeekGlyphs {...glyphsOf(marks)} most={most} />
                      </ButtonBase>
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </Box>
      <Popover
        open={shown !== undefined}
        anchorEl={shown?.at ?? null}
        onClose={() => setShown(undefined)}
        anchorOrigin={{ vertical: 'top', horizontal: 'left' }}
        transformOrigin={{ vertical: 'bottom', horizontal: 'left' }}
      >
        {shown && (
          <Box sx={{ p: 2, maxWidth: 340 }}>
            <Typography variant="h3">
              {shown.lane}, {weekdayOf(shown.day)}
            </Typography>
            <Box component="ul" sx={{ m: 0, my: 0.5, pl: 2.5 }}>
              {saidOf(shown.marks, units).map((s) => (
                <li key={s}>{s}</li>
              ))}
            </Box>
            <Link
              to={`/log?from=${shown.day}&until=${shown.day}${shown.marks[0]?.saw_id ? `&on=${shown.marks[0].saw_id}` : ''}`}
            >
              {t`See the rows`}
            </Link>
          </Box>
        )}
      </Popover>
    </Box>
  );
}

const signs: [Exclude<keyof DayGlyphs, 'metres'>, string][] = [
  ['changed', t`blade changed`],
  ['washed', t`cleaned`],
  ['sharpened', t`sent out or back`],
  ['measured', t`measured`],
  ['burnt', t`burned`],
  ['splintery', t`tear-out`],
  ['noted', t`inspected`],
];
