/** A drill: a task, an answer, what it was worth, and the next. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Link as RouterLink, useParams } from 'react-router';
import type { DrillName } from '../../api/types';
import { Nowhere } from '../../ui/Broken';
import { Arriving } from '../../ui/Arriving';
import { Segments } from '../../ui/Segments';
import { Notice, Trouble } from '../../ui/Notice';
import { Choosing } from './Choosing';
import { FeedIt } from './FeedIt';
import { Numbering } from './Numbering';
import { ReadWall } from './ReadWall';
import { Supports } from './Supports';
import { useTask, type Taking } from './useTask';
import { Verdict } from './Verdict';
import { drillNames } from './names';

export function DrillPage() {
  const { drill } = useParams();
  const name = drillNames[drill as DrillName];
  return name ? <Drill key={drill} drill={drill as DrillName} title={name} /> : <Nowhere />;
}

function Drill({ drill, title }: { drill: DrillName; title: string }) {
  const at = useTask(drill);
  const { data: task } = at.task;
  if (!task) return <Arriving title={title} of={[at.task]} rows={2} drawing />;
  const told = at.answer.data;
  const taking: Taking = {
    task,
    onAnswer: (given) => at.give(task, given),
    busy: at.answer.isPending,
    told,
  };
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 1.5 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'baseline', columnGap: 2 }}>
        <Typography variant="h1">{title}</Typography>
        <Box sx={{ color: 'text.secondary' }}>
          {/* what is trained would say what is wrong */}
          {task.plan && !told ? t`level ${task.level} of 3` : t`${task.skill_name}, level ${task.level} of 3`}
        </Box>
      </Box>
      <Box sx={{ fontSize: 19, lineHeight: 1.35, maxWidth: 820, my: 1 }}>{task.ask}</Box>
      {drill === 'which' && (
        <Box sx={{ mb: 1.5, display: 'flex' }}>
          <Segments
            label={t`Use blades from`}
            value={at.rack ? 'rack' : 'usual'}
            choices={[
              { value: 'usual', name: t`Usual blades` },
              { value: 'rack', name: t`This shop's rack` },
            ]}
            onChoose={(v) => at.useRack(v === 'rack')}
          />
        </Box>
      )}
      <Part key={`${task.skill} ${task.number} ${task.level}`} {...taking} onAgain={at.again} />
      {at.answer.error && <Trouble sx={{ mt: 2 }}>{at.answer.error.message}</Trouble>}
      {told && (
        <Box aria-live="polite" sx={{ mt: 2 }}>
          <Verdict task={task} told={told} />
        </Box>
      )}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5, mt: 2 }}>
        <Button variant={told ? 'contained' : 'outlined'} onClick={at.next}>
          {told ? t`Next question` : t`Skip`}
        </Button>
        {told && <Button variant="outlined" onClick={at.again}>{t`Repeat`}</Button>}
        <Button component={RouterLink} to="/practice">{t`All drills`}</Button>
      </Box>
      <Notice kind="caution" sx={{ mt: 2 }}>
        {t`A drill teaches what to look for. It doesn't replace training at a real saw.`}
      </Notice>
    </Box>
  );
}

function Part(p: Taking & { onAgain: () => void }) {
  const { task } = p;
  if (task.feed) return <FeedIt {...p} board={task.feed} />;
  if (task.board) return <Supports {...p} board={task.board} />;
  if (task.fault) return <ReadWall {...p} fault={task.fault} />;
  if (task.unit) return <Numbering {...p} />;
  return <Choosing {...p} />;
}
