/** What an answer was worth, and why. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import type { DrillTask, DrillVerdict } from '../../api/types';
import { usePreferences } from '../../ui/preferences';
import { trim } from '../../measure/format';
import { secondsAt } from '../../ui/feed';
import { Notice } from '../../ui/Notice';
import { useDates } from '../../ui/useDates';
import { Verdict as Mark } from '../../ui/Verdict';
import { Worded } from '../../ui/Worded';

export function Verdict({ task, told }: { task: DrillTask; told: DrillVerdict }) {
  const { units } = usePreferences();
  const { day } = useDates();
  const right = task.choices.find((c) => c.key === told.truth);
  const name = right && (right.text ?? (/^\d+$/.test(right.key) ? t`tooth ${right.key}` : right.key));
  const seconds = (feed: number) => trim(secondsAt(feed, units), 1);
  return (
    <>
      <Notice kind={told.right ? 'done' : 'said'}>
        <Box sx={{ fontSize: 18, fontWeight: 700 }}>
          {told.right ? t`Right.` : name ? t`Not quite. It's ${name}` : t`Not yet.`}
        </Box>
        {told.says.map((s) => (
          <Box key={s} sx={{ mt: 0.5 }}>
            <Worded>{s}</Worded>
          </Box>
        ))}
      </Notice>
      {told.told.length > 0 && (
        <Box component="ul" sx={{ listStyle: 'none', m: 0, mt: 2, p: 0, display: 'grid', gap: 1 }}>
          {told.told.map((o) => (
            <Box component="li" key={o.key} sx={{ display: 'flex', gap: 1.5, alignItems: 'baseline' }}>
              <Box sx={{ fontWeight: 700, width: 24 }}>{o.key}</Box>
              <Mark verdict={o.verdict} />
              <Box sx={{ flex: 1 }}>
                {o.slowest_m_min !== undefined &&
                  o.fastest_m_min !== undefined &&
                  o.slowest_m_min < o.fastest_m_min && (
                    <Box component="span" sx={{ fontWeight: 600, mr: 1 }}>
                      {units === 'mm'
                        ? t`${seconds(o.slowest_m_min)} to ${seconds(o.fastest_m_min)} s for 300 mm`
                        : t`${seconds(o.slowest_m_min)} to ${seconds(o.fastest_m_min)} s for a foot`}
                    </Box>
                  )}
                <Worded>{o.says.join('; ')}</Worded>
              </Box>
            </Box>
          ))}
        </Box>
      )}
      {told.next_at && (
        <Box sx={{ color: 'text.secondary', mt: 1 }}>
          {told.right
            ? t`You'll see this again from ${day(told.next_at)}.`
            : t`You'll see it again right away.`}
        </Box>
      )}
    </>
  );
}
