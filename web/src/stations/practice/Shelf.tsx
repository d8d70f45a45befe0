/** Learn: a shelf of drills, each with how one stands, and the reasons behind them as small drawings. */
import { plural, t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import Typography from '@mui/material/Typography';
import { Link as RouterLink } from 'react-router';
import { useDrills } from '../../api/practice';
import type { ShelvedDrill } from '../../api/types';
import { DrillGlyph } from '../../drawings/DrillGlyph';
import { Arriving } from '../../ui/Arriving';
import { Notice } from '../../ui/Notice';
import { Skills } from '../../ui/Skills';

export function Shelf() {
  const shelf = useDrills();
  if (!shelf.data) return <Arriving title={t`Practice`} of={[shelf]} rows={3} />;
  const { drills, asked, whys } = shelf.data;
  // What waits comes before what was never tried, and that before what is known.
  const first = drills.find((d) => d.due > 0) ?? drills.find((d) => d.times === 0);
  const missing = drills.filter((d) => asked.includes(d.drill) && !d.passed);
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 1.5 }}>
      <Typography variant="h1">{t`Practice`}</Typography>
      <Box sx={{ fontSize: 18, maxWidth: 760, my: 1 }}>
        {t`A safe way to practice. Each drill takes two to five minutes. Hard questions come back sooner.`}
      </Box>
      {missing.length > 0 && (
        <Notice kind="said" sx={{ my: 1.5 }}>
          {t`Required before sign-off: ${missing.map((d) => d.name).join(', ')}.`}
        </Notice>
      )}
      <Box
        component="ul"
        sx={{
          listStyle: 'none',
          m: 0,
          p: 0,
          display: 'grid',
          gap: 2,
          gridTemplateColumns: {
            xs: '1fr',
            sm: 'repeat(2, minmax(0, 1fr))',
            md: 'repeat(4, minmax(0, 1fr))',
          },
        }}
      >
        {drills.map((d) => (
          <li key={d.drill} style={{ display: 'flex' }}>
            <Drill drill={d} first={d === first} asked={asked.includes(d.drill)} />
          </li>
        ))}
        <li>
          <Typography variant="h2">{t`Why`}</Typography>
          {whys.map((w) => (
            <ButtonBase
              key={w.why}
              component={RouterLink}
              to={`/practice/why/${w.why}`}
              sx={{
                display: 'flex',
                justifyContent: 'flex-start',
                minHeight: { xs: 48, md: 36 },
                fontSize: 17,
                fontWeight: 600,
                borderTop: '1px solid',
                borderColor: 'divider',
              }}
            >
              {w.title}
            </ButtonBase>
          ))}
        </li>
      </Box>
      <Notice kind="caution" sx={{ mt: 3 }}>
        {t`A drill teaches what to look for. It doesn't replace training at a real saw.`}
      </Notice>
    </Box>
  );
}

function Drill({ drill: d, first, asked }: { drill: ShelvedDrill; first: boolean; asked: boolean }) {
  return (
    <ButtonBase
      component={RouterLink}
      to={`/practice/${d.drill}`}
      sx={{
        flex: 1,
        flexDirection: { xs: 'row', sm: 'column' },
        alignItems: { xs: 'center', sm: 'stretch' },
        justifyContent: 'flex-start',
        columnGap: 1.5,
        textAlign: 'left',
        p: 1.5,
        border: '1.5px solid',
        borderColor: first ? 'primary.main' : 'drawing.hair',
        borderWidth: first ? 3 : 1.5,
      }}
    >
      <Box sx={{ width: { xs: 116, sm: 'auto' }, flex: 'none' }}>
        <DrillGlyph drill={d.drill} />
      </Box>
      <Box sx={{ flex: 1, display: 'flex', flexDirection: 'column' }}>
        <Box sx={{ fontSize: 20, fontWeight: 700, mt: { sm: 1 } }}>{d.name}</Box>
        <Box sx={{ lineHeight: 1.3 }}>{d.about}</Box>
        <Box sx={{ flex: 1 }} />
        <Box sx={{ mt: 1.25 }}>
          <Skills known={d.known} of={d.skills} />
        </Box>
        <Box
          sx={{ color: first ? 'primary.main' : 'text.secondary', fontWeight: first ? 700 : 400, mt: 0.5 }}
        >
          {standing(d)}
          {asked && !d.passed && ` · ${t`required here`}`}
        </Box>
      </Box>
    </ButtonBase>
  );
}

function standing(d: ShelvedDrill) {
  if (d.times === 0) return t`Not tried yet`;
  if (d.due > 0) return plural(d.due, { one: '# question to repeat', other: '# questions to repeat' });
  if (d.passed) return t`Known for now`;
  return t`${d.known} of ${d.skills} known`;
}
