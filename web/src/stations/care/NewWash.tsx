/** A wash laid out: which blades, in what, with which brush; and whether they agree. */
import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useRef, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { useCare, useCleaners, useStartWash, useWashCheck } from '../../api/care';
import type { WashAsk } from '../../api/types';
import { useBy } from '../../api/session';
import { coatingWords } from '../../drawings/recordWords';
import { WashView } from '../../drawings/WashView';
import { CheckField, LineField, SelectField } from '../../ui/Fields';
import { Verdict } from '../../ui/Verdict';
import { Trouble } from '../../ui/Notice';
import { Worded } from '../../ui/Worded';

export function NewWash() {
  const [params] = useSearchParams();
  const care = useCare();
  const cleaners = useCleaners();
  const baths = care.data?.baths ?? [];
  const [cleaner, setCleaner] = useState<string>();
  const [bath, setBath] = useState<string>();
  const [brush, setBrush] = useState<WashAsk['brush']>('nylon');
  const [accepted, setAccepted] = useState(false);
  const [scrap, setScrap] = useState(false);
  const [by, setBy] = useBy();
  const start = useStartWash();
  const key = useRef(crypto.randomUUID());
  const go = useNavigate();
  const ids = params.getAll('b');
  const blades = (care.data?.blades ?? []).map((c) => c.blade).filter((b) => ids.includes(b.id));
  // The bath that stands there is used first.
  const standing = bath ?? baths.find((b) => !cleaner || b.cleaner.id === cleaner)?.id ?? 'none';
  const inBath = baths.find((b) => b.id === standing);
  const kind = cleaner ?? inBath?.cleaner.id ?? 'detergent';
  const ask: WashAsk | undefined =
    ids.length > 0 && cleaners.data
      ? {
          blade_ids: ids,
          cleaner: kind,
          brush,
          bath_id: inBath?.cleaner.id === kind ? inBath.id : undefined,
          accept_risk: accepted || undefined,
          for_scrap: scrap || undefined,
          by: by || undefined,
        }
      : undefined;
  const check = useWashCheck(ask && { ...ask, accept_risk: undefined, by: undefined });
  const chosen = cleaners.data?.find((c) => c.id === kind);
  const stopped = check.data?.some((w) => w.verdict === 'stop') ?? false;
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 1.5 }}>
      <Typography variant="h1">{t`Cleaning`}</Typography>
      {ids.length === 0 && (
        <Box sx={{ my: 1 }}>
          <Trans>
            Choose the blades to clean under <Link to="/blades">Blades</Link> or <Link to="/care">Care</Link>.
          </Trans>
        </Box>
      )}
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0,1fr)', md: 'minmax(0, 6fr) minmax(0, 5fr)' },
          columnGap: 4,
          alignItems: 'start',
        }}
      >
        <Box sx={{ maxWidth: { xs: 360, md: 620 }, justifySelf: 'center', width: '100%' }}>
          <WashView picture="ready" blades={blades} />
        </Box>
        <Box>
          <Box component="ul" aria-label={t`Blades to clean`} sx={{ pl: 2.5, my: 1 }}>
            {blades.map((b) => (
              <li key={b.id}>
                <b>{b.name}</b>
                {b.coating !== 'none' && `, ${t`coating: ${coatingWords[b.coating]}`}`}
              </li>
            ))}
          </Box>
          <Box sx={{ display: 'grid', gap: 2, gridTemplateColumns: { sm: '1fr 1fr' } }}>
            <SelectField
              label={t`Cleaner`}
              value={chosen ? kind : ''}
              choices={(cleaners.data ?? []).map((c) => [c.id, c.name] as const)}
              onChoose={(id) => {
                setCleaner(id);
                setBath(undefined);
                setAccepted(false);
              }}
            />
            <SelectField
              label={t`Bath`}
              value={inBath?.cleaner.id === kind ? inBath.id : 'none'}
              choices={[
                ['none', t`fresh, not kept`] as const,
                ...baths
                  .filter((b) => b.cleaner.id === kind)
                  .map((b) => [b.id, t`${b.name}, ${b.uses} blades so far`] as const),
              ]}
              onChoose={setBath}
            />
            <SelectField
              label={t`Brush`}
              value={brush}
              choices={[
                ['nylon', t`nylon`],
                ['brass', t`brass`],
                ['steel', t`steel`],
              ]}
              onChoose={setBrush}
            />
            <LineField label={t`Cleaned by`} value={by} most={60} onText={setBy} />
          </Box>
          {check.error && <Trouble sx={{ mt: 2 }}>{check.error.message}</Trouble>}
          {check.data?.map((w) => (
            <Box key={w.says} sx={{ display: 'flex', gap: 1, alignItems: 'baseline', mt: 1.5, fontSize: 17 }}>
              <Verdict verdict={w.verdict} />
              <span>
                <Worded>{`${w.says}.`}</Worded>
              </span>
            </Box>
          ))}
          {chosen?.harsh && (
            <Box sx={{ mt: 1 }}>
              <CheckField label={t`I follow these cautions`} value={accepted} onCheck={setAccepted} />
              <CheckField
                label={t`These plates will be scrapped or retipped`}
                value={scrap}
                onCheck={setScrap}
              />
            </Box>
          )}
          {start.error && <Trouble sx={{ mt: 2 }}>{start.error.message}</Trouble>}
          <Button
            variant="contained"
            sx={{ mt: 2, px: 4, fontSize: 17 }}
            // What is to be known before it comes with the check, and would move this from under a thumb.
            disabled={
              !ask ||
              !check.data ||
              stopped ||
              !!check.error ||
              (!!chosen?.harsh && !accepted) ||
              start.isPending
            }
            onClick={() => {
              if (!ask) return;
              start.mutate(
                { key: key.current, body: ask },
                {
                  onSuccess: (w) => void go(`/care/wash/${w.id}`),
                  onError: () => (key.current = crypto.randomUUID()),
                },
              );
            }}
          >
            {t`Start soak timer`}
          </Button>
        </Box>
      </Box>
    </Box>
  );
}
