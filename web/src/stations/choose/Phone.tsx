/**
 * Cut on a phone: what to take, how high, how fast and whether it is safe, before
 * anything is scrolled; the drawing under it; one action at the thumb.
 */
import { wordOf } from '../../drawings/codeWords';
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import Typography from '@mui/material/Typography';
import { lazy, Suspense, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import type { Blade, Option, Plan } from '../../api/types';
import { cutFace } from '../../drawings/theme';
import { SideView } from '../../drawings/SideView';
import { specOf } from '../../drawings/words';
import { formatSetting, trim } from '../../measure/format';
import { saidMinutes, saidSeconds, stretchOf } from '../../ui/feed';
import { FeedWindow } from '../../ui/FeedWindow';
import { ActionBar } from '../../ui/ActionBar';
import { Popover } from '../../ui/Floating';
import { Verdict } from '../../ui/Verdict';
import { LengthField } from '../../ui/LengthField';
import { Worded } from '../../ui/Worded';
import { AllFigures, burn, HeightPicks, Says, smallButton, worstOf } from './Figures';
import { Findings } from '../../cut/Findings';
import type { PhoneViewName, SettingPanelProps } from './setting';

const Passes = lazy(() => import('./Passes').then((m) => ({ default: m.Passes })));

const View = lazy(() => import('./PhoneView').then((m) => ({ default: m.PhoneView })));

export function PhonePanel(p: SettingPanelProps) {
  const { plan, cut, saw, material, blade, option, setting, blades, units, onHeight, onBlade } = p;
  const [view, setView] = useState<PhoneViewName>();
  const heights = option.heights;
  const movable = heights && (!heights.exact || cut.motion === 'push' || plan.both_faces);
  const stretch = stretchOf(plan, units);
  const pieces = cut.pieces ?? 1;
  const views: [PhoneViewName, string][] = [
    ...(p.schools.length > 0 ? [['heights', t`Heights`] as [PhoneViewName, string]] : []),
    ['end', t`End`],
    ['hold', t`Guide`],
    ...(p.pins.length > 0 ? [['compare', t`Compare ${p.pins.length}`] as [PhoneViewName, string]] : []),
  ];
  return (
    <Box component="section" aria-label={t`${blade.name} at its setting`} sx={{ display: 'grid', gap: 1 }}>
      <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1.5 }}>
        <Typography
          variant="h1"
          sx={{
            flex: 1,
            minWidth: 0,
            fontSize: 30,
            lineHeight: 1.05,
            maxHeight: '2.1em',
            overflow: 'hidden',
            overflowWrap: 'anywhere',
          }}
        >
          {blade.name}
        </Typography>
        <Box sx={{ fontSize: 20 }}>
          <Verdict verdict={worstOf(plan, option, setting)} size={20} />
        </Box>
      </Box>
      <Box sx={{ color: 'text.secondary', mt: -0.75 }}>
        <Worded>{specOf(blade, units)}</Worded> · {option.mounted ? t`on the saw now` : blade.hangs}
      </Box>
      <Findings findings={plan.findings} onYes={p.onYes} />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 2 }}>
        {setting.height_mm > 0 ? (
          <Height
            said={formatSetting(setting.height_mm, units)}
            name={saw.kind === 'table' ? t`high` : t`deep`}
            movable={Boolean(movable)}
          >
            <LengthField
              label={saw.kind === 'table' ? t`Height` : t`Depth`}
              mm={setting.height_mm}
              units={units}
              onLength={onHeight}
              problem={p.problem}
              large
            />
            {heights && (
              <HeightPicks heights={heights} saw={saw} now={setting.height_mm} onHeight={onHeight} />
            )}
          </Height>
        ) : (
          <Big value={trim(setting.minutes.all, 1)} name={t`min total`} />
        )}
        <Big value={saidSeconds(setting, units)} name={t`for ${stretch.name}`} />
      </Box>
      <FeedWindow setting={setting} stretch={stretch} tall />
      <Box
        sx={{
          height: 196,
          mx: -2,
          borderTop: '1px solid',
          borderBottom: '1px solid',
          borderColor: 'divider',
        }}
      >
        <SideView
          saw={saw}
          blade={blade}
          cut={cut}
          material={material}
          setting={setting}
          section={{ width_mm: plan.meets_width_mm, thickness_mm: plan.meets_thickness_mm }}
          fullMm={movable ? heights.full_mm : 0}
          showFace={plan.show_face}
          units={units}
          onHeight={onHeight}
        />
      </Box>
      <Box>
        {pieces > 1 ? t`${pieces} pieces` : t`One piece`} {saidMinutes(setting.minutes.all)}
        <Worded>{` · ${t`burn risk`}`}</Worded> {burn(setting.burn)}
        {plan.swap && <Worded>{` · ${plan.swap.text}`}</Worded>}
      </Box>
      <Pager {...{ plan, option, blades, onBlade }} onList={() => setView('blades')} />
      {p.passes.length > 0 && (
        <Suspense fallback={null}>
          <Passes passes={p.passes} units={units} table={saw.kind === 'table'} />
        </Suspense>
      )}
      <Says {...{ option, setting, plan, onHeight, onBlade }} table={saw.kind === 'table'} />
      <AllFigures {...{ plan, cut, setting, units }} />
      <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 1, mx: -1 }}>
        {!option.mounted && <Button size="small" sx={smallButton} onClick={p.onMount}>{t`Mount it`}</Button>}
        <Button size="small" sx={smallButton} onClick={p.onPin}>{t`Pin to compare`}</Button>
        <Button size="small" sx={smallButton} component={Link} to={p.card}>{t`Setup card`}</Button>
      </Box>
      <Actions views={views} onView={setView}>
        {p.children}
      </Actions>
      {view && (
        <Suspense fallback={null}>
          <View name={view} panel={p} onClose={() => setView(undefined)} />
        </Suspense>
      )}
    </Box>
  );
}

function Big({ value, name }: { value: string; name: string }) {
  return (
    <Box sx={{ minWidth: 0 }}>
      <Box sx={{ fontSize: 44, fontWeight: 700, lineHeight: 1.05, whiteSpace: 'nowrap' }}>{value}</Box>
      <Box sx={{ color: 'text.secondary', lineHeight: 1.2 }}>{name}</Box>
    </Box>
  );
}

/** The height as a figure; a touch opens where it is typed or picked. */
function Height({
  said,
  name,
  movable,
  children,
}: {
  said: string;
  name: string;
  movable: boolean;
  children: ReactNode;
}) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  if (!movable) return <Big value={said} name={name} />;
  return (
    <>
      <ButtonBase
        aria-haspopup="dialog"
        onClick={(e) => setAnchor(e.currentTarget)}
        sx={{ justifyContent: 'flex-start', textAlign: 'left', color: 'primary.main', minWidth: 0 }}
      >
        <Big value={said} name={t`${name}, tap to set`} />
      </ButtonBase>
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        slotProps={{ paper: { role: 'dialog', 'aria-label': t`The height` } as object }}
      >
        <Box sx={{ p: 2, width: 300 }}>{children}</Box>
      </Popover>
    </>
  );
}

/** The other blades, one after the other. */
function Pager({
  plan,
  option,
  blades,
  onBlade,
  onList,
}: {
  plan: Plan;
  option: Option;
  blades: Map<string, Blade>;
  onBlade: (id: string) => void;
  onList: () => void;
}) {
  const at = plan.options.findIndex((o) => o.blade_id === option.blade_id);
  const before = plan.options[at - 1];
  const after = plan.options[at + 1];
  const name = (o: Option) => blades.get(o.blade_id)?.name ?? '';
  const arrow = { minWidth: 52, minHeight: 52, fontSize: 26, color: 'primary.main' };
  return (
    <Box
      role="group"
      aria-label={t`Other blades`}
      sx={{
        display: 'flex',
        alignItems: 'center',
        borderTop: '1px solid',
        borderBottom: '1px solid',
        borderColor: 'divider',
      }}
    >
      <ButtonBase
        disabled={!before}
        aria-label={before ? t`Back to ${name(before)}` : t`No more blades before this`}
        onClick={() => before && onBlade(before.blade_id)}
        sx={{ ...arrow, visibility: before ? 'visible' : 'hidden' }}
      >
        ‹
      </ButtonBase>
      <ButtonBase
        onClick={onList}
        sx={{ flex: 1, minWidth: 0, minHeight: 52, display: 'block', textAlign: 'center', lineHeight: 1.2 }}
      >
        <Box sx={{ color: 'primary.main', fontWeight: 650 }}>
          {t`Blade ${at + 1} of ${plan.options_total}`}
        </Box>
        {after && (
          <Box
            sx={{
              color: 'text.secondary',
              overflow: 'hidden',
              textOverflow: 'ellipsis',
              whiteSpace: 'nowrap',
            }}
          >
            {t`next ${name(after)}, ${wordOf(after.verdict)}`}
          </Box>
        )}
      </ButtonBase>
      <ButtonBase
        disabled={!after}
        aria-label={after ? t`Next: ${name(after)}` : t`No more blades after this`}
        onClick={() => after && onBlade(after.blade_id)}
        sx={{ ...arrow, visibility: after ? 'visible' : 'hidden' }}
      >
        ›
      </ButtonBase>
    </Box>
  );
}

/** The other views of the setting, and what is done. */
function Actions({
  views,
  onView,
  children,
}: {
  views: [PhoneViewName, string][];
  onView: (v: PhoneViewName) => void;
  children: ReactNode;
}) {
  return (
    <ActionBar>
      {views.map(([v, name]) => (
        <ButtonBase
          key={v}
          onClick={() => onView(v)}
          sx={{
            px: 1.25,
            minHeight: 52,
            fontFamily: cutFace,
            fontSize: 17,
            fontWeight: 600,
            color: 'primary.main',
          }}
        >
          {name}
        </ButtonBase>
      ))}
      <Box sx={{ flex: 1 }} />
      {children}
    </ActionBar>
  );
}

/** The cut in two lines; a touch opens it as a sheet with its words as controls. */
export function BriefSentence({ said, children }: { said: string; children: ReactNode }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <ButtonBase
        aria-haspopup="dialog"
        aria-label={t`Change the cut: ${said}`}
        onClick={() => setOpen(true)}
        sx={{
          mx: -2,
          px: 2,
          py: 1,
          minHeight: 64,
          display: 'block',
          textAlign: 'left',
          borderBottom: '2px solid',
          borderColor: 'text.primary',
          fontSize: 19,
          lineHeight: 1.3,
          width: 'calc(100% + 32px)',
        }}
      >
        <Box
          component="span"
          sx={{
            display: '-webkit-box',
            WebkitLineClamp: 3,
            WebkitBoxOrient: 'vertical',
            overflow: 'hidden',
          }}
        >
          {said}
        </Box>
      </ButtonBase>
      {open && (
        <Suspense fallback={null}>
          <SentenceSheet onClose={() => setOpen(false)}>{children}</SentenceSheet>
        </Suspense>
      )}
    </>
  );
}

const SentenceSheet = lazy(() => import('./PhoneView').then((m) => ({ default: m.SentenceSheet })));
