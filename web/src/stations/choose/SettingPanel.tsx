/** One blade at one height: the drawing, the settings to read at arm's length, and what they lead to. */
import { wordOf } from '../../drawings/codeWords';
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { lazy, Suspense, useRef, useState } from 'react';
import { Link } from 'react-router';
import { cutFace } from '../../drawings/theme';
import { SideView } from '../../drawings/SideView';
import { specOf } from '../../drawings/words';
import { trim } from '../../measure/format';
import { saidSeconds, stretchOf } from '../../ui/feed';
import { FeedWindow } from '../../ui/FeedWindow';
import { Segments } from '../../ui/Segments';
import { Term } from '../../ui/Term';
import { Verdict } from '../../ui/Verdict';
import { LengthField } from '../../ui/LengthField';
import { Worded } from '../../ui/Worded';
import type { SettingPanelProps } from './setting';
import { AllFigures, HeightPicks, Says, smallButton, worstOf } from './Figures';

const Passes = lazy(() => import('./Passes').then((m) => ({ default: m.Passes })));

const EndOf = lazy(() => import('./EndOf').then((m) => ({ default: m.EndOf })));

const Schools = lazy(() => import('./Schools').then((m) => ({ default: m.Schools })));

const Hold = lazy(() => import('./Hold').then((m) => ({ default: m.Hold })));

const Compare = lazy(() => import('./Compare').then((m) => ({ default: m.Compare })));

type View = 'side' | 'end' | 'heights' | 'hold' | 'compare';

export function SettingPanel({
  plan,
  cut,
  saw,
  material,
  blade,
  option,
  setting,
  schools,
  passes,
  sweep,
  blades,
  pins,
  card,
  units,
  problem,
  onHeight,
  onPin,
  onMount,
  onUnpin,
  onBlade,
  children,
}: SettingPanelProps) {
  const drawing = useRef<HTMLDivElement>(null);
  const heights = option.heights;
  const [view, setView] = useState<View>('side');
  const views: { value: View; name: string }[] = [
    { value: 'side', name: t`Side` },
    { value: 'end', name: t`End` },
    ...(schools.length > 0 ? [{ value: 'heights' as const, name: t`Heights` }] : []),
    { value: 'hold', name: t`Guide` },
    ...(pins.length > 0 ? [{ value: 'compare' as const, name: t`Compare ${pins.length}` }] : []),
  ];
  const movable = heights && (!heights.exact || cut.motion === 'push' || plan.both_faces);
  const section = { width_mm: plan.meets_width_mm, thickness_mm: plan.meets_thickness_mm };
  const shown = views.some((v) => v.value === view) ? view : 'side';
  // These are read for themselves, so they get the whole height.
  const wide = shown === 'heights' || shown === 'hold' || shown === 'compare';
  const name = saw.kind === 'table' ? t`Height` : t`Depth`;
  const stretch = stretchOf(plan, units);
  return (
    <Box
      component="section"
      aria-label={t`${blade.name} at its setting`}
      sx={{ display: 'flex', flexDirection: 'column', minWidth: 0, height: { md: '100%' }, gap: 0.75 }}
    >
      <Box
        sx={{
          flex: { md: 1 },
          minHeight: 0,
          overflow: { md: 'auto' },
          display: 'flex',
          flexDirection: 'column',
          gap: 0.75,
        }}
      >
        <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1.5, flexWrap: 'wrap' }}>
          <Typography variant="h1" component="h1" sx={{ overflowWrap: 'anywhere' }}>
            {blade.name}
          </Typography>
          <Box sx={{ fontSize: 18 }}>
            <Verdict verdict={worstOf(plan, option, setting)} size={18} />
          </Box>
          <Box sx={{ flex: 1 }} />
          <Segments label={t`Drawing`} value={shown} choices={views} onChoose={setView} />
        </Box>
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.5, flexWrap: 'wrap', mt: -0.75 }}>
          <Box sx={{ color: 'text.secondary', flex: { xs: '1 0 100%', sm: 1 }, minWidth: 180, fontSize: 15 }}>
            <Worded>{specOf(blade, units)}</Worded>,{' '}
            {option.mounted ? t`on the saw now` : t`location: ${blade.hangs || t`not recorded`}`}
          </Box>
          {!option.mounted && <Button size="small" sx={smallButton} onClick={onMount}>{t`Mount it`}</Button>}
          <Button size="small" sx={smallButton} onClick={onPin}>{t`Pin to compare`}</Button>
          <Button size="small" sx={smallButton} component={Link} to={card}>{t`Setup card`}</Button>
          <Button
            size="small"
            sx={smallButton}
            onClick={() =>
              void import('../../drawings/save').then((m) =>
                m.saveSvg(drawing.current, `${blade.name} ${shown}`),
              )
            }
            disabled={shown === 'compare'}
          >
            {t`Save drawing`}
          </Button>
        </Box>

        <Box
          sx={{
            flex: { md: 1 },
            height: { xs: 224, sm: 340, md: 'auto' },
            flexShrink: 0,
            minHeight: { md: wide ? 0 : 196 },
            borderTop: '1px solid',
            borderBottom: '1px solid',
            borderColor: 'divider',
            ...(wide ? { height: 'auto', overflow: { md: 'auto' } } : {}),
          }}
          ref={drawing}
        >
          {shown === 'side' && (
            <SideView
              saw={saw}
              blade={blade}
              cut={cut}
              material={material}
              setting={setting}
              section={section}
              fullMm={movable ? heights.full_mm : 0}
              showFace={plan.show_face}
              units={units}
              onHeight={onHeight}
            />
          )}
          <Suspense fallback={<Box sx={{ p: 1 }}>{t`Drawing…`}</Box>}>
            {shown === 'end' && <EndOf id={blade.id} cut={cut} units={units} />}
            {shown === 'heights' && (
              <Schools {...{ schools, plan, cut, saw, material, blade, setting, sweep, units, onHeight }} />
            )}
            {shown === 'hold' && <Hold {...{ plan, saw, units }} />}
            {shown === 'compare' && <Compare {...{ cut, stretch, pins, blades, units, onUnpin }} />}
          </Suspense>
        </Box>

        {!wide && (
          <>
            <Box
              sx={{
                display: 'grid',
                gridTemplateColumns: { xs: '1fr', sm: movable ? '250px minmax(0,1fr)' : 'minmax(0,1fr)' },
                columnGap: 3,
                rowGap: 1.5,
                alignItems: 'start',
              }}
            >
              {movable && (
                <Box>
                  <LengthField
                    label={name}
                    mm={setting.height_mm}
                    units={units}
                    onLength={onHeight}
                    problem={problem}
                    large
                  />
                  <HeightPicks heights={heights} saw={saw} now={setting.height_mm} onHeight={onHeight} />
                </Box>
              )}
              <Box sx={{ minWidth: 0 }}>
                <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1, flexWrap: 'wrap' }}>
                  <Box sx={{ fontSize: 34, fontWeight: 700, lineHeight: 1 }}>
                    {saidSeconds(setting, units)}
                  </Box>
                  <Box sx={{ color: 'text.secondary' }}>{t`for ${stretch.name}`}</Box>
                  <Box sx={{ ml: 'auto', fontFamily: cutFace, fontSize: 17, fontWeight: 600 }}>
                    <Term of="feed-range">{t`feed range`}</Term> {wordOf(setting.window.grade)},{' '}
                    <Term of="room">{`${trim(setting.window.room, 1)}×`}</Term>
                  </Box>
                </Box>
                <Box sx={{ mt: 0.75 }}>
                  <FeedWindow setting={setting} stretch={stretch} tall />
                </Box>
              </Box>
            </Box>

            <AllFigures {...{ plan, cut, setting, units }} />

            {passes.length > 0 && (
              <Suspense>
                <Passes passes={passes} units={units} table={saw.kind === 'table'} />
              </Suspense>
            )}
            <Says
              option={option}
              setting={setting}
              onHeight={onHeight}
              onBlade={onBlade}
              plan={plan}
              table={saw.kind === 'table'}
            />
          </>
        )}
      </Box>
      {children}
    </Box>
  );
}
