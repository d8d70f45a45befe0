/** A blade is turned past a mark: by a slide, or tooth by tooth. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Slider from '@mui/material/Slider';

interface Props {
  teeth: number;
  turn: number; // teeth that passed
  onTurn: (turn: number) => void;
}

export function Turning({ teeth, turn, onTurn }: Props) {
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, mt: 1 }}>
      <Button
        variant="outlined"
        aria-label={t`Back one tooth`}
        onClick={() => onTurn((turn - 1 + teeth) % teeth)}
      >
        ◂
      </Button>
      <Slider
        aria-label={t`Turn the blade`}
        min={0}
        max={teeth - 1}
        step={1}
        value={turn}
        // Where it stands, but not how many there are.
        getAriaValueText={(v) => t`turned by ${Math.round((360 * v) / teeth)}°`}
        onChange={(_, v) => onTurn(v)}
        sx={{ flex: 1 }}
      />
      <Button variant="outlined" aria-label={t`Forward one tooth`} onClick={() => onTurn((turn + 1) % teeth)}>
        ▸
      </Button>
    </Box>
  );
}
