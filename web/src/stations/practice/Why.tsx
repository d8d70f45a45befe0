/** Why: a small drawing with one handle, with the figures that follow from where it stands. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Slider from '@mui/material/Slider';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link as RouterLink, useParams } from 'react-router';
import { useWhy } from '../../api/practice';
import type { WhyName } from '../../api/types';
import { usePreferences } from '../../ui/preferences';
import { WhyView } from '../../drawings/WhyView';
import { trim } from '../../measure/format';
import { Arriving } from '../../ui/Arriving';
import { Worded } from '../../ui/Worded';

export function Why() {
  const { units } = usePreferences();
  const why = useParams().why as WhyName;
  const { data, ...asked } = useWhy(why, units);
  const [at, setAt] = useState(0);
  if (!data) return <Arriving title={t`Why`} of={[{ data, ...asked }]} rows={1} drawing />;
  const last = data.notches.length - 1;
  const n = data.notches[Math.min(at, last)]!;
  const figures: [string, string, number][] = [
    [t`Heat, share of what burns half of all boards`, trim(n.heat, 2), n.heat / 1.5],
    [t`Tear-out, share of what a show face allows`, trim(n.splinter, 2), n.splinter / 3],
    [t`Motor load`, `${Math.round(100 * n.load)} %`, n.load / 1.2],
    [t`Share of the force against the feed`, `${Math.round(100 * n.push_share)} %`, n.push_share],
  ];
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 1.5 }}>
      <Typography variant="h1">{data.title}</Typography>
      <Box
        sx={{
          display: 'grid',
          gap: 3,
          gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 3fr) minmax(260px, 2fr)' },
          mt: 1,
        }}
      >
        <Box>
          <WhyView why={why} notch={n} />
          <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, px: 1.5, mt: 1 }}>
            <Slider
              aria-label={data.handle}
              min={0}
              max={last}
              step={1}
              marks
              value={Math.min(at, last)}
              getAriaValueText={(v) => data.notches[v]?.label ?? ''}
              onChange={(_, v) => setAt(v)}
            />
          </Box>
        </Box>
        <Box aria-live="polite">
          <Box sx={{ color: 'text.secondary' }}>{data.handle}</Box>
          <Typography variant="h2">{n.label}</Typography>
          <Box sx={{ fontSize: 18, lineHeight: 1.4, my: 1 }}>
            <Worded>{n.says}</Worded>
          </Box>
          <Box component="dl" sx={{ m: 0, mt: 2, display: 'grid', gap: 1.25 }}>
            {figures.map(([name, said, share]) => (
              <Box
                key={name}
                sx={{
                  display: 'flex',
                  justifyContent: 'space-between',
                  gap: 2,
                  pb: 1.25,
                  // a bar beneath: how much of what is drawn
                  background: `linear-gradient(var(--mui-palette-text-primary) 0 0) 0 100% / ${100 * Math.max(0, Math.min(1, share))}% 6px no-repeat, linear-gradient(var(--mui-palette-drawing-steel) 0 0) 0 100% / 100% 6px no-repeat`,
                }}
              >
                <dt>{name}</dt>
                <Box component="dd" sx={{ m: 0, fontWeight: 700, fontVariantNumeric: 'tabular-nums' }}>
                  {said}
                </Box>
              </Box>
            ))}
          </Box>
        </Box>
      </Box>
      <Button component={RouterLink} to="/practice" sx={{ mt: 2 }}>{t`All drills`}</Button>
    </Box>
  );
}
