/** One way to a groove: its bottom at true scale, the set on its arbor or the passes along the fence, and what to mind. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { components } from '../../api/schema';
import type { Cut, GrooveWay, Saw, Units } from '../../api/types';
import { ClockView } from '../../drawings/ClockView';
import { GrooveSection } from '../../drawings/GrooveSection';
import { StackView } from '../../drawings/StackView';
import { fixed, formatThin, trim } from '../../measure/format';
import { Verdict } from '../../ui/Verdict';

interface Props {
  way: GrooveWay;
  plan: components['schemas']['GroovePlan'];
  cut: Cut;
  saw: Saw | undefined;
  units: Units;
  busy: boolean;
  onStart: () => void;
}

export function WayDetail({ way, plan, cut, saw, units, busy, onStart }: Props) {
  if (way.verdict === 'stop')
    return (
      <Box sx={{ border: '3px solid', borderColor: 'text.primary', bgcolor: 'background.paper', p: 2 }}>
        <Box sx={{ fontSize: 22 }}>
          <Verdict verdict="stop" size={22} />
        </Box>
        <Box sx={{ fontSize: 19, mt: 0.5 }}>
          {way.blade_name}: {way.says}.
        </Box>
        {way.kind === 'unsaid' && (
          <Button component={Link} to={`/blades/${way.blade_id}/set`} variant="outlined" sx={{ mt: 1 }}>
            {t`Enter its parts`}
          </Button>
        )}
      </Box>
    );
  return (
    <Box component="section" aria-label={t`${way.blade_name}: how it cuts the groove`}>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap', mb: 1 }}>
        <Button variant="contained" disabled={busy} onClick={onStart} sx={{ px: 3, fontSize: 17 }}>
          {t`Set up with ${way.blade_name}`}
        </Button>
        <Box sx={{ fontSize: 15.5, flex: 1, minWidth: 200 }}>
          {t`${trim(way.setup_minutes, 0)} minutes to set up with test grooves, then ${trim(way.each_minutes, 1)} for each.`}
        </Box>
      </Box>
      <GrooveSection
        way={way}
        width={plan.target_mm}
        depth={cut.depth_mm ?? 0}
        piece={plan.thickest_mm}
        stock={cut.thickness_mm}
        rabbet={cut.form === 'rabbet'}
        units={units}
      />
      <Setting way={way} units={units} hand={saw?.kind === 'circular'} />
      <Box component="ul" sx={{ m: 0, pl: 2.5, fontSize: 15 }} aria-label={t`Cautions`}>
        {plan.cautions.map((c) => (
          <li key={c}>{c}</li>
        ))}
      </Box>
    </Box>
  );
}

/** A set on its arbor, or passes in their order. */
export function Setting({ way, units, hand = false }: { way: GrooveWay; units: Units; hand?: boolean }) {
  if (way.kind === 'passes') return <Passes way={way} units={units} hand={hand} />;
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: 'minmax(0,1fr)', sm: 'minmax(0,1fr) 200px' },
        columnGap: 2,
        alignItems: 'center',
      }}
    >
      <StackView way={way} units={units} />
      <Box sx={{ display: 'grid', placeItems: 'center' }}>
        {way.kind === 'stack' ? (
          <>
            <ClockView way={way} size={196} />
            <Box sx={{ fontSize: 14, color: 'text.secondary', textAlign: 'center' }}>
              {t`Teeth toward you at the top. Chippers in the gullets, none touching.`}
              {way.clocked === false &&
                ` ${t`There are more chippers than gullets. Follow the instructions of the set.`}`}
            </Box>
          </>
        ) : (
          <Box sx={{ textAlign: 'center' }}>
            <Box sx={{ color: 'text.secondary' }}>{t`Dial setting for ${way.cutters ?? 0} cutters`}</Box>
            <Box sx={{ fontSize: 38, fontWeight: 700, lineHeight: 1.1 }}>{fixed(way.turns ?? 0, 2)}</Box>
            <Box>{t`turns. Do not overtighten.`}</Box>
          </Box>
        )}
      </Box>
      {way.arbor && (
        <Box sx={{ gridColumn: '1 / -1', display: 'flex', gap: 1, alignItems: 'baseline', fontSize: 15.5 }}>
          <Verdict verdict={way.arbor.verdict} size={13} />
          <span>{t`${way.arbor.says}. It needs ${way.needs.join('; ')}.`}</span>
        </Box>
      )}
    </Box>
  );
}

/** The fence for each pass, the near wall first; the last one makes the width. */
function Passes({ way, units, hand }: { way: GrooveWay; units: Units; hand: boolean }) {
  const n = way.passes.length;
  return (
    <Box>
      <Box sx={{ fontSize: 16, mb: 0.5 }}>
        {hand
          ? t`From the guide to the near side of the blade, near side first:`
          : t`From the fence to the near side of the blade, near side first. Run all pieces at each setting:`}
      </Box>
      <Box
        component="ol"
        aria-label={t`Passes`}
        sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75, listStyle: 'none', m: 0, p: 0 }}
      >
        {way.passes.map((p, i) => (
          <Box
            component="li"
            key={i}
            sx={{
              border: '1.5px solid',
              borderColor: i === n - 1 ? 'text.primary' : 'divider',
              px: 1,
              py: 0.5,
              minWidth: 74,
            }}
          >
            <Cell>{i === n - 1 && n > 1 ? 'last' : `${i + 1}`}</Cell>
            <b>{formatThin(p.fence_mm, units)}</b>
          </Box>
        ))}
      </Box>
      {n > 1 && (
        <Box sx={{ fontSize: 14.5, color: 'text.secondary', mt: 0.5 }}>
          {t`Keep the edge of the stock on the ${hand ? t`guide` : t`fence`}. Measure the groove before the last pass, which sets the width.`}
        </Box>
      )}
    </Box>
  );
}

const Cell = ({ children }: { children: ReactNode }) => (
  <Box sx={{ fontSize: 13, color: 'text.secondary', lineHeight: 1.1 }}>{children}</Box>
);
