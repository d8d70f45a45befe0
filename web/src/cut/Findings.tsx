/** What stands against a cut on a saw, whatever blade is on it: the rule, and the way out. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { Finding } from '../api/types';
import { Verdict } from '../ui/Verdict';
import { Worded } from '../ui/Worded';
import type { Answers } from './cut';

interface Props {
  findings: Finding[];
  onYes?: (answers: Answers) => void; // to a question
}

/** What a yes answers, by the rule that asks. */
const yes: Partial<Record<Finding['rule'], [Answers, string]>> = {
  fires: [{ brake_off: true }, t`Yes`],
  'sign-off': [{ stood_by: true }, t`Yes`],
};

export function Findings({ findings, onYes }: Props) {
  if (findings.length === 0) return null;
  return (
    <Box
      component="ul"
      aria-label={t`What speaks against this cut`}
      sx={{ listStyle: 'none', m: 0, p: 0, display: 'grid', gap: 0.5, fontSize: 15, lineHeight: 1.3 }}
    >
      {findings.map((f) => (
        <Box component="li" key={f.rule} sx={{ display: 'flex', gap: 1, alignItems: 'baseline' }}>
          <Verdict verdict={f.verdict} size={14} />
          <Box>
            <Worded>{f.why}</Worded>{' '}
            <b>
              <Worded>{f.way_out}</Worded>
            </b>
            {f.ask && onYes && yes[f.rule] && (
              <>
                {' '}
                {f.ask}{' '}
                <Button
                  size="small"
                  variant="outlined"
                  sx={{ minHeight: { xs: 44, md: 28 }, py: 0 }}
                  onClick={() => onYes(yes[f.rule]![0])}
                >
                  {yes[f.rule]![1]}
                </Button>
              </>
            )}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
