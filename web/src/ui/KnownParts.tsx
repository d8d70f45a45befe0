/** How thick the parts of a dado set really are, as its test grooves say, drawn with how well that is known. */
import { plural, t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import type { DadoSet, Units } from '../api/types';
import { formatDial, formatThin } from '../measure/format';
import { ink } from '../drawings/ink';

/** The drawn range either way of what is stamped, in millimetres. */
const REACH = 0.12;

interface Props {
  set: DadoSet;
  units: Units;
  linked?: boolean; // with the way to its record
}

export function KnownParts({ set, units, linked = false }: Props) {
  return (
    <Box component="section" aria-labelledby="known">
      <Typography id="known" variant="h3" component="h2">{t`Real thickness of its parts`}</Typography>
      <Box sx={{ fontSize: 14.5, color: 'text.secondary', mb: 0.5 }}>
        {set.tests === 0
          ? t`No test groove yet, so the stamped size is used.`
          : t`From ${plural(set.tests, { one: '# test groove', other: '# test grooves' })} in the log.`}{' '}
        {linked && <Link to={`/blades/${set.blade_id}/set`}>{t`Its parts`}</Link>}
      </Box>
      <Box component="table" sx={{ borderCollapse: 'collapse', fontSize: 15, width: '100%', maxWidth: 560 }}>
        <thead>
          <Box component="tr" sx={{ textAlign: 'left', fontSize: 13.5, color: 'text.secondary' }}>
            <th>{t`Part`}</th>
            <th>{t`Measured`}</th>
            <th>{t`Difference from stamped`}</th>
            <th>{t`Tests`}</th>
          </Box>
        </thead>
        <tbody>
          {set.known.map((k) => {
            const off = k.held_mm - k.stamped_mm;
            const at = (v: number) => 80 + (Math.max(-REACH, Math.min(REACH, v)) / REACH) * 76;
            return (
              <Box
                component="tr"
                key={k.what + k.stamped_mm}
                sx={{ borderTop: '1px solid', borderColor: 'divider' }}
              >
                <td>
                  {k.what} {formatThin(k.stamped_mm, units)}
                </td>
                <td>
                  <b>{formatThin(k.held_mm, units)}</b>
                </td>
                <td>
                  <svg
                    width={160}
                    height={22}
                    role="img"
                    aria-label={t`${formatThin(Math.abs(off), units)} ${off < 0 ? t`under` : t`over`} ± ${formatDial(k.sd_mm, units)}`}
                    style={{ display: 'block' }}
                  >
                    <path d="M80 3v16" stroke={ink.hair} />
                    <path
                      d={`M${at(off - k.sd_mm)} 11H${at(off + k.sd_mm)}`}
                      stroke={ink.hair}
                      strokeWidth={5}
                    />
                    <circle cx={at(off)} cy={11} r={4} fill={ink.ink} />
                  </svg>
                </td>
                <td>{k.tests}</td>
              </Box>
            );
          })}
        </tbody>
      </Box>
    </Box>
  );
}
