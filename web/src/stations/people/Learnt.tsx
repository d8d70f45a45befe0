/** How people stand with the drills of Learn, and which ones are asked for before somebody is signed off. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import Typography from '@mui/material/Typography';
import type { DrillName, DrillStanding, Member } from '../../api/types';
import { Skills } from '../../ui/Skills';

interface Props {
  members: Member[]; // of whom somebody may see it
  asked: DrillName[];
  onAsk?: (drills: DrillName[]) => void; // left out for who may not
}

export function Learnt({ members, asked, onAsk }: Props) {
  const seen = members.filter((m) => m.drills);
  const drills = seen[0]?.drills;
  if (!drills) return null;
  const toggle = (d: DrillName) => onAsk?.(asked.includes(d) ? asked.filter((x) => x !== d) : [...asked, d]);
  return (
    <Box sx={{ mt: 3 }}>
      <Typography id="learnt" variant="h2">{t`Practice results`}</Typography>
      <Box sx={{ overflowX: 'auto' }} tabIndex={0} role="region" aria-labelledby="learnt">
        <Box
          component="table"
          sx={{
            borderCollapse: 'collapse',
            mt: 1,
            '& th, & td': { textAlign: 'left', px: 1, py: 0.75, verticalAlign: 'bottom' },
          }}
        >
          <thead>
            <tr>
              <td />
              {drills.map((d) => (
                <Box
                  component="th"
                  scope="col"
                  key={d.drill}
                  sx={{ fontSize: 14.5, minWidth: 84, lineHeight: 1.2 }}
                >
                  {d.name}
                </Box>
              ))}
            </tr>
          </thead>
          <tbody>
            {seen.map((m) => (
              <Box component="tr" key={m.id} sx={{ borderTop: '1px solid', borderColor: 'divider' }}>
                <Box component="th" scope="row" sx={{ fontWeight: 600 }}>
                  {m.name}
                </Box>
                {m.drills?.map((d) => (
                  <td key={d.drill}>
                    <Stand of={d} />
                  </td>
                ))}
              </Box>
            ))}
            {onAsk && (
              <Box component="tr" sx={{ borderTop: '2px solid', borderColor: 'text.primary' }}>
                <Box component="th" scope="row" sx={{ fontSize: 14.5, maxWidth: 180, fontWeight: 400 }}>
                  {t`Required before sign-off`}
                </Box>
                {drills.map((d) => (
                  <td key={d.drill}>
                    <ButtonBase
                      role="checkbox"
                      aria-checked={asked.includes(d.drill)}
                      aria-label={t`Require ${d.name}`}
                      onClick={() => toggle(d.drill)}
                      sx={{
                        width: 44,
                        height: 44,
                        border: '1.5px solid',
                        borderColor: 'text.primary',
                        fontSize: 22,
                        fontWeight: 700,
                      }}
                    >
                      {asked.includes(d.drill) ? '✓' : ''}
                    </ButtonBase>
                  </td>
                ))}
              </Box>
            )}
          </tbody>
        </Box>
      </Box>
    </Box>
  );
}

const Stand = ({ of: d }: { of: DrillStanding }) => (
  <Box role="img" aria-label={d.passed ? t`passed` : t`${d.known} of ${d.skills}`}>
    <Skills known={d.known} of={d.skills} small />
  </Box>
);
