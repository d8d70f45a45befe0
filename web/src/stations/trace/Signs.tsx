/** The work to point at, and the signs of the place that was pointed at, each there, not there, or not looked at. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { TraceSign } from '../../api/types';
import { SignSample } from '../../drawings/SignSample';
import { Workpiece, type Place } from '../../drawings/Workpiece';
import { usePhone } from '../../ui/phone';

interface Props {
  saw: 'table' | 'miter' | 'circular';
  groove: boolean;
  signs: TraceSign[];
  present: string[];
  absent: string[];
  ended: boolean;
  wide?: boolean; // the questions beside the work, where there is room
  onSign: (id: string, to: 'there' | 'not' | null) => void;
}

const asks: Record<Place, string> = {
  wall: t`What do the cut edges look like?`,
  face: t`What does the exit face look like?`,
  end: t`What does the end look like where the cut runs out?`,
  shape: t`What is wrong with its shape?`,
  groove: t`What does the groove look like?`,
  feel: t`What do you feel or hear?`,
  when: t`When does it happen?`,
};

export function Signs({ saw, groove, signs, present, absent, ended, wide = false, onSign }: Props) {
  const [place, setPlace] = useState<Place>(signs.find((s) => s.id === present.at(-1))?.place ?? 'wall');
  const phone = usePhone();
  const counts: Partial<Record<Place, number>> = {};
  for (const s of signs) if (present.includes(s.id)) counts[s.place] = (counts[s.place] ?? 0) + 1;
  return (
    <Box
      sx={
        wide
          ? {
              display: 'grid',
              gridTemplateColumns: { md: 'minmax(0, 1fr) minmax(0, 1fr)' },
              columnGap: 5,
              alignItems: 'start',
            }
          : {}
      }
    >
      <Workpiece saw={saw} groove={groove} counts={counts} open={place} narrow={phone} onPlace={setPlace} />
      <Box component="section" aria-labelledby="asks" sx={{ mt: 1 }}>
        <Typography id="asks" variant="h3" component="h2">
          {asks[place]}
        </Typography>
        <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
          {signs
            .filter((s) => s.place === place)
            .map((s) => (
              <Box
                component="li"
                key={s.id}
                sx={{
                  display: 'flex',
                  alignItems: 'center',
                  gap: 1.5,
                  py: 0.5,
                  borderTop: '1px solid',
                  borderColor: 'divider',
                }}
              >
                <SignSample id={s.id} />
                <Box sx={{ flex: 1, minWidth: 0, fontWeight: present.includes(s.id) ? 700 : 500 }}>
                  {s.label}
                </Box>
                <ToggleButtonGroup
                  exclusive
                  size="small"
                  disabled={ended}
                  aria-label={s.label}
                  value={present.includes(s.id) ? 'there' : absent.includes(s.id) ? 'not' : null}
                  onChange={(_, v: 'there' | 'not' | null) => onSign(s.id, v)}
                >
                  <ToggleButton value="there" sx={{ px: 1.5 }}>{t`yes`}</ToggleButton>
                  <ToggleButton value="not" sx={{ px: 1.5 }}>{t`no`}</ToggleButton>
                </ToggleButtonGroup>
              </Box>
            ))}
        </Box>
      </Box>
    </Box>
  );
}
