/** How a blade stands: edge used up and pitch gathered, as two drawn measures with their word. */
import { fixed } from '../measure/format';
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import { stateWords } from '../drawings/recordWords';
import type { Blade } from '../api/types';
import { ink } from '../drawings/ink';
import { Verdict } from './Verdict';
import { Worded } from './Worded';

interface Props {
  condition: Blade['condition'];
  bare?: boolean; // the two measures alone
}

export function Condition({ condition: c, bare = false }: Props) {
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: 'auto 1fr',
        columnGap: 1,
        rowGap: 0.25,
        alignItems: 'center',
        fontSize: 14,
      }}
    >
      <Box sx={{ color: 'text.secondary' }}>{t`edge`}</Box>
      <Measure
        share={c.wear_share}
        name={t`Edge ${Math.round(100 * Math.min(9.99, c.wear_share))} % used up`}
        colour={ink.ink}
      />
      <Box sx={{ color: 'text.secondary' }}>{t`resin`}</Box>
      <Measure
        share={c.pitch_level / 3}
        name={t`Resin level ${fixed(c.pitch_level, 1)} of 3`}
        colour={ink.scorch}
      />
      {!bare && (
        <Box sx={{ gridColumn: '1 / -1', mt: 0.25 }}>
          <Stands condition={c} />
        </Box>
      )}
    </Box>
  );
}

/** In a word how it stands, and what it wants. */
export function Stands({ condition: c }: { condition: Blade['condition'] }) {
  return (
    <Box sx={{ display: 'flex', gap: 1, alignItems: 'baseline' }}>
      {c.verdict === 'clear' ? <span>{stateWords[c.state]}</span> : <Verdict verdict={c.verdict} size={13} />}
      {c.verdict !== 'clear' && (
        <span>
          <Worded>{wants(c)}</Worded>
        </span>
      )}
    </Box>
  );
}

function wants(c: Blade['condition']) {
  switch (c.state) {
    case 'unfit':
      return c.unfit ? t`${c.unfit}: don't use` : t`It hit something. Inspect it before you use it`;
    case 'away':
      return t`away for sharpening`;
    case 'dull':
      return t`dull: sharpen it`;
    default:
      return t`resin buildup: clean it`;
  }
}

function Measure({ share, name, colour }: { share: number; name: string; colour: string }) {
  return (
    <Box role="img" aria-label={name} sx={{ height: 8, border: '1px solid', borderColor: 'drawing.hair' }}>
      <Box sx={{ height: '100%', width: `${100 * Math.min(1, share)}%` }} style={{ background: colour }} />
    </Box>
  );
}
