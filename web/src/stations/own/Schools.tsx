/** The schools of owning over the shop's own work, each as a picture with the point from which it pays. */
import { plural, t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { useMoney } from '../../api/care';
import { useBlades } from '../../api/rack';
import type { KerfsOnSaw, OneMore, Owning, Units } from '../../api/types';
import { ink } from '../../drawings/ink';
import { trim } from '../../measure/format';
import { Coming } from '../../ui/Arriving';
import { saidMinutes } from '../../ui/feed';
import { SelectField } from '../../ui/Fields';
import { PaysFrom } from '../../ui/PaysFrom';
import { Worded } from '../../ui/Worded';

export function Schools({ o, units }: { o: Owning; units: Units }) {
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: 'minmax(0,1fr)', md: 'repeat(2, minmax(0,1fr))' },
        columnGap: 5,
      }}
    >
      {o.several.length > 0 && <OneOrSeveral steps={o.several} pieces={o.pieces} />}
      {o.kerfs.length > 0 && <ThinOrFull kerfs={o.kerfs} />}
      <DearOrCheap units={units} />
    </Box>
  );
}

function School({ id, title, children }: { id: string; title: string; children: ReactNode }) {
  return (
    <Box component="section" aria-labelledby={id} sx={{ mt: 3, breakInside: 'avoid' }}>
      <Typography id={id} variant="h2" sx={{ mb: 1 }}>
        {title}
      </Typography>
      {children}
    </Box>
  );
}

const edge = {
  x: 0.3,
  y: 2,
  height: 18,
  stroke: ink.ink,
  strokeWidth: 1.5,
  vectorEffect: 'non-scaling-stroke',
} as const;

/** Each bar is the work with one blade more; what still cannot be cut is left open. */
function OneOrSeveral({ steps, pieces }: { steps: OneMore[]; pieces: number }) {
  const last = steps.at(-1)!;
  return (
    <School id="several" title={t`One blade, or several?`}>
      <Box component="ol" sx={{ listStyle: 'none', m: 0, p: 0, display: 'grid', rowGap: 0.75 }}>
        {steps.map((s, i) => (
          <Box
            component="li"
            key={s.id}
            sx={{ display: 'grid', gridTemplateColumns: 'minmax(0,150px) minmax(0,1fr)', columnGap: 1.5 }}
          >
            <Box sx={{ overflowWrap: 'anywhere', lineHeight: 1.25 }}>
              {i > 0 && '+ '}
              <b>{s.name}</b>
            </Box>
            <Box>
              <svg
                width="100%"
                height={22}
                viewBox="0 0 100 22"
                preserveAspectRatio="none"
                aria-hidden
                style={{ display: 'block' }}
              >
                <rect {...edge} width={99.4} fill="none" strokeDasharray="3 3" />
                <rect
                  {...edge}
                  width={Math.max(1, (99.4 * (pieces - s.undone)) / Math.max(1, pieces))}
                  fill={ink.steel}
                />
              </svg>
              <Box sx={{ fontSize: 14.5, lineHeight: 1.3 }}>
                {s.undone > 0
                  ? t`can't cut ${plural(s.undone, { one: '# piece', other: '# pieces' })}; the rest take ${saidMinutes(s.total_min)}`
                  : t`everything in ${saidMinutes(s.total_min)}`}
              </Box>
            </Box>
          </Box>
        ))}
      </Box>
      <Box sx={{ mt: 1, fontWeight: 650 }}>
        {t`${plural(steps.length, { one: '# blade is', other: '# blades are' })} worth changing for. After ${last.name}, another saves less time than mounting it takes.`}
      </Box>
    </School>
  );
}

/** The dust of both kerfs as slots in the same board, with the time that each takes. */
function ThinOrFull({ kerfs }: { kerfs: KerfsOnSaw[] }) {
  return (
    <School id="kerfs" title={t`Thin or full kerf?`}>
      <Box sx={{ mb: 1, color: 'text.secondary' }}>
        {t`The same teeth on both. A thin kerf takes less wood and power but can flutter when hot. A full kerf is stiff.`}
      </Box>
      {kerfs.map((k) => (
        <Box key={k.saw_id} sx={{ mb: 1.5 }}>
          {k.pieces > 0 && (
            <Box
              sx={{ display: 'grid', gridTemplateColumns: 'auto minmax(0,1fr)', columnGap: 1.5, rowGap: 0.5 }}
            >
              {(
                [
                  [t`thin`, k.thin],
                  [t`full`, k.full],
                ] as const
              ).map(([name, x]) => (
                <Box key={name} sx={{ display: 'contents' }}>
                  <Box sx={{ width: 36 }}>{name}</Box>
                  <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, minWidth: 0 }}>
                    <Box
                      aria-hidden
                      sx={{
                        height: 18,
                        flex: 'none',
                        maxWidth: '50%',
                        width: `${(50 * x.dust_l) / Math.max(k.thin.dust_l, k.full.dust_l, 1e-9)}%`,
                        bgcolor: 'drawing.wood',
                        border: '1.5px dashed',
                        borderColor: 'text.primary',
                      }}
                    />
                    <Box sx={{ fontSize: 14.5 }}>
                      {t`${trim(x.dust_l, 1)} l of dust, ${saidMinutes(x.minutes)}`}
                    </Box>
                  </Box>
                </Box>
              ))}
            </Box>
          )}
          <Box sx={{ fontWeight: 650 }}>
            <Worded>{k.says}</Worded>
          </Box>
        </Box>
      ))}
    </School>
  );
}

const MOST_USED = 8;

/** The blades that this shop uses most: what each has cost by the metre, against cheap ones. */
function DearOrCheap({ units }: { units: Units }) {
  const used = (useBlades().data ?? [])
    .filter((b) => b.condition.metres > 0)
    .sort((a, b) => b.condition.metres - a.condition.metres)
    .slice(0, MOST_USED);
  const [chosen, choose] = useState<string>();
  const blade = used.find((b) => b.id === chosen) ?? used[0];
  if (!blade) return null;
  return (
    <School id="dear" title={t`Sharpen it, or buy cheap blades?`}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 2, mb: 1 }}>
        <Box sx={{ flex: '0 1 240px', '@media print': { display: 'none' } }}>
          <SelectField
            label={t`Blade`}
            value={blade.id}
            choices={used.map((b) => [b.id, b.name] as const)}
            onChoose={choose}
          />
        </Box>
        <Box component={Link} to={`/care/money/${blade.id}`} sx={{ color: 'primary.main', py: 1.25 }}>
          {t`Other prices`}
        </Box>
      </Box>
      <Dear id={blade.id} units={units} />
    </School>
  );
}

function Dear({ id, units }: { id: string; units: Units }) {
  const money = useMoney(id, { cheap_price: 20, cheap_life: 0.5 });
  if (!money.data) return <Coming of={[money]} rows={1} height={280} />;
  return (
    <>
      <PaysFrom money={money.data} units={units} />
      <Box sx={{ color: 'text.secondary', fontSize: 14.5 }}>
        {t`Compared with cheap blades at 20 that last half as long.`}
      </Box>
    </>
  );
}
