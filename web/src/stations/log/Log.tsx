/** Log: a season at a glance, which filters the rows beneath it; the rows by day; files out and in. */
import { wordOf } from '../../drawings/codeWords';
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Chip from '@mui/material/Chip';
import Typography from '@mui/material/Typography';
import { useLog, useSeason } from '../../api/log';
import { useBlades, useSaws } from '../../api/rack';
import { useMaterials } from '../../api/shop';
import type { Finish, LogFilter, LogKind } from '../../api/types';
import { useAddress } from '../../ui/address';
import { usePhone } from '../../ui/phone';
import { usePreferences } from '../../ui/preferences';
import { Days } from '../../cut/Days';
import { SelectField } from '../../ui/Fields';
import { FirstThings } from '../../ui/FirstThings';
import { Trouble } from '../../ui/Notice';
import { Outline } from '../../ui/Outline';
import { useDates } from '../../ui/useDates';
import { FileOut, OldRecords } from './Files';
import { Season, seasonTall } from './Season';

const kinds: [string, string, LogKind[]][] = [
  ['', t`everything`, []],
  ['cuts', t`cuts`, ['cut']],
  ['care', t`cleaned, sharpened, sent out`, ['washed', 'sharpened', 'returned', 'sent']],
  ['said', t`notes and inspections`, ['judged', 'inspected', 'noted']],
  ['mounted', t`mounted and taken off`, ['mounted', 'dismounted']],
  ['true', t`measured`, ['heel', 'fence', 'runout', 'tilt', 'gauge', 'clearance', 'moved']],
  ['compared', t`compared and diagnosed`, ['compared', 'traced']],
  ['grooved', t`grooves`, ['grooved', 'renewed']],
  ['struck', t`deleted`, ['struck']],
];

/** What of the log is looked at stands in the address, so that a link leads to it and a reload keeps it. */
type Name = 'show' | 'on' | 'blade' | 'material' | 'finish' | 'from' | 'until';

export function Log() {
  const { units } = usePreferences();
  const phone = usePhone();
  const saws = useSaws();
  const rack = useBlades();
  const materials = useMaterials().data;
  const { date } = useDates();
  const [params, change] = useAddress();
  const get = (n: Name) => params.get(n) ?? '';
  const set = (part: Partial<Record<Name, string>>) =>
    change((now) => {
      for (const [n, v] of Object.entries(part)) {
        if (v) now.set(n, v);
        else now.delete(n);
      }
    });
  const chosen = kinds.find(([k]) => k === get('show'))?.[2] ?? [];
  const filter: LogFilter = {
    kind: chosen.length > 0 ? chosen : undefined,
    saw_id: get('on') || undefined,
    blade_id: get('blade') || undefined,
    material: get('material') || undefined,
    finish: (get('finish') || undefined) as Finish | undefined,
    from_day: get('from') || undefined,
    until_day: get('until') || undefined,
    limit: 50,
  };
  const season = useSeason(phone ? 91 : 182);
  const log = useLog(filter);
  const rows = log.data?.pages.flatMap((p) => p.items) ?? [];
  const bladeName = rack.data?.find((b) => b.id === get('blade'))?.name;
  const days = () => {
    if (get('from') === get('until')) return date(get('from'));
    return t`${get('from') ? date(get('from')) : t`the start`} to ${get('until') ? date(get('until')) : t`today`}`;
  };
  // What narrows the rows beside the three fields, and what takes it off again.
  const chips: [string, Parameters<typeof set>[0]][] = [];
  if (get('from') || get('until')) chips.push([days(), { from: '', until: '' }]);
  if (get('material'))
    chips.push([materials?.find((m) => m.id === get('material'))?.name ?? get('material'), { material: '' }]);
  if (get('finish')) chips.push([t`${wordOf(get('finish') ?? undefined)} faces`, { finish: '' }]);
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 1.5 }}>
      <Typography variant="h1">{t`Log`}</Typography>
      {season.data ? (
        <Season
          season={season.data}
          weeks={phone ? 13 : 26}
          phone={phone}
          blade={get('blade')}
          from={get('from')}
          until={get('until')}
          onBlade={(blade) => set({ blade: blade === get('blade') ? '' : blade })}
          onDays={(from, until) => set({ from, until })}
          onMaterial={(material) => set({ material })}
          onFinish={(finish) => set({ finish })}
        />
      ) : season.error ? (
        <Trouble onAgain={() => void season.refetch()}>{season.error.message}</Trouble>
      ) : (
        <Outline rows={1} height={seasonTall(phone)} />
      )}
      <Box
        sx={{
          display: 'grid',
          gap: 1.5,
          gridTemplateColumns: { xs: '1fr 1fr', md: 'repeat(3, 200px) minmax(0, 1fr)' },
          mt: 2,
          mb: 1,
          alignItems: 'center',
        }}
      >
        <Box sx={{ gridColumn: { xs: '1 / -1', md: 'auto' } }}>
          <SelectField
            label={t`Show`}
            value={get('show')}
            choices={kinds.map(([k, name]) => [k, name] as const)}
            onChoose={(show) => set({ show })}
          />
        </Box>
        <SelectField
          label={t`Saw`}
          value={saws.data ? get('on') : ''}
          choices={[['', t`any`] as const, ...(saws.data ?? []).map((s) => [s.id, s.name] as const)]}
          onChoose={(on) => set({ on })}
        />
        <SelectField
          label={t`Blade`}
          value={bladeName === undefined ? '' : get('blade')}
          choices={[['', t`any`] as const, ...(rack.data ?? []).map((b) => [b.id, b.name] as const)]}
          onChoose={(blade) => set({ blade })}
        />
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, gridColumn: { xs: '1 / -1', md: 'auto' } }}>
          {chips.map(([name, without]) => (
            <Chip
              key={name}
              label={name}
              variant="outlined"
              onDelete={() => set(without)}
              onClick={() => set(without)}
              aria-label={t`Only ${name}. Remove filter`}
              sx={{ height: { xs: 44, md: 36 }, fontSize: 15 }}
            />
          ))}
        </Box>
      </Box>
      {log.error && !log.data && <Trouble>{log.error.message}</Trouble>}
      {!log.data && !log.error && <Outline rows={6} height={44} />}
      {log.data &&
        rows.length === 0 &&
        (saws.data?.length === 0 ? (
          <FirstThings missing="saw" />
        ) : (
          <Box sx={{ my: 2 }}>{t`No entries match. Cuts you log under Run appear here.`}</Box>
        ))}
      <Typography variant="h2" sx={{ position: 'absolute', clipPath: 'inset(50%)' }}>{t`Rows`}</Typography>
      <Days rows={rows} units={units} named />
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
      <Box sx={{ display: 'grid', gridTemplateColumns: { md: '1fr 1fr' }, gap: 4, mt: 4 }}>
        <FileOut filter={filter} />
        <OldRecords />
      </Box>
    </Box>
  );
}
