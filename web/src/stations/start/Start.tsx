/** First things: a saw, the blades beside it and a first cut, in two minutes; or a file; or the demo shop. */
import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { LOOK_ROUND } from '../../api/place';
import { useBlades, useSaws } from '../../api/rack';
import type { Saw } from '../../api/types';
import { usePreferences } from '../../ui/preferences';
import { Trouble } from '../../ui/Notice';
import { Outline } from '../../ui/Outline';
import { Segments } from '../../ui/Segments';
import { NewSaw } from './NewSaw';
import { Tray } from './Tray';

export function Start() {
  const { units, setUnits } = usePreferences();
  const saws = useSaws();
  const blades = useBlades();
  const [at, setAt] = useState<string>();
  const [another, setAnother] = useState(false);
  const saw = saws.data?.find((s) => s.id === at) ?? saws.data?.at(-1);
  const hung = blades.data?.filter((b) => b.diameter_mm === saw?.diameter_mm) ?? [];
  const asking = saws.data !== undefined && (saws.data.length === 0 || another);
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 1.5 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 2 }}>
        <Typography variant="h1" sx={{ mr: 'auto' }}>{t`Set up`}</Typography>
        <Segments
          label={t`Units`}
          value={units}
          choices={[
            { value: 'mm', name: t`Millimetres` },
            { value: 'in', name: t`Inches` },
          ]}
          onChoose={setUnits}
        />
      </Box>
      {saws.error && !saws.data && <Trouble sx={{ my: 1 }}>{saws.error.message}</Trouble>}
      {!(saws.data && blades.data) && !saws.error && <Outline rows={2} height={220} />}
      {saws.data && blades.data && (
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: { xs: 'minmax(0,1fr)', md: 'minmax(0, 4fr) minmax(0, 6fr)' },
            gridTemplateAreas: {
              xs: '"saw" "blades" "cut" "or"',
              md: '"saw blades" "cut blades" "or blades"',
            },
            gridTemplateRows: { md: 'auto auto 1fr' },
            columnGap: 5,
            rowGap: 3,
            mt: 1.5,
            alignItems: 'start',
          }}
        >
          <Step n={1} area="saw" name={t`Your saw`} done={saw !== undefined && !asking}>
            {asking && (
              <NewSaw
                units={units}
                taken={saws.data.map((s) => s.name)}
                onIn={(s) => {
                  setAt(s.id);
                  setAnother(false);
                }}
              />
            )}
            {saw && !asking && (
              <Standing saws={saws.data} at={saw} onAt={setAt} onMore={() => setAnother(true)} />
            )}
          </Step>
          <Step n={2} area="blades" name={t`Your blades`} done={hung.length > 0}>
            {saw && !asking ? (
              <Tray saw={saw} hung={blades.data ?? []} units={units} />
            ) : (
              <Box sx={{ color: 'text.secondary' }}>{t`Add the saw first. Its blades come next.`}</Box>
            )}
          </Step>
          <Step n={3} area="cut" name={t`The first cut`} done={false}>
            {saw && !asking && hung.length > 0 ? (
              <Button
                variant="contained"
                component={Link}
                to={`/?saw=${saw.id}`}
                sx={{ minHeight: 56, px: 3, fontSize: 18 }}
              >
                {t`Choose a cut on ${saw.name}`}
              </Button>
            ) : (
              <Box sx={{ color: 'text.secondary' }}>{t`Add a saw and a blade first.`}</Box>
            )}
          </Step>
          <Box
            sx={{ gridArea: 'or', borderTop: '1px solid', borderColor: 'divider', pt: 1.5, lineHeight: 1.5 }}
          >
            <Trans>
              Or <Link to="/blades/files">import blades from a file</Link>, or{' '}
              <Link to="/settings#copies">restore a backup</Link>. Or explore{' '}
              <a href={LOOK_ROUND}>the demo shop</a> first. It has a season of work in it, and nothing you do
              there changes yours.
            </Trans>
          </Box>
        </Box>
      )}
    </Box>
  );
}

interface StepProps {
  n: number;
  area: string;
  name: string;
  done: boolean;
  children: ReactNode;
}

function Step({ n, area, name, done, children }: StepProps) {
  return (
    <Box component="section" aria-label={name} sx={{ minWidth: 0, gridArea: area }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.25, mb: 1 }}>
        <Box
          aria-hidden
          sx={{
            width: 34,
            height: 34,
            borderRadius: '50%',
            border: '2.5px solid',
            display: 'grid',
            placeItems: 'center',
            fontWeight: 700,
            flex: 'none',
            ...(done
              ? { bgcolor: 'text.primary', color: 'background.paper', borderColor: 'text.primary' }
              : {}),
          }}
        >
          {done ? '✓' : n}
        </Box>
        <Typography variant="h2">{name}</Typography>
      </Box>
      {children}
    </Box>
  );
}

function Standing({
  saws,
  at,
  onAt,
  onMore,
}: {
  saws: Saw[];
  at: Saw;
  onAt: (id: string) => void;
  onMore: () => void;
}) {
  return (
    <Box>
      {saws.length > 1 && (
        <Segments
          label={t`Saw`}
          value={at.id}
          choices={saws.map((s) => ({ value: s.id, name: s.name }))}
          onChoose={onAt}
        />
      )}
      <Box sx={{ fontSize: 18, my: 0.5 }}>
        <Trans>
          <b>{at.name}</b> is added. <Link to={`/saws/${at.id}`}>Check the assumed values</Link>
        </Trans>
      </Box>
      <Button onClick={onMore}>{t`Another saw`}</Button>
    </Box>
  );
}
