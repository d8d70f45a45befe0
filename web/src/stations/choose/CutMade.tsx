/** One tap logs the cut that was made; how it came out can be said first. */
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Snackbar from '@mui/material/Snackbar';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { useRef, useState } from 'react';
import { Link } from 'react-router';
import { useLogCut } from '../../api/queries';
import type { Blade, Cut, CutMade as CutMadeBody, Splinters, Wall } from '../../api/types';

interface Props {
  cut: Cut;
  blade: Blade;
  height: number | undefined; // mm; 0 or left out for a chop
  feed?: number; // m/min, where one was aimed at
}

const walls: Wall[] = ['clean', 'brown', 'black'];
const splinters: Record<Splinters, string> = { none: 'none', fuzz: 'fuzz', splinters: 'some', torn: 'torn' };

export function CutMade({ cut, blade, height, feed }: Props) {
  const [wall, setWall] = useState<Wall>('clean');
  const [splinter, setSplinter] = useState<Splinters>('none');
  const [told, setTold] = useState(false);
  const log = useLogCut();
  // One key for one cut: the same as long as the same cut is sent again.
  const sent = useRef<{ content: string; key: string }>(undefined);
  const send = () => {
    const made: CutMadeBody = {
      cut,
      blade_id: blade.id,
      height_mm: height || undefined,
      feed_m_min: feed,
      pieces: 1,
      wall,
      splinters: splinter,
    };
    const content = JSON.stringify(made);
    if (sent.current?.content !== content) sent.current = { content, key: crypto.randomUUID() };
    log.mutate(
      { key: sent.current.key, made },
      {
        onSuccess: () => {
          sent.current = undefined; // the next one is another cut, even if it is alike
          setWall('clean');
          setSplinter('none');
          setTold(true);
        },
      },
    );
  };
  const change =
    <T,>(set: (v: T) => void) =>
    (_: unknown, v: T | null) => {
      if (v === null) return;
      set(v);
    };
  return (
    <Box
      component="section"
      aria-label="Log this cut"
      sx={{
        display: 'flex',
        flexWrap: 'wrap',
        alignItems: 'center',
        gap: 1.5,
        pt: 1,
        borderTop: '1px solid',
        borderColor: 'divider',
      }}
    >
      <Pick
        label="Wall"
        value={wall}
        onChange={change(setWall)}
        choices={walls.map((w) => [w, w] as const)}
      />
      <Pick
        label="Splinters"
        value={splinter}
        onChange={change(setSplinter)}
        choices={Object.entries(splinters) as [Splinters, string][]}
      />
      <Button
        variant="contained"
        onClick={send}
        disabled={log.isPending}
        sx={{ ml: { sm: 'auto' }, px: 3, fontSize: 17 }}
      >
        {log.isPending ? 'Logging…' : 'Cut made'}
      </Button>
      {log.error && (
        <Alert severity="error" variant="outlined" sx={{ width: '100%' }}>
          {log.error.message}
        </Alert>
      )}
      <Snackbar
        open={told}
        autoHideDuration={6000}
        onClose={(_, why) => why !== 'clickaway' && setTold(false)}
        message="Cut logged."
        action={
          <Button component={Link} to={`/rack/${blade.id}`} color="inherit" size="small">
            See {blade.name}
          </Button>
        }
      />
    </Box>
  );
}

interface PickProps<T extends string> {
  label: string;
  value: T;
  choices: readonly (readonly [T, string])[];
  onChange: (e: unknown, v: T | null) => void;
}

function Pick<T extends string>({ label, value, choices, onChange }: PickProps<T>) {
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
      <Box sx={{ fontSize: 15, color: 'text.secondary' }} aria-hidden>
        {label}
      </Box>
      <ToggleButtonGroup exclusive size="small" value={value} onChange={onChange} aria-label={label}>
        {choices.map(([v, name]) => (
          <ToggleButton key={v} value={v} sx={{ px: 1.25 }}>
            {name}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
    </Box>
  );
}
