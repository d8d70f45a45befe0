/** A piece that came out wrong: what is seen, what is asked, what is checked, and at last the reason. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { DrillFault } from '../../api/types';
import { SignSample } from '../../drawings/SignSample';
import { trim } from '../../measure/format';
import { saidMinutes } from '../../ui/feed';
import { Worded } from '../../ui/Worded';
import type { Taking } from './useTask';

export function ReadWall({ task, fault, told, busy, onAnswer }: Taking & { fault: DrillFault }) {
  const [asked, setAsked] = useState(false);
  const [made, setMade] = useState<string[]>([]);
  const done = told !== undefined || busy;
  const toAsk = fault.signs.filter((s) => s.asked);
  const minutes = fault.checks.filter((c) => made.includes(c.id)).reduce((sum, c) => sum + c.minutes, 0);
  return (
    <Box
      sx={{
        display: 'grid',
        gap: 3,
        gridTemplateColumns: { xs: '1fr', md: 'repeat(3, minmax(0, 1fr))' },
        alignItems: 'start',
      }}
    >
      <Box>
        <Typography variant="h2">{t`Look and ask`}</Typography>
        <Box component="ul" sx={{ listStyle: 'none', p: 0, my: 1, fontSize: 17, display: 'grid', gap: 1 }}>
          {fault.signs
            .filter((s) => asked || !s.asked)
            .map((s) => (
              <Box component="li" key={s.id} sx={{ display: 'flex', alignItems: 'center', gap: 1.5 }}>
                <Box sx={{ width: 84, flex: 'none' }}>
                  <SignSample id={s.id} />
                </Box>
                <span>
                  <Worded>{s.text}</Worded>
                </span>
              </Box>
            ))}
        </Box>
        {toAsk.length > 0 && !asked && (
          <Button variant="outlined" onClick={() => setAsked(true)}>{t`Ask the person who made it`}</Button>
        )}
        <Box sx={{ color: 'text.secondary', mt: 1.5 }}>
          <Worded>{t`From the records: edge ${trim(fault.sharpness, 1)} (1 is sharp, 2.5 dull), resin ${trim(fault.pitch_level, 1)} of 3.`}</Worded>
        </Box>
      </Box>
      <Box>
        <Typography variant="h2">{t`Check`}</Typography>
        <Box role="status" sx={{ my: 1, fontSize: 17 }}>
          {made.length === 0 ? t`Nothing yet` : t`${saidMinutes(minutes)} so far`}
        </Box>
        <Box sx={{ display: 'grid', gap: 1 }}>
          {fault.checks.map((c) =>
            made.includes(c.id) ? (
              <Box
                key={c.id}
                sx={{
                  borderLeft: '4px solid',
                  borderColor: c.found ? 'primary.main' : 'drawing.hair',
                  pl: 1.25,
                  py: 0.5,
                }}
              >
                <Box sx={{ fontWeight: 600 }}>{c.text}</Box>
                {c.found ? t`Found it, or it got better.` : t`Nothing found, or no better.`}
              </Box>
            ) : (
              <Button
                key={c.id}
                variant="outlined"
                disabled={done}
                onClick={() => setMade([...made, c.id])}
                sx={{ justifyContent: 'space-between', textAlign: 'left', gap: 1 }}
              >
                <span>{c.text}</span>
                <Box component="span" sx={{ whiteSpace: 'nowrap', color: 'text.secondary' }}>
                  {saidMinutes(c.minutes)}
                </Box>
              </Button>
            ),
          )}
        </Box>
      </Box>
      <Box>
        <Typography variant="h2">{t`Name the cause`}</Typography>
        <Box role="group" aria-label={t`Your answer`} sx={{ display: 'grid', gap: 1, mt: 1 }}>
          {task.choices.map((c) => (
            <Button
              key={c.key}
              variant="outlined"
              disabled={done}
              onClick={() => onAnswer({ choice: c.key, checks: made })}
              sx={{
                justifyContent: 'flex-start',
                textAlign: 'left',
                '&.Mui-disabled': { color: 'text.primary' },
                ...(told?.truth === c.key && { borderWidth: 3, borderColor: 'primary.main' }),
              }}
            >
              {c.text}
            </Button>
          ))}
        </Box>
      </Box>
    </Box>
  );
}
