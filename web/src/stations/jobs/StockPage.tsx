/** Stock: what rows of a job take of boards and sticks, with what every kerf takes. */
import { plural, t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { useJob } from '../../api/jobs';
import { useStock } from '../../api/own';
import { useBlades } from '../../api/rack';
import type { Job, JobRow, Units } from '../../api/types';
import { usePreferences } from '../../ui/preferences';
import { StickView } from '../../drawings/StickView';
import { formatSetting } from '../../measure/format';
import { Arriving, Coming } from '../../ui/Arriving';
import { NumberField, SelectField } from '../../ui/Fields';
import { LengthField } from '../../ui/LengthField';
import { Trouble } from '../../ui/Notice';
import { useSize } from '../../drawings/useSize';

/** Rows that come out of one stock: lengths out of sticks of one section, or strips out of boards. */
interface Group {
  id: string;
  name: string;
  strips: boolean;
  rows: JobRow[];
  kerf: number | undefined; // of the blade that the sheet has for them
}

export function StockPage() {
  const { id = '' } = useParams();
  const { units } = usePreferences();
  const job = useJob(id, units);
  const blades = useBlades();
  if (!job.data || !blades.data) return <Arriving title={t`Stock`} of={[job, blades]} rows={3} />;
  const kerfs = new Map(blades.data.map((b) => [b.id, b.kerf_mm]));
  const groups = groupsOf(job.data, kerfs, units);
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 1.5 }}>
      <Button
        component={Link}
        to={`/jobs/${id}`}
        size="small"
        sx={{ ml: -0.75 }}
      >{t`‹ ${job.data.name}`}</Button>
      <Typography variant="h1" sx={{ mb: 1 }}>{t`Stock`}</Typography>
      {groups.length === 0 ? (
        <Box sx={{ fontSize: 18 }}>{t`This job has no rows to rip to width or cut to length.`}</Box>
      ) : (
        <Chosen groups={groups} units={units} />
      )}
    </Box>
  );
}

function groupsOf(job: Job, kerfs: Map<string, number>, units: Units): Group[] {
  const blade = new Map(
    (job.sheet?.turns ?? []).flatMap((u) => u.cuts.map((c) => [c.row_id, u.blade_id] as const)),
  );
  const out = new Map<string, Group>();
  for (const r of job.rows) {
    if (r.direction === 'sheet' || (r.form && r.form !== 'through')) continue;
    const strips = r.direction === 'rip';
    const other = strips ? r.length_mm : r.width_mm;
    const id = [r.material, strips, r.thickness_mm, other].join(' ');
    const size = `${formatSetting(r.thickness_mm, units)} × ${formatSetting(other, units)}`;
    const g = out.get(id) ?? {
      id,
      strips,
      rows: [],
      kerf: kerfs.get(blade.get(r.id) ?? ''),
      name: strips
        ? t`strips of ${r.material_name}, ${formatSetting(r.thickness_mm, units)} thick, ${formatSetting(other, units)} long`
        : t`lengths of ${r.material_name}, ${size}`,
    };
    g.rows.push(r);
    out.set(id, g);
  }
  const left = (g: Group) => g.rows.some((r) => r.left > 0);
  return [...out.values()].sort((a, b) => Number(left(b)) - Number(left(a)));
}

const BOARD = 200; // mm wide, where nobody has said
const STICK = 3000; // mm long
const THINNER = 0.8; // mm less, to weigh against

function Chosen({ groups, units }: { groups: Group[]; units: Units }) {
  const [at, setAt] = useState(groups[0]!.id);
  const g = groups.find((x) => x.id === at) ?? groups[0]!;
  return (
    <>
      <Box sx={{ maxWidth: 620, mb: 2 }}>
        <SelectField
          label={t`What`}
          value={g.id}
          choices={groups.map((x) => [x.id, x.name] as const)}
          onChoose={setAt}
        />
      </Box>
      <Laid key={g.id} group={g} units={units} />
    </>
  );
}

function Laid({ group: g, units }: { group: Group; units: Units }) {
  const [ref, { width }] = useSize<HTMLDivElement>();
  const [stick, setStick] = useState(g.strips ? BOARD : STICK);
  const [many, setMany] = useState<number>();
  const [kerf, setKerf] = useState(g.kerf ?? 3.2);
  const [trim, setTrim] = useState(g.strips ? 3 : 20);
  const [oversize, setOversize] = useState(g.rows.some((r) => r.moves) ? 5 : 0);
  const rows = g.rows.filter((r) => r.left > 0);
  const sizeOf = (r: JobRow) => (g.strips ? r.width_mm : r.length_mm);
  const plan = useStock(
    rows.length > 0
      ? {
          pieces: rows.map((r) => ({ length_mm: sizeOf(r), count: Math.min(500, r.left) })),
          sticks: [{ length_mm: stick, count: many }],
          kerf_mm: kerf,
          thinner_mm: Math.max(0, kerf - THINNER),
          trim_mm: trim,
          oversize_mm: oversize,
          units,
        }
      : undefined,
  );
  const p = plan.error ? undefined : plan.data;
  if (rows.length === 0) return <Box sx={{ fontSize: 18 }}>{t`All of these are done.`}</Box>;
  return (
    <Box ref={ref}>
      <Box
        sx={{
          display: 'grid',
          gap: 1.5,
          gridTemplateColumns: 'repeat(auto-fill, minmax(min(100%, 150px), 1fr))',
          maxWidth: 900,
          mb: 1.5,
        }}
      >
        <LengthField
          label={g.strips ? t`Board, width` : t`Stock length`}
          mm={stick}
          units={units}
          onLength={setStick}
        />
        <NumberField label={t`Available`} value={many} onNumber={(n) => setMany(n && Math.round(n))} />
        <LengthField label={t`Kerf`} mm={kerf} units={units} onLength={setKerf} />
        <LengthField label={t`Trim from each end`} mm={trim} units={units} onLength={setTrim} />
        <LengthField label={t`Cut oversize by`} mm={oversize} units={units} onLength={setOversize} />
      </Box>
      {plan.error && <Trouble>{plan.error.message}</Trouble>}
      {!p && !plan.error && <Coming of={[plan]} rows={3} height={60} />}
      {p && (
        <>
          <Box role="status" sx={{ fontSize: 18, lineHeight: 1.45, mb: 1.5 }}>
            {p.says.map((s, i) => (
              <Box key={s} sx={{ fontWeight: i === 0 ? 650 : 400 }}>
                {s}
              </Box>
            ))}
          </Box>
          <Box component="ul" aria-label={t`Cutting plan`} sx={{ listStyle: 'none', m: 0, p: 0 }}>
            {p.fills.map((f, i) => (
              <Box component="li" key={i} sx={{ py: 1, borderTop: '1px solid', borderColor: 'divider' }}>
                <Box sx={{ mb: 0.5 }}>
                  <b>{f.times} ×</b>{' '}
                  {f.pieces
                    .map(
                      (x) =>
                        t`${x.count} ${rows[x.piece]!.name} of ${formatSetting(sizeOf(rows[x.piece]!), units)}`,
                    )
                    .join(', ')}
                  {`. ${t`${formatSetting(f.left_mm, units)} left`}`}
                </Box>
                {width > 0 && (
                  <StickView
                    long={stick}
                    longest={stick}
                    trim={trim}
                    kerf={kerf}
                    pieces={f.pieces.flatMap((x) =>
                      Array.from({ length: x.count }, () => ({
                        long: sizeOf(rows[x.piece]!) + oversize,
                        name: formatSetting(sizeOf(rows[x.piece]!), units),
                        tone: 1 + (x.piece % 3),
                      })),
                    )}
                    width={width}
                  />
                )}
              </Box>
            ))}
          </Box>
          {p.short.map((x) => (
            <Box key={x.piece} sx={{ mt: 1, fontWeight: 600 }}>
              {plural(x.count, {
                one: `Not enough for # more of ${rows[x.piece]!.name}.`,
                other: `Not enough for # more of ${rows[x.piece]!.name}.`,
              })}
            </Box>
          ))}
        </>
      )}
    </Box>
  );
}
