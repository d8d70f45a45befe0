/** One blade: its drawing with its numbers on it, its life as a chart, what it wants, and its history by day. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Link, useLocation, useParams } from 'react-router';
import { useCare, useLife } from '../../api/care';
import { useLog } from '../../api/log';
import { useBlade, useSaws } from '../../api/rack';
import type { Blade, Life, Units } from '../../api/types';
import { usePreferences } from '../../ui/preferences';
import { BladeHero } from '../../drawings/BladeHero';
import { LifeChart } from '../../drawings/LifeChart';
import { makeWords, specOf } from '../../drawings/words';
import { keptForWords, retiredWords } from '../../drawings/recordWords';
import { formatRun } from '../../measure/format';
import { Coming } from '../../ui/Arriving';
import { Stands } from '../../ui/Condition';
import { Days } from '../../cut/Days';
import { Notice, Trouble } from '../../ui/Notice';
import { useDates } from '../../ui/useDates';
import { Worded } from '../../ui/Worded';
import { BladeMenu } from '../../ui/BladeMenu';
import { BladeDoings } from './BladeDoings';
import { BladeMeasured } from './BladeMeasured';
import { BladeNumbers } from './BladeNumbers';

export function BladePage() {
  const { id = '' } = useParams();
  const { units } = usePreferences();
  const { search } = useLocation();
  const blade = useBlade(id);
  const saws = useSaws();
  const saw = saws.data?.find((s) => s.id === blade.data?.mounted_on);
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 1.5 }}>
      {!blade.data && (
        <>
          <Typography variant="h1">{t`A blade`}</Typography>
          <Coming of={[blade]} height={160} drawing />
        </>
      )}
      {blade.data && (
        <>
          <Head blade={blade.data} saw={saw?.name} search={search} units={units} />
          <Box
            sx={{
              display: 'grid',
              gridTemplateColumns: { xs: 'minmax(0,1fr)', md: '400px minmax(0,1fr)' },
              columnGap: 4,
              rowGap: 2,
              alignItems: 'start',
            }}
          >
            <Box sx={{ minWidth: 0 }}>
              <BladeHero blade={blade.data} units={units} />
            </Box>
            <LifeOf blade={blade.data} units={units} />
            <Box sx={{ minWidth: 0, display: 'grid', gap: 2 }}>
              <BladeNumbers blade={blade.data} saw={saw?.name} units={units} />
              {blade.data.teeth > 0 && <BladeMeasured blade={blade.data} units={units} />}
              <BladeDoings blade={blade.data} />
            </Box>
            <History id={id} units={units} />
          </Box>
        </>
      )}
    </Box>
  );
}

/** Its name, what it is, how it stands, and what it wants now. */
function Head({
  blade: b,
  saw,
  search,
  units,
}: {
  blade: Blade;
  saw: string | undefined;
  search: string;
  units: Units;
}) {
  const care = useCare().data?.blades.find((c) => c.blade.id === b.id);
  return (
    <Box sx={{ mb: 1 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', columnGap: 2 }}>
        <Typography variant="h1" sx={{ overflowWrap: 'anywhere', minWidth: 0 }}>
          {b.name}
        </Typography>
        <Stands condition={b.condition} />
        <Box sx={{ ml: { md: 'auto' }, display: 'flex', flexWrap: 'wrap', gap: 1, alignItems: 'center' }}>
          {!b.retired && b.teeth > 0 && (
            <Button
              component={Link}
              to={`/care/wash?b=${b.id}`}
              variant={b.condition.state === 'pitchy' ? 'contained' : 'outlined'}
            >
              {t`Clean`}
            </Button>
          )}
          <Button component={Link} to={`/blades/${b.id}/edit${search}`} variant="outlined">{t`Edit`}</Button>
          {care && <BladeMenu care={care} />}
        </Box>
      </Box>
      <Box sx={{ color: 'text.secondary' }}>
        <Worded>
          {[
            b.teeth > 0 ? specOf(b, units) : makeWords[b.make],
            keptForWords[b.kept_for],
            b.nails && t`nail-rated`,
            saw ? t`on ${saw}` : b.hangs,
          ]
            .filter(Boolean)
            .join(' · ')}
        </Worded>
      </Box>
      {b.retired && (
        <Notice kind="caution" sx={{ mt: 1 }}>
          {t`Retired: ${[retiredWords[b.retired.reason] ?? b.retired.reason, b.retired.note].filter(Boolean).join(', ')}. It isn't offered for any cut.`}
        </Notice>
      )}
      {b.note && <Typography sx={{ mt: 0.5, overflowWrap: 'anywhere' }}>{b.note}</Typography>}
    </Box>
  );
}

/** The chart of its life, and what lies ahead in a line. */
function LifeOf({ blade: b, units }: { blade: Blade; units: Units }) {
  const life = useLife(b.id);
  const { day } = useDates();
  if (b.teeth === 0) return <Box />;
  return (
    <Box component="section" aria-labelledby="life" sx={{ minWidth: 0 }}>
      <Typography id="life" variant="h2">{t`Life so far`}</Typography>
      {life.error && !life.data && <Trouble>{life.error.message}</Trouble>}
      {life.data && life.data.points.length < 2 && (
        <Box sx={{ my: 1 }}>{t`No cuts yet. Cuts you log under Run appear here.`}</Box>
      )}
      {life.data && life.data.points.length >= 2 && (
        <Box sx={{ height: { xs: 260, md: 316 } }}>
          <LifeChart life={life.data} units={units} day={day} />
        </Box>
      )}
      {!life.data && !life.error && <Box sx={{ height: { xs: 260, md: 316 } }} />}
      {life.data && <Box sx={{ lineHeight: 1.35 }}>{aheadOf(life.data, units, day)}</Box>}
    </Box>
  );
}

function aheadOf(l: Life, units: Units, day: (at: string) => string): string {
  const out: string[] = [];
  if (l.wash === 'due') out.push(t`Cleaning is due.`);
  else if (l.wash_at) out.push(t`Clean about ${day(l.wash_at.likely)}.`);
  if (l.sharpen === 'due') out.push(t`Sharpening is due.`);
  else if (l.left_m > 0)
    out.push(
      t`Dull after about ${formatRun(l.left_m, units)} more. Two of three blades like it last ${formatRun(l.left_low_m, units)} to ${formatRun(l.left_high_m, units)}.`,
    );
  return out.join(' ');
}

function History({ id, units }: { id: string; units: Units }) {
  const log = useLog({ blade_id: id });
  const rows = log.data?.pages.flatMap((p) => p.items) ?? [];
  return (
    <Box component="section" aria-labelledby="history" sx={{ minWidth: 0 }}>
      <Typography id="history" variant="h2">{t`History`}</Typography>
      {log.error && !log.data && <Trouble>{log.error.message}</Trouble>}
      {log.data && rows.length === 0 && (
        <Typography>{t`Nothing logged yet. Cuts you log under Run appear here.`}</Typography>
      )}
      <Days rows={rows} units={units} />
      {log.hasNextPage && (
        <Button
          variant="outlined"
          sx={{ mt: 2 }}
          disabled={log.isFetchingNextPage}
          onClick={() => void log.fetchNextPage()}
        >
          {log.isFetchingNextPage ? t`Fetching…` : t`Earlier`}
        </Button>
      )}
    </Box>
  );
}
