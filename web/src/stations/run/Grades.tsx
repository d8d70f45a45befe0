/** What came out of a cut, to be tapped: wall, faces, effort, noise, seconds and how many alike. */
import { wordOf } from '../../drawings/codeWords';
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { Blade, Effort, Noise, Setting, Splinters, Wall } from '../../api/types';

import { usePreferences } from '../../ui/preferences';
import { EdgeSample, WallSample } from '../../drawings/Sample';
import { effortWords, noiseWords, splinterWords, wallWords } from '../../drawings/recordWords';
import { NumberField } from '../../ui/Fields';
import { Pick } from '../../ui/Pick';
import { OffPhotoButton } from './OffPhoto';

const walls = (['clean', 'brown', 'black'] as const).map(
  (w) => [w, wallWords[w], <WallSample key={w} wall={w} />] as const,
);
const edges = (['none', 'fuzz', 'splinters', 'torn'] as const).map(
  (s) => [s, splinterWords[s], <EdgeSample key={s} splinters={s} />] as const,
);

/** What is said of a cut before it is logged. */
export interface Said {
  wall: Wall;
  splinters: Splinters;
  other?: Splinters;
  effort?: Effort;
  noise?: Noise;
  pieces: number;
  metres?: number;
  cameBack?: 'yes' | 'no';
}

interface Props {
  said: Said;
  blade: Blade;
  setting: Setting | undefined;
  seconds: number | undefined; // that a piece took
  onSaid: (part: Partial<Said>) => void;
  onSeconds: (s: number | undefined) => void;
  onLook: (at: 'wall' | 'edge') => void; // read it off a photo
}

export function Grades({ said, blade, setting, seconds, onSaid: set, onSeconds, onLook }: Props) {
  const { units } = usePreferences();
  return (
    <>
      {blade.condition.asked && (
        <Pick
          label={t`Did cleaning ${blade.name} help?`}
          value={said.cameBack}
          choices={[
            ['yes', t`Yes, it cuts well again`],
            ['no', t`No, as before`],
          ]}
          onPick={(cameBack) => set({ cameBack })}
        />
      )}
      <Pick
        label={t`Cut edge`}
        value={said.wall}
        choices={walls}
        onPick={(wall) => set({ wall })}
        aside={<OffPhotoButton of={t`Cut edge`} onClick={() => onLook('wall')} />}
      />
      <Pick
        label={t`Tear-out, ${setting ? wordOf(setting.exit.name) : t`on the exit side`}`}
        value={said.splinters}
        choices={edges}
        onPick={(splinters) => set({ splinters })}
        aside={<OffPhotoButton of={t`The edge`} onClick={() => onLook('edge')} />}
      />
      {setting?.other.matters && (
        <Pick
          label={t`Tear-out, ${wordOf(setting.other.name)}`}
          value={said.other}
          choices={edges.map(([v, name]) => [v, name] as const)}
          onPick={(other) => set({ other })}
        />
      )}
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
        <Pick
          label={t`Effort`}
          value={said.effort}
          choices={Object.entries(effortWords) as [Effort, string][]}
          onPick={(effort) => set({ effort })}
        />
        <Pick
          label={t`Noise`}
          value={said.noise}
          choices={Object.entries(noiseWords) as [Noise, string][]}
          onPick={(noise) => set({ noise })}
        />
      </Box>
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', flexWrap: 'wrap', mt: 0.5 }}>
        <Box sx={{ width: 152 }}>
          <NumberField label={t`Time per piece`} unit="s" value={seconds} onNumber={onSeconds} />
        </Box>
        <Box sx={{ width: 118 }}>
          <NumberField
            label={t`or total`}
            unit={units === 'mm' ? 'm' : 'ft'}
            value={
              said.metres && Math.round((units === 'mm' ? said.metres : said.metres / 0.3048) * 100) / 100
            }
            onNumber={(v) => set({ metres: v && v > 0 ? (units === 'mm' ? v : v * 0.3048) : undefined })}
          />
        </Box>
        <Box
          sx={{ display: 'flex', alignItems: 'center', ml: 'auto' }}
          role="group"
          aria-label={t`Identical pieces`}
        >
          <Button
            variant="outlined"
            sx={step}
            aria-label={t`One piece fewer`}
            disabled={said.pieces <= 1}
            onClick={() => set({ pieces: said.pieces - 1 })}
          >
            −
          </Button>
          <Box sx={{ minWidth: 76, textAlign: 'center' }}>
            <b>{said.pieces}</b> {said.pieces === 1 ? t`piece` : t`alike`}
          </Box>
          <Button
            variant="outlined"
            sx={step}
            aria-label={t`One piece more`}
            disabled={said.pieces >= 9999}
            onClick={() => set({ pieces: said.pieces + 1 })}
          >
            +
          </Button>
        </Box>
      </Box>
    </>
  );
}

const step = { minWidth: 52, minHeight: 52, fontSize: 22, p: 0 };
