/** The calendar's private address: made, shown once, withdrawn. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { place } from '../../api/place';
import { useCalendar, useNewCalendar, useWithdrawCalendar } from '../../api/shop';
import { useDates } from '../../ui/useDates';
import { Trouble } from '../../ui/Notice';
import { Sure } from '../../ui/Sure';

export function Calendar() {
  const { day } = useDates();
  const calendar = useCalendar();
  const make = useNewCalendar();
  const withdraw = useWithdrawCalendar();
  const failed = calendar.error ?? make.error ?? withdraw.error;
  const at = calendar.data?.made_at;
  return (
    <Box component="section" aria-labelledby="calendar">
      <Typography id="calendar" variant="h2">{t`Calendar`}</Typography>
      <Box>
        {t`Shows what is due in any calendar program on this computer that reads iCalendar. Anyone with the address can read it. You can revoke it.`}
      </Box>
      {failed && <Trouble>{failed.message}</Trouble>}
      {make.data && at && (
        <Box
          sx={{ my: 1, p: 1, border: '1.5px solid', borderColor: 'text.primary', overflowWrap: 'anywhere' }}
        >
          <Box sx={{ fontSize: 14, color: 'text.secondary' }}>{t`Shown only once:`}</Box>
          <a href={place + make.data.path}>{location.origin + place + make.data.path}</a>
        </Box>
      )}
      {at && <Box sx={{ my: 0.5 }}>{t`Address created ${day(at)}.`}</Box>}
      <Button
        variant="outlined"
        size="small"
        sx={{ mt: 1, mr: 1 }}
        disabled={make.isPending}
        onClick={() => make.mutate(undefined)}
      >
        {at ? t`Create new address` : t`Create address`}
      </Button>
      {at && (
        <Sure
          size="small"
          sx={{ mt: 1 }}
          disabled={withdraw.isPending}
          asks={t`Revoke this address?`}
          goes={t`Calendars using it will stop updating. A new address will be different.`}
          yes={t`Revoke`}
          onYes={() => withdraw.mutate(undefined, { onSuccess: () => make.reset() })}
        >
          {t`Revoke`}
        </Sure>
      )}
    </Box>
  );
}
