/** The schools of setting a blade side by side: the same drawing and the same figures for each. */
import { wordOf } from '../../drawings/codeWords';
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { burn } from './Figures';
import type { Blade, Cut, Material, Plan, Saw, Setting, Sweep, Units } from '../../api/types';
import { lazy, Suspense } from 'react';
import { SideView } from '../../drawings/SideView';
import type { TermId } from '../../drawings/TermPicture';
import { fixed, formatSetting, trim } from '../../measure/format';
import { Term } from '../../ui/Term';
import { Worded } from '../../ui/Worded';

const HeightCurve = lazy(() =>
  import('../../drawings/HeightCurve').then((m) => ({ default: m.HeightCurve })),
);

interface Props {
  schools: Sweep['schools'];
  plan: Plan;
  cut: Cut;
  saw: Saw;
  material: Material | undefined;
  blade: Blade;
  setting: Setting; // the one that is set
  sweep: Setting[];
  units: Units;
  onHeight: (mm: number) => void;
}

const names = { proud: t`Just above the stock`, gullets: t`Gullets clear`, full: t`Full` } as const;
const pct = (x: number) => `${trim(100 * x, 0)} %`;

export function Schools({
  schools,
  plan,
  cut,
  saw,
  material,
  blade,
  setting,
  sweep,
  units,
  onHeight,
}: Props) {
  const full = Math.max(...schools.map((s) => s.setting.height_mm));
  const push = saw.kind === 'table' ? t`kickback force` : t`feed force`;
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', height: { md: '100%' }, gap: 1 }}>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: 'repeat(3, minmax(0,1fr))',
          columnGap: { xs: 1, sm: 2 },
          flex: { md: 1 },
          minHeight: 0,
        }}
      >
        {schools.map(({ name, setting: s }) => {
          const rows: [string, string, TermId?][] = [
            [t`arc, teeth in`, `${formatSetting(s.arc_mm, units)}, ${trim(s.teeth_in_cut, 1)}`],
            [
              t`mean chip`,
              units === 'mm' ? `${trim(1000 * s.mean_chip_mm, 0)} µm` : `${fixed(s.mean_chip_mm / 25.4, 4)}"`,
              'bite',
            ],
            [wordOf(s.exit.name), `${trim(s.exit.angle_deg, 0)}°, ${pct(s.exit.of_limit)}`],
            [t`burn risk`, burn(s.burn)],
            [
              saw.kind === 'table' ? t`back, down` : t`along, across`,
              `${pct(s.push_share)}, ${pct(s.hold_share)}`,
            ],
            [t`blade shown`, formatSetting(Math.max(0, s.height_mm - cut.thickness_mm), units)],
            [t`feed range`, `${wordOf(s.window.grade)}, ${trim(s.window.room, 1)}`],
          ];
          return (
            <Box
              key={name}
              component="section"
              aria-label={names[name]}
              sx={{ display: 'flex', flexDirection: 'column', minHeight: 0 }}
            >
              {/* As high for each, so that the figures beneath stand in one line. */}
              <Box
                sx={{
                  display: 'flex',
                  alignItems: 'center',
                  justifyContent: 'space-between',
                  minHeight: { xs: 76, sm: 0 },
                }}
              >
                <b>
                  <Worded>{names[name]}</Worded>, {formatSetting(s.height_mm, units)}
                </b>
                <Button
                  size="small"
                  aria-label={t`Set ${names[name].toLowerCase()}`}
                  onClick={() => onHeight(s.height_mm)}
                  sx={{ minHeight: { xs: 44, md: 30 }, minWidth: { xs: 44, md: 0 } }}
                >
                  {t`Set`}
                </Button>
              </Box>
              <Box sx={{ flex: { md: 1 }, height: { xs: 130, md: 'auto' }, minHeight: 84 }}>
                <SideView
                  saw={saw}
                  blade={blade}
                  cut={cut}
                  material={material}
                  setting={s}
                  section={{ width_mm: plan.meets_width_mm, thickness_mm: plan.meets_thickness_mm }}
                  fullMm={full}
                  showFace={plan.show_face}
                  units={units}
                />
              </Box>
              <Box
                component="dl"
                sx={{
                  m: 0,
                  display: 'grid',
                  gridTemplateColumns: { xs: '1fr', sm: 'auto 1fr' },
                  columnGap: 1,
                  fontSize: 13.5,
                  lineHeight: 1.3,
                }}
              >
                {rows.map(([k, v, term]) => (
                  <Box key={k} sx={{ display: 'contents' }}>
                    <Box component="dt" sx={{ color: 'text.secondary' }}>
                      {term ? (
                        <Term of={term} within>
                          {k}
                        </Term>
                      ) : (
                        k
                      )}
                    </Box>
                    <Box component="dd" sx={{ m: 0, textAlign: { sm: 'right' }, fontWeight: 600 }}>
                      {v}
                    </Box>
                  </Box>
                ))}
              </Box>
            </Box>
          );
        })}
      </Box>
      <Box sx={{ height: { xs: 260, sm: 220 }, flex: 'none' }}>
        <Suspense fallback={null}>
          <HeightCurve settings={sweep} at={setting.height_mm} {...{ units, push, onHeight }} />
        </Suspense>
      </Box>
    </Box>
  );
}
