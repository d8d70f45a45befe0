/** The season over the rows: what each blade cut week by week, and what came out badly. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import Typography from '@mui/material/Typography';
import { useMemo } from 'react';
import type { Season as Summed } from '../../api/types';
import { ink } from '../../drawings/ink';
import { SeasonChart, seasonHeight } from '../../drawings/SeasonChart';
import { ShareBars } from '../../drawings/ShareBars';
import { SignKey } from '../../ui/SignKey';
import { useDates } from '../../ui/useDates';
import { useSize } from '../../drawings/useSize';
import { changesOf, lanesOf, lastDayOf, sharesOf, shownOf, weeksUpTo } from './season';

/** How high it stands, px, so that nothing below it jumps when it comes. */
export const seasonTall = (phone: boolean) => (phone ? 860 : 424);

interface Props {
  season: Summed;
  weeks: number;
  phone: boolean;
  blade: string; // that the rows are of
  from: string; // day
  until: string;
  onBlade: (id: string) => void;
  onDays: (from: string, until: string) => void;
  onMaterial: (id: string) => void;
  onFinish: (finish: string) => void;
}

export function Season(p: Props) {
  const { shortDate } = useDates();
  const [box, size] = useSize<HTMLDivElement>();
  const lane = p.phone ? 44 : 25;
  const { marks, until } = p.season;
  const weeks = useMemo(() => weeksUpTo(until, shownOf(marks, until, p.weeks)), [marks, until, p.weeks]);
  const lanes = useMemo(() => lanesOf(marks, weeks, p.phone ? 6 : 10), [marks, weeks, p.phone]);
  const within =
    p.from || p.until
      ? marks.filter((m) => (!p.from || m.day >= p.from) && (!p.until || m.day <= p.until))
      : marks;
  const burns = sharesOf(within, 'material', 'burnt', 6);
  const splinters = sharesOf(within, 'finish', 'splintery', 4);
  const first = weeks.findIndex((w) => lastDayOf(w) >= p.from);
  const last = p.until ? weeks.findLastIndex((w) => w <= p.until) : weeks.length - 1;
  if (lanes.length === 0) return null;
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { md: 'minmax(0, 7fr) minmax(0, 3fr)' },
        columnGap: 4,
        rowGap: 2,
        mt: 0.5,
        minHeight: seasonTall(p.phone),
        alignContent: 'start',
      }}
    >
      <Box component="section" aria-labelledby="season" sx={{ minWidth: 0 }}>
        <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 2, alignItems: 'baseline' }}>
          <Typography id="season" variant="h2">{t`${weeks.length} weeks`}</Typography>
          <SignKey
            signs={signs}
            before={<li>{t`Bars: length cut per week`}</li>}
            after={
              <Box component="li" sx={{ display: { xs: 'none', md: 'block' } }}>
                {t`Drag across to choose weeks`}
              </Box>
            }
          />
        </Box>
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: { xs: '92px minmax(0,1fr)', md: '128px minmax(0,1fr)' },
            mt: 0.5,
          }}
        >
          <Box component="ul" aria-label={t`Blades of the season`} sx={{ listStyle: 'none', m: 0, p: 0 }}>
            {lanes.map((l) => (
              <Box component="li" key={l.id} sx={{ height: lane, display: 'flex' }}>
                {l.id === '' ? (
                  <Box sx={{ alignSelf: 'center', color: 'text.secondary', fontSize: 15 }}>{l.name}</Box>
                ) : (
                  <ButtonBase
                    aria-pressed={p.blade === l.id}
                    onClick={() => p.onBlade(l.id)}
                    sx={{
                      width: '100%',
                      justifyContent: 'flex-start',
                      textAlign: 'left',
                      px: 0.5,
                      fontSize: 15,
                      fontWeight: 600,
                      lineHeight: 1.1,
                      overflow: 'hidden',
                      whiteSpace: p.phone ? 'normal' : 'nowrap',
                      textOverflow: 'ellipsis',
                      overflowWrap: 'anywhere',
                      '&[aria-pressed=true]': { bgcolor: 'text.primary', color: 'background.paper' },
                    }}
                  >
                    {l.name}
                  </ButtonBase>
                )}
              </Box>
            ))}
            <Box component="li" aria-hidden sx={{ color: 'text.secondary', fontSize: 14, pt: 2.25, pl: 0.5 }}>
              {t`changes`}
            </Box>
          </Box>
          <Box
            ref={box}
            role="img"
            aria-label={t`Length cut by week and blade: ${lanes
              .map((l) => `${l.name} ${Math.round(l.weeks.reduce((all, w) => all + w.metres, 0))} m`)
              .join(', ')}`}
            sx={{ height: seasonHeight(lanes.length, lane), minWidth: 0 }}
          >
            {size.width > 0 && (
              <SeasonChart
                lanes={lanes}
                changes={changesOf(marks, weeks)}
                starts={weeks.map((w, i) => (i % 4 === 0 && i < weeks.length - 1 ? shortDate(w) : ''))}
                lane={lane}
                width={size.width}
                chosen={p.from || p.until ? [Math.max(0, first), Math.max(0, last)] : undefined}
                onChoose={(a, b) => p.onDays(weeks[a]!, lastDayOf(weeks[b]!))}
              />
            )}
          </Box>
        </Box>
      </Box>
      <Box sx={{ minWidth: 0 }}>
        <Typography variant="h2">{t`Burn marks`}</Typography>
        <ShareBars label={t`burn marks`} shares={burns} colour={ink.scorch} onChoose={p.onMaterial} />
        <Typography variant="h2" sx={{ mt: 0.5 }}>{t`Tear-out`}</Typography>
        <ShareBars label={t`faces with tear-out`} shares={splinters} colour={ink.ink} onChoose={p.onFinish} />
      </Box>
    </Box>
  );
}

const signs = [
  ['burnt', t`burned`],
  ['washed', t`cleaned`],
  ['sharpened', t`sharpened`],
] as const;
