/** A packing slip for blades that go to the saw doctor: one page to print. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Link, useSearchParams } from 'react-router';
import { useCare } from '../../api/care';
import { useBlades } from '../../api/rack';
import { useShop } from '../../api/shop';
import { usePreferences } from '../../ui/preferences';
import { BladeFace } from '../../drawings/BladeFace';
import { grindWords } from '../../drawings/words';
import { coatingWords } from '../../drawings/recordWords';
import { formatLength, formatThin, trim } from '../../measure/format';
import { useDates } from '../../ui/useDates';
import { useNow } from '../../ui/useNow';

export function Slip() {
  const { date, day } = useDates();
  const now = useNow(60_000);
  const { units } = usePreferences();
  const [params] = useSearchParams();
  const care = useCare();
  const shop = useShop();
  const rack = useBlades();
  const ids = params.getAll('b');
  return (
    <Box
      component="main"
      sx={{ maxWidth: 760, mx: 'auto', p: 3, '@media print': { p: 0, maxWidth: 'none' } }}
    >
      <Box sx={{ display: 'flex', gap: 1, mb: 2, '@media print': { display: 'none' } }}>
        <Button component={Link} to="/care">{t`‹ Care`}</Button>
        <Button variant="contained" onClick={() => window.print()}>{t`Print`}</Button>
      </Box>
      <Typography variant="h1">{t`Blades for service`}</Typography>
      <Box sx={{ mb: 2 }}>{t`From ${shop.data?.name ?? ''}, ${day(now)}`}</Box>
      {ids.map((id) => {
        const b = rack.data?.find((x) => x.id === id);
        const away = care.data?.away.find((a) => a.blade_id === id);
        if (!b) return null;
        const rows: [string, string | undefined][] = [
          [t`Sent to`, away?.to],
          [t`Diameter, bore`, `${formatLength(b.diameter_mm, units)}, ${formatLength(b.bore_mm, units)}`],
          [t`Teeth, grind`, `${b.teeth}, ${b.grind ? grindWords[b.grind] : ''}`],
          [t`Hook angle, bevel`, `${trim(b.hook_deg, 1)}°, ${trim(b.bevel_deg, 1)}°`],
          [
            t`Kerf, plate`,
            `${formatThin(b.kerf_mm, units)}, ${b.plate_mm ? formatThin(b.plate_mm, units) : t`not measured`}`,
          ],
          [t`Coating`, b.coating === 'none' ? 'none' : coatingWords[b.coating]],
          [t`Sharpened before`, String(b.condition.sharpenings + b.sharpened_before)],
          [t`Found`, b.condition.unfit || b.condition.flaw || t`wear only`],
          [t`Price quoted`, away?.price_asked ? trim(away.price_asked, 2) : undefined],
          [t`Wanted back`, away?.expected && date(away.expected)],
          [t`Please report`, t`teeth replaced, new kerf and diameter, sharpenings left`],
        ];
        return (
          <Box
            key={id}
            component="section"
            aria-label={b.name}
            sx={{
              borderTop: '2px solid',
              borderColor: 'text.primary',
              py: 2,
              display: 'flex',
              gap: 3,
              flexWrap: 'wrap',
            }}
          >
            <BladeFace blade={b} scale={170 / (b.diameter_mm + 4)} />
            <Box sx={{ flex: 1, minWidth: 280 }}>
              <Typography variant="h2">{b.name}</Typography>
              <Box
                component="dl"
                sx={{ m: 0, display: 'grid', gridTemplateColumns: 'auto 1fr', columnGap: 2, rowGap: 0.25 }}
              >
                {rows.map(
                  ([name, value]) =>
                    value && (
                      <Box key={name} sx={{ display: 'contents' }}>
                        <Box component="dt" sx={{ color: 'text.secondary' }}>
                          {name}
                        </Box>
                        <Box component="dd" sx={{ m: 0 }}>
                          {value}
                        </Box>
                      </Box>
                    ),
                )}
              </Box>
            </Box>
          </Box>
        );
      })}
    </Box>
  );
}
