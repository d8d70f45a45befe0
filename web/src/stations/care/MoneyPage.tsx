/** What a blade costs by the metre, and from when it costs less than cheap ones that are thrown away. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { useMoney, type MoneyQuery } from '../../api/care';
import { useBlade } from '../../api/rack';
import type { Units } from '../../api/types';
import { usePreferences } from '../../ui/preferences';
import { formatRun, trim } from '../../measure/format';
import { Coming } from '../../ui/Arriving';
import { NumberField } from '../../ui/Fields';
import { Trouble } from '../../ui/Notice';
import { PaysFrom } from '../../ui/PaysFrom';

export function MoneyPage() {
  const { id = '' } = useParams();
  const { units } = usePreferences();
  const blade = useBlade(id);
  const [ask, setAsk] = useState<MoneyQuery>({ cheap_price: 20, cheap_life: 0.5 });
  const set = (part: MoneyQuery) => setAsk((now) => ({ ...now, ...part }));
  const money = useMoney(id, ask);
  const m = money.error ? undefined : money.data;
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 2, maxWidth: 1000 }}>
      <Button component={Link} to="/care" size="small" sx={{ ml: -0.75 }}>{t`‹ Care`}</Button>
      <Typography variant="h1">{t`Cost of ${blade.data?.name ?? t`this blade`}`}</Typography>
      {m && money.error && <Trouble>{money.error.message}</Trouble>}
      {!m && <Coming of={[money, blade]} rows={2} />}
      {m && (
        <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 5, rowGap: 1, my: 1.5 }}>
          <Big name={t`spent so far`}>{trim(m.spent, 2)}</Big>
          <Big name={t`${per(units)} so far`}>{m.so_far_per_m ? per100(m.so_far_per_m, units) : '–'}</Big>
          <Big name={t`${per(units)} over all its sharpenings`}>
            {m.expected_per_m ? per100(m.expected_per_m, units) : '–'}
          </Big>
          <Big name={t`per edge, in its usual work`}>{formatRun(m.dear.life_m, units)}</Big>
        </Box>
      )}
      <Typography variant="h2" sx={{ mt: 2 }}>{t`Sharpen it, or buy cheap blades?`}</Typography>
      <Box
        sx={{
          display: 'grid',
          gap: 2,
          gridTemplateColumns: 'repeat(auto-fill, minmax(min(100%, 170px), 1fr))',
          my: 1.5,
        }}
      >
        <NumberField
          label={t`Its price`}
          value={ask.price ?? m?.dear.price}
          onNumber={(price) => set({ price })}
        />
        <NumberField
          label={t`One sharpening`}
          value={ask.sharpening ?? m?.dear.sharpening}
          onNumber={(sharpening) => set({ sharpening })}
        />
        <NumberField
          label={t`Sharpenings in total`}
          value={ask.sharpenings ?? m?.dear.sharpenings}
          onNumber={(n) => set({ sharpenings: n === undefined ? undefined : Math.round(n) })}
        />
        <NumberField
          label={t`A cheap blade`}
          value={ask.cheap_price}
          onNumber={(cheap_price) => set({ cheap_price })}
        />
        <NumberField
          label={t`Its edge lasts, compared with this one`}
          unit="%"
          value={ask.cheap_life === undefined ? undefined : Math.round(100 * ask.cheap_life)}
          onNumber={(v) => set({ cheap_life: v === undefined ? undefined : v / 100 })}
        />
      </Box>
      {m && <PaysFrom money={m} units={units} />}
    </Box>
  );
}

const per = (units: Units) => (units === 'mm' ? t`per 100 m` : t`per 100 ft`);
const per100 = (perMetre: number, units: Units) => trim(perMetre * (units === 'mm' ? 100 : 30.48), 2);

function Big({ name, children }: { name: string; children: string }) {
  return (
    <Box>
      <Box sx={{ fontSize: 32, fontWeight: 700, lineHeight: 1.1 }}>{children}</Box>
      <Box sx={{ fontSize: 14.5, color: 'text.secondary' }}>{name}</Box>
    </Box>
  );
}
