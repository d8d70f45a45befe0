/** A dial that is heard live: what it shows, a button that takes it, or taking it when it has stood still. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { useEffect, useRef, useState } from 'react';
import { useGauges } from '../api/gauges';
import { usePlaceGauge, type Place } from '../api/truing';
import type { Units } from '../api/types';
import { formatDial } from '../measure/format';

interface Props {
  units: Units;
  place: { where: Place; step?: number; of?: number } | undefined; // of a stand-in
  at: string; // which reading is wanted; another one means that the dial is moved
  onCapture: (mm: number) => void;
}

const HEIGHT = 'corte.gauge'; // of the panel, in pixels, as it last stood here; 0 where none was heard
const USUAL = { xs: 200, sm: 143 }; // of one that never did

export function GaugePanel({ units, place, at, onCapture }: Props) {
  const { gauges, connected } = useGauges();
  const put = usePlaceGauge();
  const [name, setName] = useState<string>();
  const [auto, setAuto] = useState(false);
  const all = [...gauges.values()];
  const g = all.find((x) => x.state.name === name) ?? all[0];
  const reading = g?.reading;
  // After a capture the dial must move before it may stand still for the next.
  const armed = useRef(false);
  useEffect(() => {
    armed.current = false;
  }, [at]);
  useEffect(() => {
    if (!reading) return;
    if (!reading.still) armed.current = true;
    else if (auto && armed.current && g?.state.word === 'live') {
      armed.current = false;
      onCapture(reading.mm);
    }
  }, [reading, auto, g?.state.word, onCapture]);
  const panel = useRef<HTMLElement>(null);
  useEffect(() => {
    if (panel.current) localStorage.setItem(HEIGHT, String(panel.current.offsetHeight));
  }, [g?.state.name]);
  // Its place is kept for it until it is heard, so that nothing jumps when it is; where none was heard
  // at all it is given up, from the next time on.
  const [kept] = useState(() => localStorage.getItem(HEIGHT));
  const [silent, setSilent] = useState(false);
  useEffect(() => {
    if (g) return;
    const timer = setTimeout(() => {
      localStorage.setItem(HEIGHT, '0');
      setSilent(true);
    }, 3000);
    return () => clearTimeout(timer);
  }, [g]);
  if (!g)
    return kept === '0' ? null : (
      <Box sx={{ my: 1.5, height: kept ? Number(kept) : USUAL, color: 'text.secondary' }}>
        {silent && t`No dial indicator connected. Type your readings.`}
      </Box>
    );
  const live = connected && g.state.word === 'live' && reading !== undefined;
  return (
    <Box
      ref={panel}
      component="section"
      aria-label={t`Gauge ${g.state.name}`}
      sx={{
        my: 1.5,
        p: 1.5,
        border: '1.5px solid',
        borderColor: live ? 'text.primary' : 'divider',
        borderRadius: 1,
      }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5, flexWrap: 'wrap' }}>
        <Box sx={{ minWidth: 150 }}>
          <Box sx={{ fontSize: 14, color: 'text.secondary' }}>
            {g.state.name}
            {g.state.stand_in && `, ${t`simulated`}`}
          </Box>
          <Box
            data-testid="dial"
            sx={{ fontSize: 30, fontWeight: 700, lineHeight: 1.1, opacity: live ? 1 : 0.4 }}
          >
            {reading ? formatDial(reading.mm, units) : '–'}
          </Box>
        </Box>
        <Button variant="contained" disabled={!live} onClick={() => reading && onCapture(reading.mm)}>
          {t`Capture`}
        </Button>
        {g.state.stand_in && place && (
          <Button variant="outlined" onClick={() => put.mutate({ name: g.state.name, ...place })}>
            {t`Move it there`}
          </Button>
        )}
        {all.length > 1 &&
          all.map((x) => (
            <Button
              key={x.state.name}
              size="small"
              aria-pressed={x === g}
              onClick={() => setName(x.state.name)}
            >
              {x.state.name}
            </Button>
          ))}
      </Box>
      <FormControlLabel
        control={<Checkbox checked={auto} onChange={(e) => setAuto(e.target.checked)} />}
        label={t`Capture when steady for one second`}
      />
      <Box role="status" sx={{ fontSize: 14.5, color: 'text.secondary' }}>
        {!connected
          ? t`No answer from the server. Still trying. Your readings are kept.`
          : g.state.word === 'live'
            ? reading?.still
              ? t`Steady.`
              : t`Moving.`
            : g.state.text}
      </Box>
    </Box>
  );
}
