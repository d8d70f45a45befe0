/** One saw of the bench: its drawing, one sentence, the most useful thing to do now, and the rest behind it. */
import { plural, t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useId, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { useMoveSaw } from '../../api/truing';
import type { BenchDue, BenchSaw, Units } from '../../api/types';
import { BenchSaw as Picture } from '../../drawings/BenchSaw';
import { specOf } from '../../drawings/words';
import { formatFigure } from '../../measure/format';
import { LogRow } from '../../cut/LogRow';
import { useDates } from '../../ui/useDates';
import { Verdict } from '../../ui/Verdict';
import { Worded } from '../../ui/Worded';
import { testWords } from '../../ui/truingTests';
import { MountMenu } from './MountMenu';

interface Props {
  bench: BenchSaw;
  units: Units;
}

export function SawCard({ bench: b, units }: Props) {
  const { search } = useLocation();
  const [open, setOpen] = useState(false);
  const more = useId();
  const first = b.due[0];
  const to = new URLSearchParams(search);
  to.set('saw', b.saw.id);
  return (
    <Box
      component="section"
      aria-label={b.saw.name}
      sx={{
        minWidth: 0,
        display: { xs: 'grid', sm: 'block' },
        gridTemplateColumns: '42% minmax(0,1fr)',
        alignItems: 'start',
      }}
    >
      {/* the floor goes on under every saw */}
      <Box sx={{ borderBottom: '2px solid', borderColor: 'text.primary' }}>
        <Picture bench={b} />
      </Box>
      <Box sx={{ pl: 1.5, pr: { xs: 0, sm: 1.5 }, pt: { xs: 0, sm: 1 } }}>
        <Typography variant="h2" sx={{ overflowWrap: 'anywhere' }}>
          {b.saw.name}
        </Typography>
        <Box sx={{ lineHeight: 1.3 }}>
          {b.blade ? (
            <>
              <Box
                component={Link}
                to={`/blades/${b.blade.id}${search}`}
                sx={{
                  color: 'inherit',
                  fontWeight: 650,
                  overflowWrap: 'anywhere',
                  display: 'inline-flex',
                  alignItems: 'center',
                  minHeight: { xs: 44, md: 28 },
                  minWidth: { xs: 44, md: 28 },
                }}
              >
                {b.blade.name}
              </Box>
              <Box sx={{ color: 'text.secondary', fontSize: 15 }}>{specOf(b.blade, units)}</Box>
            </>
          ) : (
            <Box component="span" sx={{ color: 'text.secondary' }}>
              {t`No blade installed.`}
            </Box>
          )}
        </Box>
        <Box sx={{ minHeight: { md: 44 }, my: 0.75, lineHeight: 1.35 }}>
          {b.mounting_id ? (
            <b>{t`Mounting ${b.mounting_blade ?? ''}`}</b>
          ) : first ? (
            <>
              {first.presses && (
                <>
                  <Verdict verdict={first.reason === 'unfit' ? 'stop' : 'caution'} size={14} />{' '}
                </>
              )}
              {first.text}.{' '}
              {b.due.length > 1 &&
                plural(b.due.length - 1, { one: '# more is due.', other: '# more are due.' })}
            </>
          ) : (
            <>
              <Verdict verdict="clear" size={14} />
              {` ${t`Nothing is due.`}`}
            </>
          )}
        </Box>
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
          <FirstAct bench={b} due={first} search={to} units={units} />
          <Button
            aria-expanded={open}
            aria-controls={more}
            onClick={() => setOpen(!open)}
            aria-label={t`${open ? t`Less` : t`More`} about ${b.saw.name}`}
          >
            {open ? t`Less` : t`More`}
          </Button>
        </Box>
      </Box>
      <Box id={more} hidden={!open} sx={{ gridColumn: '1 / -1', px: { sm: 1.5 } }}>
        {open && <Rest bench={b} search={to} units={units} />}
      </Box>
    </Box>
  );
}

/** What helps most now, as the server says. */
function FirstAct({
  bench: b,
  due,
  search,
  units,
}: {
  bench: BenchSaw;
  due: BenchDue | undefined;
  search: URLSearchParams;
  units: Units;
}) {
  if (b.mounting_id)
    return (
      <Button component={Link} to={`/mount/${b.mounting_id}?${search}`} variant="contained">
        {t`Continue`}
      </Button>
    );
  switch (due?.presses && due.act) {
    case 'mount':
      return <MountMenu saw={b.saw.id} sawName={b.saw.name} on={b.blade?.id} units={units} first />;
    case 'wash':
      return (
        <Button component={Link} to={`/care/wash?b=${b.blade?.id ?? ''}`} variant="contained">
          {t`Clean`}
        </Button>
      );
    case 'measure':
      return (
        <Button component={Link} to={`/align/${due?.place ?? ''}?${search}`} variant="contained">
          {t`Measure`}
        </Button>
      );
    default:
      return <Button component={Link} to={`/?${search}`} variant="contained">{t`Choose a cut`}</Button>;
  }
}

/** All that is due, how it was measured last, what was done at it last, and what else can be done. */
function Rest({ bench: b, search, units }: { bench: BenchSaw; search: URLSearchParams; units: Units }) {
  const { short } = useDates();
  const move = useMoveSaw();
  return (
    <Box sx={{ pt: 1 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, '& .MuiButton-root': { px: 1.5 } }}>
        {(!b.due[0]?.presses || b.due[0].act !== 'mount') && (
          <MountMenu saw={b.saw.id} sawName={b.saw.name} on={b.blade?.id} units={units} />
        )}
        {b.due[0]?.presses && (
          <Button component={Link} to={`/?${search}`} variant="outlined">{t`Choose a cut`}</Button>
        )}
        <Button component={Link} to={`/align?${search}`} variant="outlined">{t`Align`}</Button>
        <Button component={Link} to={`/saws/${b.saw.id}`} variant="outlined">{t`Saw details`}</Button>
        <Button
          disabled={move.isPending}
          onClick={() => move.mutate({ id: b.saw.id, key: crypto.randomUUID() })}
        >
          {t`I moved this saw`}
        </Button>
      </Box>
      {move.error && <Box role="alert">{move.error.message}</Box>}
      {b.due.length > 0 && (
        <>
          <Typography variant="h3" sx={{ mt: 1.5 }}>{t`Due`}</Typography>
          <Box component="ul" aria-label={t`Due on ${b.saw.name}`} sx={{ m: 0, pl: 2.5, lineHeight: 1.45 }}>
            {b.due.map((d) => (
              <li key={d.text}>
                <Worded>{d.text}</Worded>
              </li>
            ))}
          </Box>
        </>
      )}
      <Box component="dl" sx={{ m: 0, mt: 1.5, display: 'grid', gridTemplateColumns: '1fr auto' }}>
        {b.truings
          .filter((it) => it.figure !== undefined)
          .map((it) => (
            <Box
              key={it.test}
              sx={{
                display: 'contents',
                '& > *': { borderTop: '1px solid', borderColor: 'divider', py: 0.4 },
              }}
            >
              <Box component="dt" sx={{ color: 'text.secondary' }}>
                {testWords[it.test].title}
              </Box>
              <Box component="dd" sx={{ m: 0, textAlign: 'right' }}>
                {formatFigure(it.figure ?? 0, it.figure_unit, units)}
                {', '}
                {it.at && short(it.at)}
              </Box>
            </Box>
          ))}
      </Box>
      <Typography variant="h3" sx={{ mt: 1.5 }}>{t`Last`}</Typography>
      <Box component="ol" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {b.last.map((e) => (
          <LogRow key={e.id} entry={e} units={units} narrow />
        ))}
      </Box>
    </Box>
  );
}
