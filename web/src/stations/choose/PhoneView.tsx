/** What fills a phone for a moment: the sentence of the cut, or one view of the setting. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import { stretchOf } from '../../ui/feed';
import { Compare } from './Compare';
import { EndOf } from './EndOf';
import { Hold } from './Hold';
import { Schools } from './Schools';
import type { PhoneViewName, SettingPanelProps } from './setting';

function Full({ title, onClose, children }: { title: string; onClose: () => void; children: ReactNode }) {
  return (
    <Dialog open fullScreen onClose={onClose} aria-labelledby="filling">
      <Box
        sx={{
          display: 'flex',
          alignItems: 'center',
          px: 2,
          py: 1,
          borderBottom: '2px solid',
          borderColor: 'text.primary',
        }}
      >
        <Typography id="filling" variant="h2" sx={{ flex: 1 }}>
          {title}
        </Typography>
        <Button variant="contained" onClick={onClose} sx={{ minHeight: 48 }}>{t`Done`}</Button>
      </Box>
      <Box sx={{ p: 2, flex: 1, minHeight: 0, overflow: 'auto', bgcolor: 'background.default' }}>
        {children}
      </Box>
    </Dialog>
  );
}

export function SentenceSheet({ onClose, children }: { onClose: () => void; children: ReactNode }) {
  return (
    <Full title={t`The cut`} onClose={onClose}>
      {children}
    </Full>
  );
}

const titles: Record<PhoneViewName, string> = {
  blades: t`Blades for this cut`,
  end: t`End`,
  heights: t`Heights`,
  hold: t`Guide & support`,
  compare: t`Compared`,
};

interface Props {
  name: PhoneViewName;
  panel: SettingPanelProps;
  onClose: () => void;
}

export function PhoneView({ name, panel: p, onClose }: Props) {
  const { plan, cut, saw, units } = p;
  return (
    <Full title={titles[name]} onClose={onClose}>
      {name === 'blades' && p.list}
      {name === 'end' && (
        <Box sx={{ height: 360 }}>
          <EndOf id={p.blade.id} cut={cut} units={units} />
        </Box>
      )}
      {name === 'heights' && <Schools {...p} />}
      {name === 'hold' && <Hold {...{ plan, saw, units }} />}
      {name === 'compare' && (
        <Compare
          stretch={stretchOf(plan, units)}
          {...{ cut, units, pins: p.pins, blades: p.blades, onUnpin: p.onUnpin }}
        />
      )}
    </Full>
  );
}
