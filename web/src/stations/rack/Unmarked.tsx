/** Reading a blade that has nothing on it: off a photo, or teeth by groups, hook by straight edge, clearance by caliper, bevel by eye. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import Collapse from '@mui/material/Collapse';
import Typography from '@mui/material/Typography';
import { useState, type ReactNode } from 'react';
import { useUnmarked } from '../../api/rack';
import type { BladeInput, UnmarkedReadings, Units } from '../../api/types';
import { HookReading, BevelSample } from '../../drawings/Readings';
import { formatThin, trim } from '../../measure/format';
import { NumberField } from '../../ui/Fields';
import { LengthField } from '../../ui/LengthField';
import { Trouble } from '../../ui/Notice';
import { Look } from './Look';

interface Props {
  input: BladeInput;
  units: Units;
  onRead: (part: Partial<BladeInput>) => void;
}

const bevels = [10, 15, 20, 25, 30, 38];

export function Unmarked({ input, units, onRead }: Props) {
  const [open, setOpen] = useState(false);
  const [read, setRead] = useState<UnmarkedReadings>({});
  const answer = useUnmarked({ ...read, diameter_mm: input.diameter_mm });
  const set = (part: UnmarkedReadings) => setRead((now) => ({ ...now, ...part }));
  const got = answer.error ? {} : (answer.data ?? {});
  return (
    <Box sx={{ borderTop: '1px solid', borderColor: 'divider', pb: 2 }}>
      <Button onClick={() => setOpen(!open)} aria-expanded={open} sx={{ ml: -1 }}>
        {open ? t`Hide` : t`Nothing printed on it? Measure the blade`}
      </Button>
      <Collapse in={open} unmountOnExit>
        <Box component="section" aria-label={t`From a photo`} sx={{ mb: 3 }}>
          <Typography variant="h3" component="h2" sx={{ mb: 1 }}>{t`From a photo`}</Typography>
          <Look units={units} take={t`Use these readings`} onTake={onRead} />
        </Box>
        {answer.error && <Trouble sx={{ mb: 1 }}>{answer.error.message}</Trouble>}
        <Box
          sx={{
            display: 'grid',
            gap: 3,
            gridTemplateColumns: { xs: 'minmax(0,1fr)', sm: 'repeat(2, minmax(0,1fr))' },
          }}
        >
          <Reading
            title={t`Teeth, by groups`}
            how={t`Make a chalk mark where you start. Count the teeth in one repeating group, then the groups once around.`}
            result={got.teeth !== undefined ? t`${got.teeth} teeth` : undefined}
            onTake={() =>
              got.teeth !== undefined &&
              onRead({ teeth: got.teeth, group: input.grind === 'ATBR' ? read.group_teeth : input.group })
            }
          >
            <Pair>
              <NumberField
                label={t`Teeth in one group`}
                value={read.group_teeth}
                onNumber={(v) => set({ group_teeth: whole(v) })}
              />
              <NumberField
                label={t`Groups`}
                value={read.groups}
                onNumber={(v) => set({ groups: whole(v) })}
              />
            </Pair>
          </Reading>
          <Reading
            title={t`Hook angle, with a straightedge`}
            how={t`Lay a straightedge along the face of one tooth. Measure square to it from the center of the bore. If the line passes behind the center, seen against the rotation, the offset is negative.`}
            result={got.hook_deg !== undefined ? t`hook ${trim(got.hook_deg, 1)}°` : undefined}
            onTake={() =>
              got.hook_deg !== undefined && onRead({ hook_deg: Math.round(got.hook_deg * 2) / 2 })
            }
          >
            <HookReading
              radius={input.diameter_mm / 2}
              offset={read.offset_mm ?? 0}
              bore={input.bore_mm}
              units={units}
            />
            <LengthField
              label={t`Offset`}
              mm={read.offset_mm}
              units={units}
              live
              onLength={(offset_mm) => set({ offset_mm })}
              onClear={() => set({ offset_mm: undefined })}
            />
          </Reading>
          <Reading
            title={t`Kerf and plate, by caliper`}
            how={t`Measure across two neighboring tips for the kerf, and on the steel between them for the plate.`}
            result={
              got.side_clearance_mm !== undefined
                ? t`${formatThin(got.side_clearance_mm, units)} clearance per side`
                : undefined
            }
            onTake={() => onRead({ kerf_mm: read.kerf_mm ?? input.kerf_mm, plate_mm: read.plate_mm })}
          >
            <Pair>
              <LengthField
                label={t`Over the tips`}
                mm={read.kerf_mm}
                units={units}
                live
                onLength={(kerf_mm) => set({ kerf_mm })}
                onClear={() => set({ kerf_mm: undefined })}
              />
              <LengthField
                label={t`On the plate`}
                mm={read.plate_mm}
                units={units}
                live
                onLength={(plate_mm) => set({ plate_mm })}
                onClear={() => set({ plate_mm: undefined })}
              />
            </Pair>
          </Reading>
          <Reading
            title={t`Top bevel, by eye`}
            how={t`Look along the rim at two neighboring tips. Tap the pair that looks most like them.`}
          >
            <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
              {bevels.map((deg) => (
                <ButtonBase
                  key={deg}
                  aria-pressed={input.bevel_deg === deg}
                  aria-label={t`Bevel ${deg} degrees`}
                  onClick={() => onRead({ bevel_deg: deg })}
                  sx={{
                    p: 0.75,
                    border: '1.5px solid',
                    borderColor: input.bevel_deg === deg ? 'primary.main' : 'divider',
                    borderRadius: 1,
                    flexDirection: 'column',
                    fontSize: 14.5,
                  }}
                >
                  <BevelSample deg={deg} />
                  {deg}°
                </ButtonBase>
              ))}
            </Box>
          </Reading>
        </Box>
      </Collapse>
    </Box>
  );
}

const whole = (v: number | undefined) => (v === undefined ? undefined : Math.max(1, Math.round(v)));

const Pair = ({ children }: { children: ReactNode }) => (
  <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>{children}</Box>
);

interface ReadingProps {
  title: string;
  how: string;
  result?: string;
  onTake?: () => void;
  children: ReactNode;
}

function Reading({ title, how, result, onTake, children }: ReadingProps) {
  return (
    <Box component="section" aria-label={title}>
      <Typography variant="h3" component="h2">
        {title}
      </Typography>
      <Box sx={{ fontSize: 14.5, lineHeight: 1.35, mb: 1.25, color: 'text.secondary' }}>{how}</Box>
      {children}
      {onTake && (
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5, mt: 1, minHeight: 44 }}>
          <b role="status">{result ?? ''}</b>
          {result && <Button size="small" variant="outlined" onClick={onTake}>{t`Use it`}</Button>}
        </Box>
      )}
    </Box>
  );
}
