/** The baths that stand in the shop: how used, how old, what they want. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useEmptyBath, useStrainBath } from '../../api/care';
import type { Bath, Units } from '../../api/types';
import { BathJar } from '../../drawings/BathView';
import { formatVolume } from '../../measure/format';
import { Verdict } from '../../ui/Verdict';
import { Trouble } from '../../ui/Notice';
import { Sure } from '../../ui/Sure';
import { Worded } from '../../ui/Worded';

export function Baths({ baths, units }: { baths: Bath[]; units: Units }) {
  const strain = useStrainBath();
  const empty = useEmptyBath();
  const failed = strain.error ?? empty.error;
  return (
    <Box component="section" aria-labelledby="baths">
      <Typography id="baths" variant="h2">{t`Cleaning baths`}</Typography>
      {failed && <Trouble>{failed.message}</Trouble>}
      {baths.length === 0 && <Box>{t`No bath is ready.`}</Box>}
      {baths.map((b) => (
        <Box
          key={b.id}
          sx={{ borderTop: '1px solid', borderColor: 'divider', py: 1, display: 'flex', gap: 1.5 }}
        >
          <BathJar used={b.uses / Math.max(1, b.cleaner.uses)} />
          <Box sx={{ minWidth: 0 }}>
            <Box sx={{ fontWeight: 650, overflowWrap: 'anywhere' }}>
              {t`${b.name}: ${formatVolume(b.litres, units)} of ${b.cleaner.name}`}
            </Box>
            <Box sx={{ display: 'flex', gap: 1, alignItems: 'baseline' }}>
              <Verdict verdict={b.word === 'good' ? 'clear' : 'caution'} size={13} />
              <span>
                {b.word === 'good' ? '' : `${b.word}: `}
                <Worded>{b.why}</Worded>
              </span>
            </Box>
            <Button disabled={strain.isPending} onClick={() => strain.mutate(b.id)}>
              {t`Strained`}
            </Button>
            <Sure
              disabled={empty.isPending}
              asks={t`Discard ${b.name}?`}
              goes={t`It won't be offered for cleaning again, and its use count ends.`}
              yes={t`Discard bath`}
              onYes={() => empty.mutate(b.id)}
            >
              {t`Discard bath`}
            </Sure>
          </Box>
        </Box>
      ))}
    </Box>
  );
}
