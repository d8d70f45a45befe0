/** One groove on its way to a fit: its setting, test grooves that change it, and the batch at the end. */
import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { useDropGroove, useEndGroove, useGroove, useTestGroove } from '../../api/groove';
import { useStartMounting } from '../../api/mount';
import { useSaws } from '../../api/rack';
import { useMaterials } from '../../api/shop';
import type { Groove, Splinters, Units, Wall } from '../../api/types';
import { usePreferences } from '../../ui/preferences';
import { GrooveSection } from '../../drawings/GrooveSection';
import { splinterWords } from '../../drawings/recordWords';
import { formatLength, formatSetting, formatThin } from '../../measure/format';
import { Coming } from '../../ui/Arriving';
import { NumberField } from '../../ui/Fields';
import { Pick } from '../../ui/Pick';
import { ReadingEntry } from '../../ui/ReadingEntry';
import { Taken } from '../../ui/Taken';
import { useAfterReading } from '../../ui/useAfterReading';
import { Verdict } from '../../ui/Verdict';
import { LengthField } from '../../ui/LengthField';
import { cutParams } from '../../cut/cut';
import { KnownParts } from '../../ui/KnownParts';
import { Setting } from './WayDetail';
import { Notice, Trouble } from '../../ui/Notice';
import { Sure } from '../../ui/Sure';
import { Worded } from '../../ui/Worded';

export function Fitting() {
  const { id = '' } = useParams();
  const { units } = usePreferences();
  const [params] = useSearchParams();
  const groove = useGroove(id, units);
  const materials = useMaterials();
  const saws = useSaws();
  const drop = useDropGroove();
  const mount = useStartMounting();
  const go = useNavigate();
  const g = groove.data;
  const saw = saws.data?.find((s) => s.id === g?.saw_id);
  const failed = drop.error ?? mount.error ?? (g ? groove.error : undefined);
  const material = materials.data?.find((m) => m.id === g?.ask.cut.material)?.name ?? g?.ask.cut.material;
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 1.5 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, flexWrap: 'wrap' }}>
        <Button component={Link} to={`/groove?${params}`} size="small" sx={{ ml: -0.75 }}>
          {t`‹ Groove`}
        </Button>
        <Typography variant="h1" sx={{ flex: 1, minWidth: 200 }}>
          {g ? t`${formatThin(g.target_mm, units)} wide with ${g.way.blade_name}` : t`A groove`}
        </Typography>
        {g && !g.ended_at && (
          <Sure
            size="small"
            color="error"
            disabled={drop.isPending}
            asks={t`Discard this groove?`}
            goes={t`No groove is logged and its settings are lost.`}
            yes={t`Discard`}
            onYes={() =>
              void drop.mutateAsync(g.id).then(
                () => void go('/groove'),
                () => undefined,
              )
            }
          >
            {t`Discard`}
          </Sure>
        )}
      </Box>
      {failed && <Trouble sx={{ my: 1 }}>{failed.message}</Trouble>}
      {!g && <Coming of={[groove, saws]} drawing />}
      {g && (
        <>
          <Box sx={{ fontSize: 17, color: 'text.secondary', mb: 1 }}>
            {t`${g.ask.count} in ${formatLength(g.ask.cut.thickness_mm, units)} ${material ?? ''}, ${formatSetting(g.ask.cut.depth_mm ?? 0, units)} deep.`}{' '}
            {g.ask.cut.form === 'rabbet'
              ? t`Along the edge.`
              : t`${formatSetting(g.ask.edge_mm ?? 0, units)} from the edge.`}{' '}
            {t`Saw: ${g.saw_name}.`}{' '}
            {t`The piece is ${formatThin(Math.max(...g.ask.piece_mm), units)} thick. Fit: ${g.ask.fit}.`}
          </Box>
          <Box
            sx={{
              display: 'grid',
              gridTemplateColumns: { xs: 'minmax(0,1fr)', md: 'minmax(0, 5fr) minmax(0, 7fr)' },
              columnGap: 4,
              rowGap: 2,
              borderTop: '2px solid',
              borderColor: 'text.primary',
              pt: 1,
            }}
          >
            <Box sx={{ minWidth: 0 }}>
              <Now groove={g} />
              {!g.ended_at && g.way.verdict !== 'stop' && (
                <>
                  {!g.way.mounted && (
                    <Button
                      variant="outlined"
                      sx={{ my: 1 }}
                      disabled={mount.isPending}
                      onClick={() =>
                        mount.mutate(
                          { saw_id: g.saw_id, blade_id: g.way.blade_id, groove_id: g.id, units },
                          { onSuccess: (m) => void go(`/mount/${m.id}?${params}`) },
                        )
                      }
                    >
                      {t`Mount step by step`}
                    </Button>
                  )}
                  <Test key={g.version} groove={g} units={units} />
                  <Made groove={g} units={units} />
                </>
              )}
              {g.ended_at && (
                <Notice kind="done" sx={{ my: 1 }}>
                  {t`${g.made > 0 ? t`${g.made} made.` : t`Closed. None made.`} You can reuse its settings under Groove.`}
                </Notice>
              )}
              <Tests groove={g} units={units} />
            </Box>
            <Box sx={{ minWidth: 0 }}>
              <GrooveSection
                way={g.way}
                width={g.target_mm}
                depth={g.ask.cut.depth_mm ?? 0}
                piece={Math.max(...g.ask.piece_mm)}
                stock={g.ask.cut.thickness_mm}
                rabbet={g.ask.cut.form === 'rabbet'}
                units={units}
              />
              <Setting way={g.way} units={units} hand={saw?.kind === 'circular'} />
              <Box component="ul" sx={{ mt: 1.5, mb: 0, pl: 2.5, fontSize: 15 }} aria-label={t`Cautions`}>
                {g.cautions.map((c) => (
                  <li key={c}>{c}</li>
                ))}
              </Box>
              {g.set && (
                <Box sx={{ mt: 2 }}>
                  <KnownParts set={g.set} units={units} linked />
                </Box>
              )}
            </Box>
          </Box>
        </>
      )}
    </Box>
  );
}

/** What to do now, to be read at arm's length. */
function Now({ groove: g }: { groove: Groove }) {
  if (g.says.length === 0) return null;
  return (
    <Box
      component="section"
      aria-label={t`Now`}
      role="status"
      sx={{
        border: g.way.verdict === 'stop' ? '3px solid' : '1.5px solid',
        borderColor: 'text.primary',
        bgcolor: 'background.paper',
        p: 1.5,
      }}
    >
      {g.way.verdict === 'stop' && <Verdict verdict="stop" size={18} />}
      <Box
        component="ol"
        sx={{ m: 0, pl: g.says.length > 1 ? 3 : 0, listStyle: g.says.length > 1 ? 'decimal' : 'none' }}
      >
        {g.says.map((s) => (
          <Box component="li" key={s} sx={{ fontSize: 20, lineHeight: 1.35, mb: 0.5 }}>
            <Worded>{s}</Worded>
          </Box>
        ))}
      </Box>
    </Box>
  );
}

/** A test groove: width at several places, depth once. */
function Test({ groove: g, units }: { groove: Groove; units: Units }) {
  const test = useTestGroove();
  const [width, setWidth] = useState<number[]>([]);
  const [depth, setDepth] = useState<number>();
  const take = useAfterReading(() =>
    test.mutate({ id: g.id, version: g.version, body: { width_mm: width, depth_mm: depth, units } }),
  );
  return (
    <Box component="section" aria-labelledby="test" sx={{ mt: 1.5 }}>
      <Typography id="test" variant="h2" sx={{ mb: 1 }}>{t`A test groove`}</Typography>
      <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', alignItems: 'flex-start' }}>
        <Box sx={{ flex: 2, minWidth: 200 }}>
          <ReadingEntry
            label={t`width, place ${width.length + 1}`}
            units={units}
            onRead={(mm) => setWidth((now) => [...now, ...mm].slice(-12))}
          />
        </Box>
        <Box sx={{ flex: 1, minWidth: 130 }}>
          <LengthField
            label={t`Depth`}
            mm={depth}
            units={units}
            live
            onLength={setDepth}
            onClear={() => setDepth(undefined)}
          />
        </Box>
      </Box>
      <Taken label={t`Widths`} readings={width} units={units} onKeep={setWidth} />
      {test.error && <Trouble sx={{ my: 1 }}>{test.error.message}</Trouble>}
      <Button
        variant={g.good ? 'outlined' : 'contained'}
        sx={{ mt: 1 }}
        disabled={width.length === 0 || test.isPending}
        onClick={take}
      >
        {t`Save measurement`}
      </Button>
      {width.length > 0 && width.length < 3 && (
        <Box sx={{ fontSize: 14.5, color: 'text.secondary', mt: 0.5 }}>
          {t`Measure in three places. That shows chips or a tilted caliper.`}
        </Box>
      )}
    </Box>
  );
}

const walls = [
  ['clean', t`Clean`],
  ['brown', t`Brown`],
  ['black', t`Black`],
] as const;

/** The batch is cut: how many, and how they came out. */
function Made({ groove: g, units }: { groove: Groove; units: Units }) {
  const end = useEndGroove();
  const [made, setMade] = useState(g.ask.count);
  const [wall, setWall] = useState<Wall>('clean');
  const [splinters, setSplinters] = useState<Splinters>('none');
  return (
    <Box
      component="section"
      aria-labelledby="made"
      sx={{ mt: 2, borderTop: '1px solid', borderColor: 'divider', pt: 1, display: 'grid', gap: 1 }}
    >
      <Typography id="made" variant="h2">{t`After cutting`}</Typography>
      {g.tests.length > 0 && !g.good && (
        <Box sx={{ display: 'flex', gap: 1, alignItems: 'baseline', fontSize: 15.5 }}>
          <Verdict verdict="caution" size={13} />
          <span>{t`The last test didn't fit yet.`}</span>
        </Box>
      )}
      <Box sx={{ maxWidth: 150 }}>
        <NumberField
          label={t`Made`}
          value={made}
          onNumber={(v) => setMade(Math.max(0, Math.round(v ?? 0)))}
        />
      </Box>
      {made > 0 && (
        <>
          <Pick label={t`Cut edge`} value={wall} choices={walls} onPick={setWall} />
          <Pick
            label={t`Tear-out at the edges`}
            value={splinters}
            choices={(Object.keys(splinterWords) as Splinters[]).map((s) => [s, splinterWords[s]] as const)}
            onPick={setSplinters}
          />
        </>
      )}
      {end.error && <Trouble>{end.error.message}</Trouble>}
      <Button
        variant={g.good ? 'contained' : 'outlined'}
        disabled={end.isPending}
        sx={{ justifySelf: 'start' }}
        onClick={() => end.mutate({ id: g.id, version: g.version, body: { made, wall, splinters, units } })}
      >
        {t`Log grooves`}
      </Button>
    </Box>
  );
}

function Tests({ groove: g, units }: { groove: Groove; units: Units }) {
  if (g.tests.length === 0) return null;
  return (
    <Box component="section" aria-labelledby="tests" sx={{ mt: 2 }}>
      <Typography id="tests" variant="h3" component="h2">{t`Tests`}</Typography>
      <Box sx={{ fontSize: 15 }}>
        <Trans>
          Ridges, ears, torn edges or a rattle?{' '}
          <Link to={`/diagnose?${cutParams(g.ask.cut, { blade: g.way.blade_id })}`}>Diagnose it</Link>
        </Trans>
      </Box>
      <Box component="ol" sx={{ m: 0, pl: 3 }}>
        {g.tests.map((test) => (
          <Box component="li" key={test.at} sx={{ fontSize: 15.5, mb: 0.5 }}>
            <b>{formatThin(test.width_mm, units)}</b>,{' '}
            {Math.abs(test.off_mm) < 0.005
              ? t`target`
              : test.off_mm > 0
                ? t`${formatThin(test.off_mm, units)} too wide`
                : t`${formatThin(-test.off_mm, units)} too narrow`}
            {test.depth_mm !== undefined && `, ${t`${formatThin(test.depth_mm, units)} deep`}`}
            <Box component="span" sx={{ color: 'text.secondary' }}>{` · ${test.says}`}</Box>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
