/** One blade: its drawing, its numbers, how it stands, and everything it has done. */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Link, useLocation, useParams } from 'react-router';
import { useLog } from '../../api/log';
import { useBlade, useRestoreBlade, useRetireBlade, useSaws, useSetPhoto } from '../../api/rack';
import { useTruings } from '../../api/truing';
import type { Blade, Units } from '../../api/types';
import { usePreferences } from '../../app/preferences';
import { BladeFace } from '../../drawings/BladeFace';
import { HistoryChart } from '../../drawings/HistoryChart';
import { coatingWords, grindWords, makeWords, retiredWords, keptForWords, upper } from '../../drawings/words';
import { formatFigure, formatLength, formatRun, formatThin, trim } from '../../measure/format';
import { Entry } from '../../ui/Entry';
import { Condition } from '../../ui/Condition';
import { FileButton } from '../../ui/FileButton';
import { Verdict } from '../../ui/Verdict';
import { testWords } from '../truing/tests';
import { Mend } from '../care/Mend';
import { Retire } from './Retire';
import { Notice, Trouble } from '../../ui/Notice';

export function BladePage() {
  const { id = '' } = useParams();
  const { units } = usePreferences();
  const { search } = useLocation();
  const blade = useBlade(id);
  const log = useLog({ blade_id: id });
  const saws = useSaws();
  const rows = log.data?.pages.flatMap((p) => p.items) ?? [];
  const saw = saws.data?.find((s) => s.id === blade.data?.mounted_on);
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 2 }}>
      <Button component={Link} to={`/rack${search}`} size="small" sx={{ ml: -0.75 }}>
        ‹ Rack
      </Button>
      {blade.error && <Trouble sx={{ my: 2 }}>{blade.error.message}</Trouble>}
      {blade.data && (
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: { xs: 'minmax(0,1fr)', md: '360px minmax(0,1fr)' },
            columnGap: 5,
            rowGap: 3,
            alignItems: 'start',
          }}
        >
          <Box sx={{ minWidth: 0 }}>
            <About blade={blade.data} saw={saw?.name} units={units} />
            <Doings blade={blade.data} search={search} />
            {blade.data.teeth > 0 && <Measured blade={blade.data} units={units} />}
          </Box>
          <Box component="section" aria-labelledby="history" sx={{ minWidth: 0 }}>
            <Typography id="history" variant="h2" sx={{ mb: 1 }}>
              History
            </Typography>
            {log.error && <Trouble>{log.error.message}</Trouble>}
            {log.data && rows.length === 0 && (
              <Typography>Nothing logged yet. A cut made under Run writes the first line.</Typography>
            )}
            <Box component="ol" sx={{ listStyle: 'none', m: 0, p: 0 }}>
              {rows.map((e) => (
                <Entry key={e.id} entry={e} units={units} strike />
              ))}
            </Box>
            {log.hasNextPage && (
              <Button
                variant="outlined"
                sx={{ mt: 2 }}
                disabled={log.isFetchingNextPage}
                onClick={() => void log.fetchNextPage()}
              >
                {log.isFetchingNextPage ? 'Fetching…' : 'Earlier'}
              </Button>
            )}
          </Box>
        </Box>
      )}
    </Box>
  );
}

function About({ blade: b, saw, units }: { blade: Blade; saw: string | undefined; units: Units }) {
  const c = b.condition;
  const rows: [string, string | undefined][] = [
    ['What', makeWords[b.make]],
    ['Diameter', formatLength(b.diameter_mm, units)],
    ['Bore', formatLength(b.bore_mm, units)],
    ['Teeth', b.teeth ? `${b.teeth}, ${formatLength(b.pitch_mm, units)} apart` : 'none'],
    ['Grind', b.grind && grindWords[b.grind] + (b.group ? `, groups of ${b.group}` : '')],
    ['Hook', b.grind && (b.hook_known ? `${trim(b.hook_deg, 1)}°` : 'not read')],
    ['Top bevel', b.bevel_deg ? `${trim(b.bevel_deg, 1)}°` : undefined],
    ['Kerf', formatThin(b.kerf_mm, units)],
    ['Plate', b.plate_mm ? formatThin(b.plate_mm, units) : 'not measured'],
    ['Side clearance', b.side_clearance_mm ? `${formatThin(b.side_clearance_mm, units)} a side` : undefined],
    ['Gullets', b.teeth ? `${formatLength(b.gullet_depth_mm, units)} deep` : undefined],
    [
      'Groove bottom',
      b.teeth
        ? b.groove.ridge_mm > 0.01
          ? `leaves ${formatThin(b.groove.ridge_mm, units)} standing`
          : 'flat'
        : undefined,
    ],
    ['Speed limit', b.max_rpm ? `${trim(b.max_rpm, 0)} rpm` : 'not noted: read it off the plate'],
    ['Coating', b.coating === 'none' ? undefined : coatingWords[b.coating]],
    ...b.features.map((f): [string, string] => [upper(f.name), f.why]),
    ['Body slots', b.slots ? String(b.slots) : undefined],
    ['Carbide left', b.carbide_mm ? formatThin(b.carbide_mm, units) : undefined],
    ['Price', b.price ? trim(b.price, 2) : undefined],
    ['Kept for', keptForWords[b.kept_for] + (b.nails ? ', nail-rated' : '')],
    ['Hangs', saw ? `on ${saw}` : b.hangs || 'not said'],
    ['Cut so far', `${formatRun(c.metres, units)} in ${c.cuts} log lines`],
    ['Since washing', formatRun(c.metres_since_wash, units)],
    [
      'Since sharpening',
      `${formatRun(c.metres_since_sharpening, units)}, sharpened ${times(c.sharpenings + b.sharpened_before)}`,
    ],
  ];
  return (
    <Box component="section" aria-label="The blade" sx={{ minWidth: 0 }}>
      <Typography variant="h1" sx={{ overflowWrap: 'anywhere' }}>
        {b.name}
      </Typography>
      <Box
        sx={{ display: 'grid', placeItems: 'center', my: 1.5, '& svg': { maxWidth: '100%', height: 'auto' } }}
      >
        <BladeFace blade={b} scale={1.02} />
      </Box>
      <Condition condition={c} />
      {b.retired && (
        <Notice kind="caution" sx={{ mt: 1.5 }}>
          Retired: {retiredWords[b.retired.reason] ?? b.retired.reason}
          {b.retired.note && `, ${b.retired.note}`}. It is not offered for any cut.
        </Notice>
      )}
      {b.note && <Typography sx={{ mt: 1.5, overflowWrap: 'anywhere' }}>{b.note}</Typography>}
      <Box
        component="dl"
        sx={{ m: 0, mt: 1.5, display: 'grid', gridTemplateColumns: 'auto 1fr', columnGap: 2, fontSize: 15 }}
      >
        {rows.map(
          ([name, value]) =>
            value && (
              <Box
                key={name}
                sx={{
                  display: 'contents',
                  '& > *': { py: 0.4, borderTop: '1px solid', borderColor: 'divider' },
                }}
              >
                <Box component="dt" sx={{ color: 'text.secondary' }}>
                  {name}
                </Box>
                <Box component="dd" sx={{ m: 0 }}>
                  {value}
                </Box>
              </Box>
            ),
        )}
      </Box>
    </Box>
  );
}

/** How even the blade runs and its tips stand, over time. */
function Measured({ blade, units }: { blade: Blade; units: Units }) {
  const truings = useTruings({ blade_id: blade.id });
  return (
    <Box component="section" aria-label="Measured" sx={{ mt: 2 }}>
      <Typography variant="h3" component="h2">
        Measured
      </Typography>
      {(['runout', 'clearance'] as const).map((test) => {
        const history = (truings.data ?? []).filter((t) => t.test === test);
        const last = history[0];
        return (
          <Box key={test} sx={{ py: 0.75, borderTop: '1px solid', borderColor: 'divider', fontSize: 15 }}>
            <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, flexWrap: 'wrap' }}>
              <Box sx={{ flex: 1 }}>
                {testWords[test].title}{' '}
                {last ? (
                  <>
                    <b>{formatFigure(last.figure, last.figure_unit, units)}</b>{' '}
                    <Verdict verdict={last.verdict} size={13} />
                  </>
                ) : (
                  <Box component="span" sx={{ color: 'text.secondary' }}>
                    never
                  </Box>
                )}
              </Box>
              <Button
                component={Link}
                to={`/true/${test}?blade=${blade.id}${blade.mounted_on ? `&saw=${blade.mounted_on}` : ''}`}
                variant="outlined"
                size="small"
                aria-label={`Measure: ${testWords[test].title}`}
              >
                Measure
              </Button>
            </Box>
            {history.length > 1 && <HistoryChart history={history} units={units} />}
          </Box>
        );
      })}
    </Box>
  );
}

/** What can be done with a blade here. */
function Doings({ blade: b, search }: { blade: Blade; search: string }) {
  const retire = useRetireBlade();
  const restore = useRestoreBlade();
  const photo = useSetPhoto();
  const failed = retire.error ?? restore.error ?? photo.error;
  return (
    <Box sx={{ mt: 2 }}>
      {b.photo_at && (
        <Box
          component="img"
          src={`/api/v1/blades/${b.id}/photo?at=${encodeURIComponent(b.photo_at)}`}
          alt={`Photo of ${b.name}`}
          sx={{
            width: '100%',
            maxHeight: 320,
            objectFit: 'cover',
            border: '1px solid',
            borderColor: 'divider',
          }}
        />
      )}
      {failed && <Trouble sx={{ my: 1 }}>{failed.message}</Trouble>}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1 }}>
        {b.make === 'dado' && (
          <Button component={Link} to={`/rack/${b.id}/set`} variant="outlined" size="small">
            Its parts
          </Button>
        )}
        <Button component={Link} to={`/rack/${b.id}/edit${search}`} variant="contained" size="small">
          Edit
        </Button>
        {b.teeth > 0 && (
          <Button component={Link} to={`/rack/${b.id}/survey`} variant="outlined" size="small">
            Look it over
          </Button>
        )}
        {b.condition.unfit && !b.retired && <Mend blade={b} />}
        <Button component={Link} to={`/rack/new?copy=${b.id}`} variant="outlined" size="small">
          Copy
        </Button>
        <Button component={Link} to={`/rack/labels?only=${b.id}`} variant="outlined" size="small">
          Label
        </Button>
        <FileButton
          variant="outlined"
          size="small"
          disabled={photo.isPending}
          label="Photo of the blade"
          accept="image/jpeg,image/png,image/webp"
          onFile={(file) => photo.mutate({ id: b.id, file })}
        >
          {photo.isPending ? 'Sending…' : b.photo_at ? 'Another photo' : 'Photo'}
        </FileButton>
        {b.photo_at && (
          <Button size="small" onClick={() => photo.mutate({ id: b.id, file: null })}>
            Drop the photo
          </Button>
        )}
        {b.retired ? (
          <Button size="small" variant="outlined" onClick={() => restore.mutate(b.id)}>
            Put it back
          </Button>
        ) : (
          <Retire
            what="blade"
            name={b.name}
            reasons={['cracked', 'unmendable', 'worn-out', 'bent', 'lost', 'sold', 'other']}
            onRetire={(body) => retire.mutate({ id: b.id, body })}
          />
        )}
      </Box>
    </Box>
  );
}

const times = (n: number) => (n === 0 ? 'never' : n === 1 ? 'once' : `${n} times`);
