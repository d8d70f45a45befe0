/** Asked once of a new shop: in which time zone its days begin and end. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { Link } from 'react-router';
import { useChangeShop } from '../api/shop';
import type { Shop } from '../api/types';
import { pick } from '../ui/pick';
import { hereabouts } from '../ui/useDates';
import { Offer } from './Offer';

export function ZoneOffer({ shop }: { shop: Shop }) {
  const change = useChangeShop();
  const here = hereabouts();
  const kept = pick(shop, [
    'name',
    'change_minutes',
    'height_school',
    'learning',
    'sharpening_price',
    'rework',
  ]);
  return (
    <Offer label={t`The shop’s time zone`}>
      <span>{t`Time zone: ${here.replaceAll('_', ' ')} (from this browser).`}</span>
      <Button
        disabled={change.isPending}
        onClick={() => change.mutate({ version: shop.version, body: { ...kept, time_zone: here } })}
      >
        {t`Keep`}
      </Button>
      <Button component={Link} to="/settings">{t`Change`}</Button>
      {change.error && <Box sx={{ color: 'error.main' }}>{change.error.message}</Box>}
    </Offer>
  );
}
