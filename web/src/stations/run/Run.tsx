/**
 * Run: the cut that was chosen, on one screen to stand beside the saw. A bar to
 * feed by, what to watch, and then what came out of it.
 */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState, type ReactNode } from 'react';
import { Link, useSearchParams } from 'react-router';
import { useComparison, usePlan } from '../../api/choose';
import { useListening } from '../../api/listening';
import { useBlades, useSaws } from '../../api/rack';
import { useMaterials } from '../../api/shop';
import type { Blade, Cut, Plan, Setting, Units } from '../../api/types';
import { usePreferences } from '../../ui/preferences';
import { cutFace } from '../../drawings/theme';
import { cutBrief, cutSaid, specOf } from '../../drawings/words';
import { formatSetting } from '../../measure/format';
import { Outline } from '../../ui/Outline';
import { saidMinutes, saidSeconds, stretchOf, type Stretch } from '../../ui/feed';
import { Verdict } from '../../ui/Verdict';
import { Findings } from '../../cut/Findings';
import { useCut } from '../../cut/cut';
import { Beat } from './Beat';
import { CameOut } from './CameOut';
import { LastCuts } from './LastCuts';
import { Listening } from './Listening';
import { FirstThings } from '../../ui/FirstThings';
import { Trouble } from '../../ui/Notice';
import { Worded } from '../../ui/Worded';
import { usePhone } from '../../ui/phone';

const FEW = 60;

export function Run() {
  const { units } = usePreferences();
  const phone = usePhone();
  const [params] = useSearchParams();
  const saws = useSaws();
  const materials = useMaterials();
  const rack = useBlades();
  const [cut, , answer] = useCut(saws.data, materials.data);
  const plan = usePlan(cut, units, FEW);
  // The blade that was chosen, else the best one for the cut.
  const id = params.get('blade') ?? plan.data?.options[0]?.blade_id;
  const blade = rack.data?.find((b) => b.id === id);
  const height = Number(params.get('h')) || undefined;
  const modelled = plan.data?.modelled ?? true;
  const compared = useComparison(
    plan.data?.cut ?? (cut as Cut),
    cut && plan.data && blade && modelled ? [{ blade_id: blade.id, height_mm: height }] : [],
    units,
  );
  const one = compared.data?.[0];
  const saw = saws.data?.find((s) => s.id === cut?.saw_id);
  const option = plan.data?.options.find((o) => o.blade_id === blade?.id);
  const setting = one?.blade_id === blade?.id ? one?.setting : undefined;
  const [took, setTook] = useState<number>();
  const ears = useListening(saw?.id, blade?.id);
  const failed = plan.error ?? compared.error ?? rack.error ?? saws.error;
  const [job, row] = [params.get('job'), params.get('row')];
  const back = new URLSearchParams(params);
  back.delete('job');
  back.delete('row');
  back.delete('blade');
  back.delete('h');
  const gone = rack.data && plan.data && (!blade || (!modelled && !option));
  const height_mm = setting?.height_mm ?? option?.heights?.suggested_mm;
  const came = plan.data && blade && (
    <CameOut
      key={blade.id}
      cut={plan.data.cut}
      {...{ blade, setting, took, phone }}
      heard={ears.heard?.fill}
      lengthMm={plan.data.feed_length_mm}
      edgeMm={plan.data.edge_length_mm}
      trace={`/diagnose?${params}`}
      height={height_mm}
      of={job && row ? { job, row } : undefined}
      onLogged={() => {
        answer(); // the next cut is asked about anew
        setTook(undefined);
        ears.afresh();
      }}
    />
  );
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, pt: { xs: 0.5, sm: 1.5 }, pb: { xs: 0, sm: 1.5 } }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, flexWrap: 'wrap' }}>
        {job ? (
          <Button
            component={Link}
            to={`/jobs/${job}/next`}
            sx={{ ml: -0.75, minWidth: 52 }}
          >{t`‹ Job`}</Button>
        ) : (
          <Button component={Link} to={`/?${back}`} sx={{ ml: -0.75, minWidth: 52 }}>{t`‹ Cut`}</Button>
        )}
        <Typography variant="h1" sx={{ flex: 1, minWidth: { sm: 200 } }}>{t`Run`}</Typography>
        <Button component={Link} to={`/diagnose?${params}`} variant={phone ? 'text' : 'outlined'}>
          {phone ? t`Diagnose` : t`Diagnose a fault`}
        </Button>
        <Button component={Link} to={`/trial/new?${params}`} variant={phone ? 'text' : 'outlined'}>
          {phone ? t`Compare` : t`Compare settings on a board`}
        </Button>
      </Box>
      {failed && <Trouble sx={{ my: 1 }}>{failed.message}</Trouble>}
      {!failed && saws.data?.length !== 0 && !(plan.data && rack.data) && <Outline rows={4} height={110} />}
      {saws.data?.length === 0 && <FirstThings missing="saw" />}
      {one?.refused && <Trouble sx={{ my: 1 }}>{one.refused}</Trouble>}
      {gone && (
        <Trouble sx={{ my: 1 }}>
          {plan.data?.options.length === 0
            ? t`None of your blades can make this cut. Cut says why.`
            : t`This blade can't make this cut. Choose another.`}
        </Trouble>
      )}
      {plan.data && saw && blade && (setting ?? (!modelled && option)) && (
        <Box
          sx={{
            display: phone ? 'flex' : 'grid',
            flexDirection: 'column',
            gridTemplateColumns: { xs: 'minmax(0,1fr)', md: 'minmax(0, 7fr) minmax(360px, 5fr)' },
            gridTemplateRows: { md: 'auto 1fr' },
            columnGap: 4,
            rowGap: phone ? 0 : 2,
            mt: 0.5,
          }}
        >
          <Box sx={{ minWidth: 0, order: -2, gridRow: { md: 'span 2' } }}>
            <Box sx={{ fontFamily: cutFace, fontSize: 19, lineHeight: 1.3 }}>
              {(phone ? cutBrief : cutSaid)(
                plan.data.cut,
                saw,
                materials.data?.find((m) => m.id === cut?.material),
                units,
              )}
            </Box>
            <SettingLine
              blade={blade}
              setting={setting}
              height={height_mm}
              table={saw.kind === 'table'}
              mounted={saw.mounted_blade_id === blade.id}
              stretch={stretchOf(plan.data, units)}
              pieces={plan.data.cut.pieces ?? 1}
              units={units}
            />
            <Findings findings={plan.data.findings} onYes={answer} />
            {setting && plan.data.verdict !== 'stop' && (
              <Beat
                key={`${blade.id} ${setting.height_mm} ${plan.data.feed_length_mm}`}
                lengthMm={plan.data.feed_length_mm}
                feed={setting.feed_m_min}
                slowest={setting.window.slowest_m_min}
                fastest={setting.window.fastest_m_min}
                units={units}
                onThrough={setTook}
                heard={ears.on ? ears.heard : undefined}
              />
            )}
            {setting && plan.data.verdict !== 'stop' && (
              <Listening ears={ears} trace={`/diagnose?${params}`} />
            )}
            <Cautions plan={plan.data} setting={setting} />
          </Box>
          {/* At the same place whatever the screen, so that a tablet that is turned loses nothing. */}
          {came}
          <Box sx={{ minWidth: 0, order: phone ? -1 : 0 }}>
            <LastCuts saw={saw} units={units} />
          </Box>
        </Box>
      )}
    </Box>
  );
}

function SettingLine({
  blade,
  setting,
  height,
  table,
  mounted,
  stretch,
  pieces,
  units,
}: {
  blade: Blade;
  setting: Setting | undefined;
  height: number | undefined;
  table: boolean;
  mounted: boolean;
  stretch: Stretch;
  pieces: number;
  units: Units;
}) {
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 4, rowGap: 0.5, my: 1, alignItems: 'baseline' }}>
      <Box>
        <Box sx={{ fontFamily: cutFace, fontSize: 30, fontWeight: 640, lineHeight: 1.1 }}>{blade.name}</Box>
        <Box sx={{ fontSize: 14.5, color: 'text.secondary' }}>
          <Worded>{specOf(blade, units)}</Worded>
        </Box>
        {!mounted && (
          <Box sx={{ fontSize: 14.5, display: 'flex', gap: 0.75 }}>
            <Verdict verdict="caution" size={13} />
            {t`Not on the saw`}
          </Box>
        )}
      </Box>
      {height !== undefined && height > 0 && (
        <Big name={table ? t`height` : t`depth`}>{formatSetting(height, units)}</Big>
      )}
      {setting && (
        <>
          <Big name={t`for ${stretch.name}`}>{saidSeconds(setting, units)}</Big>
          {pieces > 1 && (
            <Big name={t`for ${pieces} pieces, with handling`}>{saidMinutes(setting.minutes.all)}</Big>
          )}
        </>
      )}
    </Box>
  );
}

function Big({ name, children }: { name: string; children: ReactNode }) {
  return (
    <Box>
      <Box sx={{ fontSize: 38, fontWeight: 700, lineHeight: 1.05 }}>{children}</Box>
      <Box sx={{ fontSize: 14.5, color: 'text.secondary' }}>{name}</Box>
    </Box>
  );
}

function Cautions({ plan, setting }: { plan: Plan; setting: Setting | undefined }) {
  return (
    <Box sx={{ mt: 1.5, fontSize: 15.5 }}>
      {setting && !setting.through && (
        <Box sx={{ fontWeight: 650 }}>{t`This setting doesn't cut all the way through.`}</Box>
      )}
      {plan.hold
        .filter((a) => a.halt)
        .map((a) => (
          <Box key={a.text} sx={{ fontWeight: 650 }}>
            <Worded>{a.text}</Worded>
          </Box>
        ))}
      <Box
        component="ul"
        aria-label={t`Cautions`}
        sx={{ m: 0, mt: 0.5, pl: 2.25, columnCount: { sm: 2 }, columnGap: 3 }}
      >
        {plan.cautions.map((c) => (
          <Box component="li" key={c} sx={{ breakInside: 'avoid' }}>
            {c}
          </Box>
        ))}
      </Box>
    </Box>
  );
}
