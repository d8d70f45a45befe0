/** A sheet of labels, one for each blade that is ticked, to print or to keep as SVG. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link, useLocation, useSearchParams } from 'react-router';
import { useBlades, useLabels } from '../../api/rack';
import { usePreferences } from '../../ui/preferences';
import { save } from '../../drawings/save';
import { NumberField } from '../../ui/Fields';
import { Trouble } from '../../ui/Notice';

const MOST = 240;

export function Labels() {
  const { units } = usePreferences();
  const { search } = useLocation();
  const [params] = useSearchParams();
  const blades = useBlades();
  const labels = useLabels();
  const only = params.getAll('only');
  const [picked, setPicked] = useState<Set<string>>(new Set(only));
  const [skip, setSkip] = useState(0);
  const all = blades.data ?? [];
  const toggle = (id: string) => {
    const next = new Set(picked);
    if (!next.delete(id)) next.add(id);
    setPicked(next);
    labels.reset();
  };
  const ids = all.filter((b) => picked.has(b.id)).map((b) => b.id);
  const sheet = labels.data;
  return (
    <Box
      component="main"
      sx={{ px: { xs: 2, md: 3 }, py: 2, '@media print': { p: 0, '& .screen': { display: 'none' } } }}
    >
      <Box className="screen">
        <Button
          component={Link}
          to={`/blades${search}`}
          size="small"
          sx={{ ml: -0.75 }}
        >{t`‹ Blades`}</Button>
        <Typography variant="h1">{t`Labels`}</Typography>
        <Typography sx={{ my: 1, maxWidth: 640 }}>
          {t`Twenty-four per A4 sheet, with a code that opens the blade's page. Print at 100 % without added margins.`}
        </Typography>
        <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', alignItems: 'center', mb: 1 }}>
          <Button
            variant="outlined"
            size="small"
            onClick={() => setPicked(new Set(all.slice(0, MOST).map((b) => b.id)))}
          >
            {t`Tick all`}
          </Button>
          <Button variant="outlined" size="small" onClick={() => setPicked(new Set())}>{t`Tick none`}</Button>
          <Box sx={{ width: 190 }}>
            <NumberField
              label={t`Labels already used`}
              value={skip}
              onNumber={(v) => {
                setSkip(Math.max(0, Math.min(23, Math.round(v ?? 0))));
                labels.reset();
              }}
            />
          </Box>
          <Button
            variant="contained"
            disabled={ids.length === 0 || ids.length > MOST || labels.isPending}
            onClick={() => labels.mutate({ ids, units, skip })}
          >
            {t`Make ${ids.length}`}
          </Button>
          {sheet && (
            <>
              <Button variant="contained" onClick={() => window.print()}>{t`Print`}</Button>
              <Button
                variant="outlined"
                onClick={() => save(new Blob([sheet], { type: 'image/svg+xml' }), 'labels.svg')}
              >
                {t`Save as SVG`}
              </Button>
            </>
          )}
        </Box>
        {(labels.error ?? blades.error) && <Trouble>{(labels.error ?? blades.error)!.message}</Trouble>}
        {!sheet && (
          <Box
            role="group"
            aria-label={t`Blades to label`}
            sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(210px, 1fr))' }}
          >
            {all.map((b) => (
              <FormControlLabel
                key={b.id}
                control={<Checkbox checked={picked.has(b.id)} onChange={() => toggle(b.id)} />}
                label={b.name}
              />
            ))}
          </Box>
        )}
      </Box>
      {sheet && (
        <Box
          component="img"
          alt={t`Labels of ${ids.length} blades`}
          src={`data:image/svg+xml,${encodeURIComponent(sheet)}`}
          sx={{
            width: '210mm',
            maxWidth: '100%',
            bgcolor: '#fff',
            border: '1px solid',
            borderColor: 'divider',
            '@media print': { border: 0, maxWidth: 'none' },
          }}
        />
      )}
    </Box>
  );
}
