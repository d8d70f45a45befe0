/** Reading a blade off a photo: what is seen is drawn over it, and nothing of it is kept. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link, useLocation, useNavigate } from 'react-router';
import { useLook } from '../../api/looks';
import { useUnmarked } from '../../api/rack';
import type { BladeInput, BladeLook, SeenTrait, Spot, Units } from '../../api/types';
import { usePreferences } from '../../ui/preferences';
import { LookView } from '../../drawings/LookView';
import { PlainBlade } from '../../drawings/PlainBlade';
import { formatLength, trim } from '../../measure/format';
import { LengthField } from '../../ui/LengthField';
import { Notice, Trouble } from '../../ui/Notice';
import { PhotoChoice } from '../../ui/PhotoChoice';
import { Segments } from '../../ui/Segments';
import { useMarked } from '../../ui/useMarked';

interface Props {
  units: Units;
  take: string; // what taking the readings over is called
  onTake: (read: Partial<BladeInput>) => void;
}

/** Where the marks stand until something is seen: on a circle about the middle. */
const begin = (photo: ImageBitmap): Spot[] =>
  [-90, 30, 150].map((deg) => {
    const r = 0.4 * Math.min(photo.width, photo.height);
    return {
      x: 0.5 + (r * Math.cos((deg * Math.PI) / 180)) / photo.width,
      y: 0.5 + (r * Math.sin((deg * Math.PI) / 180)) / photo.height,
    };
  });

/** Three tips, far from one another. */
const thirds = (tips: Spot[]) => [0, 1, 2].map((k) => tips[Math.floor((k * tips.length) / 3)]!);

export function Look({ units, take, onTake }: Props) {
  const asking = useLook();
  const look = asking.data;
  const on = useMarked(asking, begin, (l) => thirds(l.tips));
  return (
    <Box>
      <PhotoChoice of={t`Photo of a blade`} {...on.choice} />
      {!on.photo && <HowTo />}
      {on.photo && (
        <Box
          sx={{
            display: 'grid',
            gap: 3,
            gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 3fr) minmax(0, 2fr)' },
            alignItems: 'start',
          }}
        >
          <Box>
            <LookView photo={on.photo} look={look} {...on.view} />
            <Box sx={{ fontSize: 14.5, color: 'text.secondary', mt: 0.5 }}>
              {t`If the dashed line misses the tips, tap a tip or drag a ring onto one.`}
            </Box>
          </Box>
          <Box>
            <Box role="status" sx={{ minHeight: 28 }}>
              {asking.isPending && t`Measuring…`}
              {look && (
                <Typography variant="h2" sx={{ fontSize: 44, lineHeight: 1.1 }}>
                  {t`${look.teeth} teeth`}
                  <Box component="span" sx={{ fontSize: 20, ml: 1.5 }}>
                    {trust(look.teeth_trust)}
                  </Box>
                </Typography>
              )}
            </Box>
            {asking.error && <Trouble sx={{ mb: 1 }}>{asking.error.message}</Trouble>}
            {asking.error && on.moved && (
              <Button variant="outlined" onClick={on.afresh}>{t`Measure again`}</Button>
            )}
            {look && (
              <Read key={on.photo.width + look.teeth} look={look} units={units} take={take} onTake={onTake} />
            )}
          </Box>
        </Box>
      )}
    </Box>
  );
}

/** A blade as it should lie: all of it within the frame, on a plain ground. */
const laid = { diameter_mm: 254, bore_mm: 30, teeth: 24, hook_deg: 15, gullet_depth_mm: 11 };

const HowTo = () => (
  <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 3, alignItems: 'center' }}>
    <Box
      sx={{
        p: 2,
        lineHeight: 0,
        bgcolor: 'drawing.wood',
        border: '3px dashed',
        borderColor: 'text.primary',
      }}
    >
      <PlainBlade shape={laid} size={260} />
    </Box>
    <Box sx={{ flex: '1 1 260px', maxWidth: 520, fontSize: 17 }}>
      <Typography sx={{ mb: 1, fontSize: 'inherit' }}>
        {t`Disconnect the power and take the blade off. Lay it flat on a plain surface of a different color. Take the photo from straight above in even light, with the whole blade in the picture. A clean blade works best.`}
      </Typography>
      <Typography sx={{ color: 'text.secondary', fontSize: 'inherit' }}>
        {t`Corte counts the teeth, estimates the hook angle and looks for gaps. The photo isn't saved.`}
      </Typography>
    </Box>
  </Box>
);

const trust = (of: BladeLook['teeth_trust']) =>
  ({ sure: t`sure`, fair: t`fairly sure`, doubtful: t`not sure` })[of];

const traitNames = (): Record<SeenTrait, string> => ({
  teeth: t`teeth`,
  hook: t`hook`,
  bore: t`bore`,
  groups: t`groups`,
});

type Known = 'none' | 'diameter' | 'bore';

function Read({ look, units, take, onTake }: Props & { look: BladeLook }) {
  const [known, setKnown] = useState<Known>('none');
  const [mm, setMm] = useState<number>();
  const sizes = useUnmarked({
    bore_ratio: look.bore_ratio,
    gullet_ratio: look.gullet_ratio,
    [known === 'bore' ? 'bore_mm' : 'diameter_mm']: known === 'none' ? undefined : mm,
  });
  const got = (known !== 'none' && mm !== undefined && !sizes.error && sizes.data) || {};
  const traits = traitNames();
  const facts = [
    t`hook ${trim(look.hook_deg, 1)}°, ${trust(look.hook_trust)}`,
    look.group > 0 ? t`a deeper gullet every ${look.group} teeth, as with rakers` : t`all gullets alike`,
    look.slots > 0 && t`${look.slots} slots in the body`,
    look.bore_ratio !== undefined && t`bore ${trim(100 * look.bore_ratio, 1)} % of the diameter`,
    look.missing.length > 0 && t`missing: ${places(look.missing)}`,
    look.short.length > 0 && t`short or chipped: ${places(look.short)}`,
    look.bent.length > 0 && t`out of line, perhaps bent: ${places(look.bent)}`,
  ].filter((f) => f !== false);
  const readings: Partial<BladeInput> = {
    teeth: look.take.teeth,
    hook_deg: look.take.hook_deg,
    ...(look.take.group !== undefined && { grind: 'ATBR', group: look.take.group }),
    diameter_mm: got.diameter_mm,
    bore_mm: got.bore_mm,
    gullet_mm: got.gullet_mm,
  };
  return (
    <Box sx={{ display: 'grid', gap: 1.5 }}>
      <Box component="ul" sx={{ m: 0, pl: 2.5, fontSize: 17 }}>
        {facts.map((f) => (
          <li key={f}>{f}</li>
        ))}
      </Box>
      {look.doubts.map((d) => (
        <Notice key={d} kind="caution">
          {d}
        </Notice>
      ))}
      {look.bore_ratio !== undefined && (
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5, alignItems: 'center' }}>
          <Segments
            label={t`Known size`}
            value={known}
            choices={[
              { value: 'none', name: t`No size known` },
              { value: 'diameter', name: t`Diameter` },
              { value: 'bore', name: t`Bore` },
            ]}
            onChoose={setKnown}
          />
          {known !== 'none' && (
            <Box sx={{ width: 150 }}>
              <LengthField
                label={known === 'bore' ? t`Bore, measured` : t`Diameter, measured`}
                mm={mm}
                units={units}
                live
                onLength={setMm}
                onClear={() => setMm(undefined)}
              />
            </Box>
          )}
        </Box>
      )}
      {got.diameter_mm !== undefined && got.bore_mm !== undefined && (
        <Box role="status">
          {t`about ${formatLength(got.diameter_mm, units)} diameter, ${formatLength(got.bore_mm, units)} bore. Measure the bore before you mount it`}
        </Box>
      )}
      {sizes.error && known !== 'none' && <Trouble>{sizes.error.message}</Trouble>}
      {look.alike.length > 0 && (
        <Box component="section" aria-label={t`Is it one of these?`}>
          <Typography variant="h3" component="h2">{t`Is it one of these?`}</Typography>
          {look.alike.map((a) => (
            <Box key={a.blade_id} sx={{ display: 'flex', gap: 1, alignItems: 'center', flexWrap: 'wrap' }}>
              <Button
                component={Link}
                to={`/blades/${a.blade_id}`}
                sx={{ textAlign: 'left', overflowWrap: 'anywhere' }}
              >
                {a.name}
              </Button>
              <Box component="span" sx={{ color: 'text.secondary', fontSize: 15 }}>
                {[
                  a.agrees.length > 0 && t`matches ${a.agrees.map((x) => traits[x]).join(', ')}`,
                  a.differs.length > 0 && t`differs in ${a.differs.map((x) => traits[x]).join(', ')}`,
                ]
                  .filter(Boolean)
                  .join('; ')}
              </Box>
            </Box>
          ))}
        </Box>
      )}
      {look.alike.length === 0 && (
        <Box sx={{ color: 'text.secondary' }}>{t`None of your blades has this many teeth.`}</Box>
      )}
      <Button
        variant="contained"
        onClick={() =>
          onTake(Object.fromEntries(Object.entries(readings).filter(([, v]) => v !== undefined)))
        }
      >
        {take}
      </Button>
    </Box>
  );
}

/** Teeth by their numbers, as the marks over the photo have them. */
const places = (teeth: number[]) => teeth.map((k) => t`tooth ${k + 1}`).join(', ');

/** A page of its own: a blade in the hand, and the question which one it is. */
export function LookPage() {
  const { units } = usePreferences();
  const { search } = useLocation();
  const go = useNavigate();
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 1.5 }}>
      <Button component={Link} to={`/blades${search}`} size="small" sx={{ ml: -0.75 }}>{t`‹ Blades`}</Button>
      <Typography variant="h1" sx={{ mb: 1 }}>{t`Which blade is this?`}</Typography>
      <Look
        units={units}
        take={t`Add as new blade`}
        onTake={(read) => void go('/blades/new', { state: { read } })}
      />
    </Box>
  );
}
