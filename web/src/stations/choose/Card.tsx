/** The setup card: one cut on one page, to print or to lean against the saw. */
import { wordOf } from '../../drawings/codeWords';
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import { Link, useSearchParams } from 'react-router';
import { useComparison, usePlan } from '../../api/choose';
import { useBlades, useSaws } from '../../api/rack';
import { useMaterials } from '../../api/shop';
import type { Cut } from '../../api/types';
import { usePreferences } from '../../ui/preferences';
import { cutFace } from '../../drawings/theme';
import { SideView } from '../../drawings/SideView';
import { cutSaid, specOf, supportWords } from '../../drawings/words';
import { formatSetting, trim } from '../../measure/format';
import { saidMinutes, saidSeconds, stretchOf } from '../../ui/feed';
import { FeedWindow } from '../../ui/FeedWindow';
import { useCut } from '../../cut/cut';
import { Findings } from '../../cut/Findings';
import { Advices } from './Hold';
import { Trouble } from '../../ui/Notice';
import { Worded } from '../../ui/Worded';

export function Card() {
  const { units } = usePreferences();
  const [params] = useSearchParams();
  const saws = useSaws();
  const materials = useMaterials();
  const rack = useBlades();
  const [cut, , answer] = useCut(saws.data, materials.data);
  const blade = rack.data?.find((b) => b.id === params.get('blade'));
  const plan = usePlan(cut, units, 60);
  const height = Number(params.get('h')) || undefined;
  const compared = useComparison(
    plan.data?.cut ?? (cut as Cut),
    cut && plan.data && blade ? [{ blade_id: blade.id, height_mm: height }] : [],
    units,
  );
  const one = compared.data?.[0];
  const saw = saws.data?.find((s) => s.id === cut?.saw_id);
  const material = materials.data?.find((m) => m.id === cut?.material);
  const back = new URLSearchParams(params);
  back.delete('blade');
  back.delete('h');
  const failed = plan.error ?? compared.error ?? rack.error;
  return (
    <Box
      component="main"
      sx={{ maxWidth: 820, mx: 'auto', p: 3, '@media print': { p: 0, maxWidth: 'none', fontSize: '11pt' } }}
    >
      <Box sx={{ display: 'flex', gap: 1, mb: 2, '@media print': { display: 'none' } }}>
        <Button component={Link} to={`/?${back}`}>{t`‹ Cut`}</Button>
        <Button variant="contained" onClick={() => window.print()}>{t`Print`}</Button>
      </Box>
      {failed && <Trouble>{failed.message}</Trouble>}
      {rack.data && !blade && <Trouble>{t`This blade is no longer in your rack.`}</Trouble>}
      {one?.refused && <Trouble>{one.refused}</Trouble>}
      {plan.data && saw && blade && one?.setting && (
        <Box component="article" aria-label={t`Setup card`}>
          <Typography variant="h1" sx={{ fontSize: 34 }}>
            {blade.name}
          </Typography>
          <Box sx={{ fontSize: 17 }}>
            <Worded>{specOf(blade, units)}</Worded>
          </Box>
          <Box sx={{ fontSize: 19, my: 1.5, fontFamily: cutFace }}>
            {cutSaid(plan.data.cut, saw, material, units)}
          </Box>
          <Box
            sx={{ height: 300, borderTop: '1px solid', borderBottom: '1px solid', borderColor: 'divider' }}
          >
            <SideView
              saw={saw}
              blade={blade}
              cut={plan.data.cut}
              material={material}
              setting={one.setting}
              section={{ width_mm: plan.data.meets_width_mm, thickness_mm: plan.data.meets_thickness_mm }}
              fullMm={0}
              showFace={plan.data.show_face}
              units={units}
              onHeight={() => {}}
            />
          </Box>
          <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 5, rowGap: 1, my: 2 }}>
            {one.setting.height_mm > 0 && (
              <Big name={saw.kind === 'table' ? 'height' : 'depth'}>
                {formatSetting(one.setting.height_mm, units)}
              </Big>
            )}
            <Big name={t`for ${stretchOf(plan.data, units).name}`}>{saidSeconds(one.setting, units)}</Big>
            <Big name={(one.cut.pieces ?? 1) > 1 ? t`for ${one.cut.pieces ?? 1} pieces` : t`for one piece`}>
              {saidMinutes(one.setting.minutes.all)}
            </Big>
            <Big name={t`feed range ${wordOf(one.setting.window.grade)}`}>
              {trim(one.setting.window.room, 1)}
            </Big>
            <Big name={`${wordOf(one.setting.exit.name)}: ${supportWords[one.cut.exit_support ?? 'open']}`}>
              {plan.data.show_face === 'down' ? t`show face down` : t`show face up`}
            </Big>
          </Box>
          <FeedWindow setting={one.setting} stretch={stretchOf(plan.data, units)} tall />
          <Box sx={{ mt: 1 }}>
            <Findings findings={plan.data.findings} onYes={answer} />
          </Box>
          <Box sx={{ mt: 2 }}>
            <Advices hold={plan.data.hold} />
          </Box>
          <Box component="ul" aria-label={t`Cautions`} sx={{ pl: 2.5, mt: 1.5, fontSize: 15 }}>
            {plan.data.cautions.map((c) => (
              <li key={c}>{c}</li>
            ))}
          </Box>
          <Box sx={{ fontSize: 13.5, color: 'text.secondary', mt: 1 }}>
            {t`This is guidance and doesn't replace a guard. Follow your saw's manual and local rules first.`}
          </Box>
        </Box>
      )}
    </Box>
  );
}

function Big({ name, children }: { name: string; children: ReactNode }) {
  return (
    <Box>
      <Box sx={{ fontSize: 30, fontWeight: 700, lineHeight: 1.1 }}>{children}</Box>
      <Box sx={{ fontSize: 14.5, color: 'text.secondary' }}>{name}</Box>
    </Box>
  );
}
