/** Two or three blades or settings of one cut in one table, which a link carries along. */
import { wordOf } from '../../drawings/codeWords';
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState, type ReactNode } from 'react';
import { useComparison } from '../../api/choose';
import type { Blade, Compared, Cut, Face, Pin, Setting, Units } from '../../api/types';
import { cutFace } from '../../drawings/theme';
import { supportWords } from '../../drawings/words';
import { formatSetting, formatThin, percent, trim } from '../../measure/format';
import { saidMinutes, saidSeconds, type Stretch } from '../../ui/feed';
import { FeedWindow } from '../../ui/FeedWindow';
import { Verdict } from '../../ui/Verdict';
import { burn } from './Figures';
import { Trouble } from '../../ui/Notice';

interface Props {
  cut: Cut;
  stretch: Stretch;
  pins: Pin[];
  blades: Map<string, Blade>;
  units: Units;
  onUnpin: (p: Pin) => void;
}

const face = (f: Face) => (f.matters ? percent(f.of_limit) : t`doesn't matter`);

export function Compare({ cut, stretch, pins, blades, units, onUnpin }: Props) {
  const compared = useComparison(cut, pins, units);
  const [copied, setCopied] = useState(false);
  const items = compared.data ?? [];
  const rows: [string, (s: Setting, c: Compared) => ReactNode][] = [
    [t`Height or depth`, (s) => (s.height_mm > 0 ? formatSetting(s.height_mm, units) : t`a chop`)],
    [t`Feed`, (s) => t`${saidSeconds(s, units)} for ${stretch.name}`],
    [t`All pieces`, (s) => saidMinutes(s.minutes.all)],
    [t`Feed range`, (s) => `${wordOf(s.window.grade)}, ${trim(s.window.room, 1)}`],
    [t`Motor load`, (s) => percent(s.load)],
    [
      t`Tooth marks`,
      (s) =>
        s.wall_limit_mm
          ? t`${formatThin(s.wall_mark_mm, units)} of ${formatThin(s.wall_limit_mm, units)}`
          : t`not worked out`,
    ],
    [t`Burn risk`, (s) => burn(s.burn)],
    [
      t`Exit face`,
      (s, c) => `${wordOf(s.exit.name)}, ${supportWords[c.cut.exit_support ?? 'open']}: ${face(s.exit)}`,
    ],
    [
      t`End`,
      (s, c) => `${wordOf(s.other.name)}, ${supportWords[c.cut.other_support ?? 'open']}: ${face(s.other)}`,
    ],
    [t`Arc, teeth in`, (s) => `${formatSetting(s.arc_mm, units)}, ${trim(s.teeth_in_cut, 1)}`],
  ];
  return (
    <Box sx={{ py: 1, overflowX: 'auto' }}>
      {compared.error && <Trouble>{compared.error.message}</Trouble>}
      <Box
        component="table"
        aria-label={t`Compared settings`}
        sx={{
          borderCollapse: 'collapse',
          width: '100%',
          fontSize: 15,
          '& th': { textAlign: 'left', fontWeight: 500, color: 'text.secondary', pr: 1.5 },
          '& th, & td': { py: 0.4, borderTop: '1px solid', borderColor: 'divider', verticalAlign: 'top' },
          '& td': { pr: 2, fontWeight: 600, minWidth: 130 },
        }}
      >
        <thead>
          <tr>
            <td />
            {items.map((c, i) => (
              <Box component="th" scope="col" key={i} sx={{ color: 'text.primary !important' }}>
                <Box sx={{ fontFamily: cutFace, fontSize: 19, fontWeight: 640 }}>
                  {blades.get(c.blade_id)?.name ?? t`a deleted blade`}
                </Box>
                <Button
                  size="small"
                  sx={{ minHeight: { xs: 44, md: 28 }, p: 0, minWidth: 0 }}
                  aria-label={t`Unpin ${blades.get(c.blade_id)?.name ?? ''} ${i + 1}`}
                  disabled={compared.isPlaceholderData} // what is shown is of other pins then
                  onClick={() => onUnpin(pins[i]!)}
                >
                  {t`unpin`}
                </Button>
              </Box>
            ))}
          </tr>
        </thead>
        <tbody>
          <tr>
            <th scope="row">{t`Feed range`}</th>
            {items.map((c, i) => (
              <td key={i}>
                {c.setting ? (
                  <FeedWindow setting={c.setting} stretch={stretch} />
                ) : (
                  <Verdict verdict="stop" />
                )}
              </td>
            ))}
          </tr>
          {items.some((c) => c.refused) && (
            <tr>
              <th scope="row">{t`Refused`}</th>
              {items.map((c, i) => (
                <td key={i}>{c.refused}</td>
              ))}
            </tr>
          )}
          {rows.map(([name, value]) => (
            <tr key={name}>
              <th scope="row">{name}</th>
              {items.map((c, i) => (
                <td key={i}>{c.setting && value(c.setting, c)}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </Box>
      <Button
        variant="outlined"
        size="small"
        sx={{ mt: 1 }}
        onClick={() => {
          void navigator.clipboard.writeText(location.href).then(() => setCopied(true));
        }}
      >
        {copied ? t`Link copied` : t`Copy link to this table`}
      </Button>
    </Box>
  );
}
