/** The rack weighed for this cut: what may go on, best first, and what may not. */
import { plural, t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import Typography from '@mui/material/Typography';
import { memo, useMemo, type ReactNode } from 'react';
import { Link } from 'react-router';
import type { Blade, Option, Plan, Units } from '../../api/types';
import { TeethStrip } from '../../drawings/TeethStrip';
import { shortSpecOf, specOf } from '../../drawings/words';
import { cutFace } from '../../drawings/theme';
import { trim } from '../../measure/format';
import { shortMinutes, stretchOf, type Stretch } from '../../ui/feed';
import { FeedLegend, FeedScale, FeedWindow } from '../../ui/FeedWindow';
import { Term } from '../../ui/Term';
import { Verdict } from '../../ui/Verdict';
import { Worded } from '../../ui/Worded';

interface Props {
  plan: Plan;
  blades: Map<string, Blade>;
  chosen: string | undefined;
  units: Units;
  onChoose: (id: string) => void;
  onMore: () => void;
}

export const Candidates = memo(function Candidates({ plan, blades, chosen, units, onChoose, onMore }: Props) {
  const stretch = useMemo(() => stretchOf(plan, units), [plan, units]);
  return (
    <Box component="section" aria-label={t`Blades for this cut`} sx={{ minWidth: 0 }}>
      {plan.modelled && plan.options.length > 0 && (
        <Box
          sx={{ pl: '128px', pr: 1.5, position: 'sticky', top: 0, bgcolor: 'background.default', zIndex: 1 }}
        >
          <FeedScale stretch={stretch} />
        </Box>
      )}
      {plan.options.length === 0 && (
        <Typography sx={{ p: 2, border: '1px dashed', borderColor: 'divider' }}>
          {t`None of your blades can make this cut. See the reasons below.`}
        </Typography>
      )}
      <Box component="ol" sx={{ listStyle: 'none', m: 0, p: 0 }} aria-label={t`Blades that fit, best first`}>
        {plan.options.map((o, i) => {
          const blade = blades.get(o.blade_id);
          return blade ? (
            <Box
              component="li"
              key={o.blade_id}
              sx={{ contentVisibility: 'auto', containIntrinsicSize: 'auto 92px' }}
            >
              <Row
                option={o}
                blade={blade}
                place={i + 1}
                chosen={o.blade_id === chosen}
                stretch={stretch}
                pieces={plan.cut.pieces ?? 1}
                onChoose={onChoose}
              />
            </Box>
          ) : null;
        })}
      </Box>
      {plan.modelled && plan.options.length > 0 && (
        <Box sx={{ py: 1, borderTop: '1px solid', borderColor: 'divider' }}>
          <FeedLegend />
        </Box>
      )}
      {plan.options_total > plan.options.length && (
        <Button onClick={onMore} variant="outlined" sx={{ my: 1 }}>
          {t`Show more of ${plan.options_total}`}
        </Button>
      )}
      {plan.swap && (
        <Said name={t`Change blades or stay`}>
          <Worded>{plan.swap.text}</Worded>
        </Said>
      )}
      {plan.kerfs && (
        <Said name={<Term of="kerf">{t`Thin or full kerf`}</Term>}>
          <Worded>{plan.kerfs.text}</Worded>{' '}
          {plan.kerfs.circuit_w !== undefined &&
            t`The circuit carries ${trim(plan.kerfs.circuit_w, 0)} W for long: a thin kerf leaves ${headroom(plan.kerfs.thin.power_w, plan.kerfs.circuit_w)} spare, a full kerf ${headroom(plan.kerfs.full.power_w, plan.kerfs.circuit_w)}.`}
        </Said>
      )}
      {plan.heel_from && plan.modelled && (
        <Said name={t`From alignment`}>
          {t`${plan.heel_from} Burn risk counts ${trim(Math.abs(plan.heel_mm), 3)} mm.`}
        </Said>
      )}
      {plan.ideal && (
        <Said name={t`Best for this cut`}>
          {specOf({ ...plan.ideal, make: 'toothed' }, units)}
          {plan.ideal.bevel_deg > 0 && `, ${t`bevel ${plan.ideal.bevel_deg}°`}`}.{' '}
          {t`Feed range ${trim(plan.ideal.room, 1)}× wide, ${plan.sure}. You may not own it.`}
        </Said>
      )}
      {plan.stopped.length > 0 && (
        <Box component="section" aria-labelledby="stopped" sx={{ mt: 2 }}>
          <Typography id="stopped" variant="h3" component="h2" sx={{ display: 'flex', gap: 1, mb: 0.5 }}>
            <Verdict verdict="stop" />
            <span>
              ·{' '}
              {plural(
                plan.stopped.reduce((n, s) => n + s.blade_ids.length, 0),
                { one: "# blade can't be used", other: "# blades can't be used" },
              )}
            </span>
          </Typography>
          <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
            {plan.stopped.map((g) => (
              <Box
                component="li"
                key={g.rule + g.why}
                sx={{ py: 0.75, borderTop: '1px solid', borderColor: 'divider' }}
              >
                <Box component="span" sx={{ fontFamily: cutFace, fontWeight: 620, overflowWrap: 'anywhere' }}>
                  {namesOf(g.blade_ids, blades)}
                </Box>
                <Box sx={{ fontSize: 15, lineHeight: 1.35 }}>
                  <Worded>{g.why}</Worded>{' '}
                  <Box component="span" sx={{ color: 'text.secondary' }}>
                    <Worded>{g.way_out}</Worded>
                  </Box>
                </Box>
              </Box>
            ))}
          </Box>
        </Box>
      )}
    </Box>
  );
});

const headroom = (power: number, circuit: number) => `${trim(100 * (1 - power / circuit), 0)} %`;

/** A sentence about the cut as a whole, under its own name. */
function Said({ name, children }: { name: ReactNode; children: ReactNode }) {
  return (
    <Box sx={{ py: 0.75, borderTop: '1px solid', borderColor: 'divider', fontSize: 15, lineHeight: 1.35 }}>
      <b>{name}.</b> {children}
    </Box>
  );
}

const MOST_NAMES = 12;

function namesOf(ids: string[], blades: Map<string, Blade>) {
  const names = ids.slice(0, MOST_NAMES).map((id) => blades.get(id)?.name ?? t`a blade`);
  const rest = ids.length - names.length;
  return rest > 0 ? t`${names.join(', ')} and ${rest} more` : names.join(', ');
}

interface RowProps {
  option: Option;
  blade: Blade;
  place: number;
  chosen: boolean;
  stretch: Stretch;
  pieces: number;
  onChoose: (id: string) => void;
}

const Row = memo(function Row({ option, blade, place, chosen, stretch, pieces, onChoose }: RowProps) {
  return (
    <>
      <ButtonBase
        aria-pressed={chosen}
        onClick={() => onChoose(blade.id)}
        sx={{
          width: '100%',
          display: 'grid',
          gridTemplateColumns: '116px minmax(0, 1fr)',
          columnGap: 1.5,
          alignItems: 'start',
          textAlign: 'left',
          p: 1,
          pr: 1.5,
          borderTop: '1px solid',
          borderColor: 'divider',
          bgcolor: chosen ? 'background.paper' : 'transparent',
          boxShadow: chosen ? 'inset 5px 0 0 var(--mui-palette-text-primary)' : 'none',
          '&:hover': { bgcolor: 'background.paper' },
          '&:focus-visible': { outlineOffset: -3 },
        }}
      >
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.5, pl: 0.5 }}>
          <Box aria-hidden sx={{ width: 16, fontSize: 14, color: 'text.secondary' }}>
            {place}
          </Box>
          <TeethStrip blade={blade} />
        </Box>
        <Box sx={{ minWidth: 0 }}>
          <Box
            sx={{
              display: 'flex',
              alignItems: 'baseline',
              columnGap: 1,
              flexWrap: { xs: 'wrap', md: 'nowrap' },
            }}
          >
            <Box
              component="span"
              sx={{
                fontFamily: cutFace,
                fontWeight: 640,
                fontSize: 19,
                lineHeight: 1.1,
                overflowWrap: 'anywhere',
              }}
            >
              {blade.name}
            </Box>
            <Box
              component="span"
              sx={{ fontSize: 14, color: 'text.secondary', flex: { xs: '1 0 auto', md: 1 }, minWidth: 0 }}
            >
              {shortSpecOf(blade)}
            </Box>
            {option.setting && (
              <Box component="span" sx={{ fontSize: 14, whiteSpace: 'nowrap' }}>
                {pieces > 1
                  ? t`${pieces} in ${shortMinutes(option.setting.minutes.all)}`
                  : shortMinutes(option.setting.minutes.all)}
              </Box>
            )}
            <Verdict verdict={option.verdict} size={14} />
          </Box>
          {option.setting && (
            <Box sx={{ my: 0.5 }}>
              <FeedWindow setting={option.setting} stretch={stretch} />
            </Box>
          )}
          <Reasons option={option} place={place} />
          {option.minds.map((m) => (
            <Box
              component="span"
              key={m.rule}
              sx={{ display: 'block', fontSize: 14.5, lineHeight: 1.3, fontWeight: 600 }}
            >
              {m.why}
            </Box>
          ))}
        </Box>
      </ButtonBase>
      {chosen && <Whys option={option} />}
    </>
  );
});

/** What a reason is called that can be tried. */
const names: Record<string, string> = {
  finish: t`tear-out`,
  scorch: t`heat`,
  load: t`motor load`,
  room: t`feed`,
  wall: t`cut edge`,
  fitness: t`teeth`,
  condition: t`edge`,
};

const Whys = ({ option }: { option: Option }) => (
  <Box
    sx={{
      pl: '136px',
      fontSize: 14.5,
      bgcolor: 'background.paper',
      boxShadow: 'inset 5px 0 0 var(--mui-palette-text-primary)',
    }}
  >
    {t`Why?`}
    {option.reasons.map(
      (r) =>
        r.why && (
          <Box
            key={r.term}
            component={Link}
            to={`/practice/why/${r.why}`}
            sx={{ display: 'inline-block', p: { xs: '12px 10px', md: '4px 8px' }, color: 'primary.main' }}
          >
            {names[r.term]}
          </Box>
        ),
    )}
  </Box>
);

function Reasons({ option, place }: { option: Option; place: number }) {
  return (
    <Box component="span" sx={{ display: 'block', fontSize: 14.5, lineHeight: 1.3 }}>
      {option.level && `${place === 1 ? t`Ties with the next` : t`Ties with the first`} · `}
      {option.reasons.map((r, i) => (
        <Box component="span" key={r.term}>
          {i > 0 && ' · '}
          <Box component="span" aria-hidden sx={{ fontWeight: 700 }}>
            {r.good ? '+ ' : '− '}
          </Box>
          <Box
            component="span"
            sx={{ position: 'absolute', width: 1, height: 1, overflow: 'hidden', clipPath: 'inset(50%)' }}
          >
            {`${r.good ? t`For:` : t`Against:`} `}
          </Box>
          {r.text}
        </Box>
      ))}
    </Box>
  );
}
