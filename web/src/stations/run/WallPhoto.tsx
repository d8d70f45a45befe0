/** The wall of a cut, read off a photo: how it came out, and what it shows for Trace. Always to be confirmed. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import { useWallLook, type WallOf } from '../../api/looks';
import type { Spot, Wall } from '../../api/types';
import { WallView } from '../../drawings/WallView';
import { wallWords } from '../../drawings/words';
import { formatLength, formatThin } from '../../measure/format';
import { usePhone } from '../../app/phone';
import { Trouble } from '../../ui/Notice';
import { PhotoChoice } from '../../ui/PhotoChoice';
import { useMarked } from '../../ui/useMarked';

interface Props {
  of: WallOf;
  trace: string; // the address of Trace for this cut
  onWall: (wall: Wall) => void;
  onClose: () => void;
}

/** A frame over the middle, until the wall is found. */
const begin = (): Spot[] => [
  { x: 0.1, y: 0.35 },
  { x: 0.9, y: 0.35 },
  { x: 0.9, y: 0.65 },
  { x: 0.1, y: 0.65 },
];

export function WallPhoto({ of, trace, onWall, onClose }: Props) {
  const phone = usePhone();
  const asking = useWallLook(of);
  const on = useMarked(asking, begin, (l) => l.corners);
  const look = asking.data;
  const to = new URLSearchParams(trace.split('?')[1]);
  look?.signs.forEach((s) => to.append('seen', s));
  const percent = (share: number) => Math.round(100 * share);
  return (
    <Dialog open onClose={onClose} fullWidth fullScreen={phone} maxWidth="md">
      <DialogTitle>{t`The wall, off a photo`}</DialogTitle>
      <DialogContent>
        <PhotoChoice of={t`A photo of the wall`} {...on.choice} />
        {!on.photo && (
          <Typography sx={{ maxWidth: 560 }}>
            {t`Blade still, piece off the saw. Lay the wall along the picture, on something of another colour, in even light, from straight above. It is ${formatLength(of.thickness_mm, of.units)} thick, which gives the scale. The photo is not kept.`}
          </Typography>
        )}
        {on.photo && (
          <>
            <WallView photo={on.photo} look={look} {...on.view} />
            <Box role="status" sx={{ mt: 1, minHeight: 28 }}>
              {asking.isPending && t`Looking…`}
              {look && (
                <>
                  <Typography variant="h2">{t`It looks ${wallWords[look.grade]}.`}</Typography>
                  <Box sx={{ fontSize: 17 }}>
                    {t`${percent(look.brown)} % brown, ${percent(look.black)} % black, of about ${formatLength(Math.round(look.length_mm), of.units)}.`}{' '}
                    {look.spacing_mm === undefined
                      ? t`No marks that come back evenly.`
                      : look.turn_mm === undefined &&
                        t`Marks every ${formatThin(look.spacing_mm, of.units)}.`}
                  </Box>
                  {look.says.map((s) => (
                    <Box key={s} sx={{ fontSize: 17 }}>
                      {s}
                    </Box>
                  ))}
                </>
              )}
            </Box>
            {asking.error && <Trouble sx={{ mb: 1 }}>{asking.error.message}</Trouble>}
            {asking.error && on.moved && (
              <Button variant="outlined" onClick={on.afresh}>{t`Look for it again`}</Button>
            )}
          </>
        )}
      </DialogContent>
      <DialogActions sx={{ flexWrap: 'wrap' }}>
        <Button onClick={onClose}>{t`Close`}</Button>
        {look && look.signs.length > 0 && (
          <Button component={Link} to={`/trace?${to}`} variant="outlined">{t`Trace what it shows`}</Button>
        )}
        {look && (
          <Button
            variant="contained"
            onClick={() => {
              onWall(look.grade);
              onClose();
            }}
          >
            {t`Yes, ${wallWords[look.grade]}`}
          </Button>
        )}
      </DialogActions>
    </Dialog>
  );
}
