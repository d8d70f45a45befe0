/** What came out of a cut, read off a photo of it: the wall, or the edge. Always to be confirmed. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { useEdgeLook, useWallLook, type WallOf } from '../../api/looks';
import type { Splinters, Spot, Units, Wall } from '../../api/types';
import { usePhone } from '../../ui/phone';
import { EdgeView } from '../../drawings/EdgeView';
import { WallView } from '../../drawings/WallView';
import { splinterWords, wallWords } from '../../drawings/recordWords';
import { formatLength, formatThin } from '../../measure/format';
import { CheckField } from '../../ui/Fields';
import { LengthField } from '../../ui/LengthField';
import { Trouble } from '../../ui/Notice';
import { PhotoChoice } from '../../ui/PhotoChoice';
import { useMarked } from '../../ui/useMarked';

/** A frame over the middle, until the wall is found. */
const frame = (): Spot[] => [
  { x: 0.1, y: 0.35 },
  { x: 0.9, y: 0.35 },
  { x: 0.9, y: 0.65 },
  { x: 0.1, y: 0.65 },
];

/** A line over the middle, until the edge is found. */
const line = (): Spot[] => [
  { x: 0.1, y: 0.55 },
  { x: 0.9, y: 0.55 },
];

const edgeLooks = {
  none: t`It looks clean.`,
  fuzz: t`It looks fuzzy.`,
  splinters: t`It looks torn out.`,
  torn: t`It looks torn.`,
} as const;

const percent = (share: number) => Math.round(100 * share);

interface WallProps {
  of: WallOf;
  trace?: string; // the address of Trace for this cut
  onWall: (wall: Wall) => void;
  onClose: () => void;
}

export function WallPhoto({ of, trace, onWall, onClose }: WallProps) {
  const asking = useWallLook(of);
  const on = useMarked(asking, frame, (l) => l.corners);
  const look = asking.data;
  return (
    <OffPhoto
      title={t`Cut edge, from a photo`}
      photo={t`Photo of the cut edge`}
      hint={t`Wait until the blade stops and take the piece off the saw. Lay the cut edge along the picture, on a surface of a different color, in even light. Take it from straight above. Its thickness of ${formatLength(of.thickness_mm, of.units)} gives the scale. The photo isn't saved.`}
      {...{ asking, on, trace, onClose }}
      verdict={look && t`It looks ${wallWords[look.grade]}.`}
      figures={
        look && (
          <>
            {t`${percent(look.brown)} % brown, ${percent(look.black)} % black, of about ${formatLength(Math.round(look.length_mm), of.units)}.`}{' '}
            {look.spacing_mm === undefined
              ? t`No regular saw marks.`
              : look.turn_mm === undefined && t`Marks every ${formatThin(look.spacing_mm, of.units)}.`}
          </>
        )
      }
      yes={look && t`Yes, ${wallWords[look.grade]}`}
      onYes={() => look && onWall(look.grade)}
    >
      {on.photo && <WallView photo={on.photo} look={look} {...on.view} />}
    </OffPhoto>
  );
}

interface EdgeProps {
  lengthMm: number | undefined; // of the edge, until another is said
  units: Units;
  trace?: string;
  onSplinters: (splinters: Splinters) => void;
  onClose: () => void;
}

export function EdgePhoto({ lengthMm, units, trace, onSplinters, onClose }: EdgeProps) {
  const asking = useEdgeLook(units);
  const on = useMarked(asking, line, (l) => l.ends, lengthMm);
  const look = asking.data;
  const many = look?.splinters.length ?? 0;
  return (
    <OffPhoto
      title={t`Edge, from a photo`}
      photo={t`Photo of the edge`}
      hint={t`Wait until the blade stops and take the piece off the saw. Lay it with the torn face up and the cut edge toward you, on a surface of a different color. Take the whole edge from straight above. The photo isn't saved.`}
      {...{ asking, trace, onClose }}
      on={{ ...on, choice: { ...on.choice, busy: on.choice.busy || !on.size } }}
      verdict={look && edgeLooks[look.grade]}
      figures={
        look &&
        (many > 0
          ? t`Tear-out: ${many}, on ${percent(look.share)} % of the edge. The worst reaches ${formatThin(look.deepest_mm, units)} into the face.`
          : t`No tear-out visible in the photo.`)
      }
      yes={look && t`Yes, ${splinterWords[look.grade]}`}
      onYes={() => look && onSplinters(look.grade)}
      field={
        <>
          <Box sx={{ width: 220 }}>
            <LengthField label={t`Edge length`} mm={on.size} units={units} onLength={on.onSize} />
          </Box>
          <CheckField label={t`The face lies below the edge`} value={on.below} onCheck={on.onBelow} />
        </>
      }
    >
      {on.photo && <EdgeView photo={on.photo} look={look} {...on.view} />}
    </OffPhoto>
  );
}

/** Opens one of these, beside what it fills in. */
export const OffPhotoButton = ({ of, onClick }: { of: string; onClick: () => void }) => (
  <Button
    size="small"
    aria-label={t`${of}: from a photo`}
    onClick={onClick}
    sx={{ minHeight: 40, my: -0.75, mr: -0.75 }}
  >
    {t`From a photo`}
  </Button>
);

interface Seen {
  says: string[];
  signs: string[];
}

interface Props {
  title: string;
  photo: string; // what it is of
  hint: string; // how to take it
  asking: { data?: Seen | undefined; error: Error | null; isPending: boolean };
  on: Pick<ReturnType<typeof useMarked>, 'choice' | 'moved' | 'afresh' | 'photo'>;
  trace: string | undefined;
  verdict: string | undefined;
  figures: ReactNode;
  yes: string | undefined;
  onYes: () => void;
  onClose: () => void;
  field?: ReactNode; // what is to be said with it
  children: ReactNode; // the photo with what was read
}

function OffPhoto({
  title,
  photo,
  hint,
  asking,
  on,
  trace,
  verdict,
  figures,
  yes,
  onYes,
  onClose,
  field,
  children,
}: Props) {
  const phone = usePhone();
  const look = asking.data;
  const to = new URLSearchParams(trace?.split('?')[1]);
  look?.signs.forEach((s) => to.append('seen', s));
  return (
    <Dialog open onClose={onClose} fullWidth fullScreen={phone} maxWidth="md">
      <DialogTitle>{title}</DialogTitle>
      <DialogContent>
        <PhotoChoice of={photo} {...on.choice} />
        {field && <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 3, mt: 2, mb: 1.5 }}>{field}</Box>}
        {!on.photo && <Typography sx={{ maxWidth: 560 }}>{hint}</Typography>}
        {on.photo && (
          <Box role="status" sx={{ mb: 1, minHeight: 56 }}>
            {asking.isPending && t`Measuring…`}
            {look && (
              <>
                <Typography variant="h2">{verdict}</Typography>
                <Box sx={{ fontSize: 17 }}>{figures}</Box>
                {look.says.map((s) => (
                  <Box key={s} sx={{ fontSize: 17 }}>
                    {s}
                  </Box>
                ))}
              </>
            )}
          </Box>
        )}
        {asking.error && (
          <Box sx={{ mb: 1 }}>
            <Trouble>{asking.error.message}</Trouble>
            {on.moved && <Button variant="outlined" onClick={on.afresh}>{t`Measure again`}</Button>}
          </Box>
        )}
        {children}
      </DialogContent>
      <DialogActions sx={{ flexWrap: 'wrap' }}>
        <Button onClick={onClose}>{t`Close`}</Button>
        {trace && look && look.signs.length > 0 && (
          <Button component={Link} to={`/diagnose?${to}`} variant="outlined">{t`Diagnose this`}</Button>
        )}
        {yes && (
          <Button
            variant="contained"
            onClick={() => {
              onYes();
              onClose();
            }}
          >
            {yes}
          </Button>
        )}
      </DialogActions>
    </Dialog>
  );
}
