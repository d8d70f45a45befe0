/** Trace, at its beginning: point at the work. And what was traced before. */
import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useRef } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { useBlades, useSaws } from '../../api/rack';
import { useMaterials } from '../../api/shop';
import { useStartTrace, useTraces, useTraceWords } from '../../api/trace';
import { usePreferences } from '../../ui/preferences';
import { cutFace } from '../../drawings/theme';
import { cutSaid } from '../../drawings/words';
import { useCut } from '../../cut/cut';
import { Signs } from './Signs';
import { useDates } from '../../ui/useDates';
import { FirstThings } from '../../ui/FirstThings';
import { Outline } from '../../ui/Outline';
import { Trouble } from '../../ui/Notice';

export function NewTrace() {
  const { day } = useDates();
  const { units } = usePreferences();
  const [params] = useSearchParams();
  const saws = useSaws();
  const materials = useMaterials();
  const rack = useBlades();
  const words = useTraceWords();
  const traces = useTraces();
  const start = useStartTrace();
  const key = useRef(crypto.randomUUID());
  const go = useNavigate();
  const [cut] = useCut(saws.data, materials.data);
  const saw = saws.data?.find((s) => s.id === cut?.saw_id);
  const bladeId = params.get('blade') ?? saw?.mounted_blade_id;
  const blade = rack.data?.find((b) => b.id === bladeId);
  const failed = start.error ?? saws.error ?? words.error;
  // What a photo or the sound showed, to be confirmed: one tap begins with it.
  const seen = words.data?.signs.filter((s) => params.getAll('seen').includes(s.id)) ?? [];
  const begin = (present: string[]) =>
    cut &&
    start.mutate(
      {
        key: key.current,
        body: {
          cut,
          blade_id: blade?.id,
          height_mm: Number(params.get('h')) || undefined,
          present,
          units,
        },
      },
      {
        onSuccess: (past) => void go(`/diagnose/${past.id}?${params}`),
        onError: () => (key.current = crypto.randomUUID()),
      },
    );
  const ready = Boolean(saws.data && materials.data && rack.data && words.data && traces.data);
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 2 }}>
      <Typography variant="h1">{t`Diagnose`}</Typography>
      {failed && <Trouble sx={{ my: 1 }}>{failed.message}</Trouble>}
      {saws.data?.length === 0 && <FirstThings missing="saw" />}
      {!ready && !failed && <Outline rows={4} height={120} />}
      {ready && (
        <Box>
          <Box sx={{ minWidth: 0 }}>
            {cut && saw && (
              <Box sx={{ mb: 1 }}>
                <Box sx={{ fontFamily: cutFace, fontSize: 19 }}>
                  {cutSaid(
                    cut,
                    saw,
                    materials.data?.find((m) => m.id === cut.material),
                    units,
                  )}
                </Box>
                <Box sx={{ color: 'text.secondary' }}>
                  {blade ? t`Blade: ${blade.name}.` : t`No blade is installed on this saw.`}{' '}
                  <Trans>
                    Another cut? <Link to={`/?${params}`}>Enter it under Cut</Link>, then diagnose it from
                    Run.
                  </Trans>
                </Box>
              </Box>
            )}
            {cut && seen.length > 0 && (
              <Box component="section" aria-label={t`Signs`} sx={{ mb: 2 }}>
                <Typography variant="h2">{t`Signs`}</Typography>
                <Box sx={{ mb: 1 }}>{t`Look for yourself, then start with what you see.`}</Box>
                <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
                  {seen.map((s) => (
                    <Button
                      key={s.id}
                      variant="outlined"
                      disabled={start.isPending}
                      onClick={() => begin([s.id])}
                      sx={{ minHeight: 52 }}
                    >
                      {s.label}
                    </Button>
                  ))}
                </Box>
              </Box>
            )}
            {saws.data?.length !== 0 && (
              <Box sx={{ fontSize: 18, mb: 1 }}>
                {t`Tap where the fault shows on the workpiece, then choose what it looks like.`}
              </Box>
            )}
            {cut && saw && words.data && (
              <Signs
                saw={saw.kind}
                groove={cut.form !== undefined && cut.form !== 'through'}
                signs={words.data.signs}
                present={[]}
                absent={[]}
                wide
                ended={start.isPending}
                onSign={(id, to) => to === 'there' && begin([id])}
              />
            )}
          </Box>
          <Box component="section" aria-labelledby="before" sx={{ minWidth: 0, mt: 3 }}>
            <Typography id="before" variant="h2">{t`Earlier diagnoses`}</Typography>
            {traces.data?.length === 0 && <Box>{t`Nothing yet.`}</Box>}
            <Box component="ol" sx={{ listStyle: 'none', m: 0, p: 0 }}>
              {traces.data?.map((past) => (
                <Box
                  component="li"
                  key={past.id}
                  sx={{ borderTop: '1px solid', borderColor: 'divider', py: 0.75 }}
                >
                  <Link to={`/diagnose/${past.id}`}>{past.present.join(', ') || t`nothing seen yet`}</Link>
                  <Box sx={{ color: 'text.secondary', fontSize: 15 }}>
                    {day(past.started_at)},{' '}
                    {saws.data?.find((s) => s.id === past.saw_id)?.name ?? t`a saw that is gone`}
                    {past.blade_id &&
                      `, ${rack.data?.find((b) => b.id === past.blade_id)?.name ?? t`a deleted blade`}`}
                    .{' '}
                    {past.ended_at
                      ? past.cause
                        ? `${past.cause}, ${past.fixed ? t`fixed` : t`not fixed`}.`
                        : t`No cause was proved.`
                      : t`In progress.`}
                  </Box>
                </Box>
              ))}
            </Box>
          </Box>
        </Box>
      )}
    </Box>
  );
}
