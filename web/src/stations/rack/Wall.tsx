/** The wall: blades on pegs at one scale, in rows of which only those near the window are drawn. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import Typography from '@mui/material/Typography';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useLayoutEffect, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import type { Blade } from '../../api/types';
import { cutFace } from '../../drawings/theme';
import { PegBlade } from '../../drawings/PegBlade';
import { shortSpecOf } from '../../drawings/words';
import { retiredWords, stateWords } from '../../drawings/recordWords';
import { Verdict } from '../../ui/Verdict';
import { useSize } from '../../drawings/useSize';
import type { Shelf } from './order';

const PLACE = 150; // px, the least width of a blade's place
const GAP = 16;
const TALL = 226; // px, of a row, as a first guess

interface Props {
  shelves: Shelf[];
  total: number;
  saws: Map<string, string>; // names by id
  search: string;
  phone: boolean;
  picked: ReadonlySet<string>;
  onPick: (id: string) => void;
  onLook: (id: string) => void; // it has the pointer or the keyboard
}

type Row = { heading: string } | { blades: Blade[]; from: number };

export function Wall(p: Props) {
  const [ref, { width }] = useSize<HTMLDivElement>();
  const least = p.phone ? 104 : PLACE;
  const columns = Math.max(1, Math.floor((width + GAP) / (least + GAP)));
  const widest = Math.max(1, ...p.shelves.flatMap((s) => s.blades.map((b) => b.diameter_mm)));
  const size = width > 0 ? Math.min(p.phone ? 112 : 158, (width - GAP * (columns - 1)) / columns) : least;
  const scale = (size - 22) / widest;
  const grouped = p.shelves.some((s) => s.heading !== ''); // a heading may not stand in a list
  const rows = useMemo(() => {
    const out: Row[] = [];
    let from = 0;
    for (const s of p.shelves) {
      if (s.heading && s.blades.length > 0) out.push({ heading: s.heading });
      for (let i = 0; i < s.blades.length; i += columns) {
        out.push({ blades: s.blades.slice(i, i + columns), from });
        from += Math.min(columns, s.blades.length - i);
      }
    }
    return out;
  }, [p.shelves, columns]);
  const [above, setAbove] = useState(0);
  const top = useRef<HTMLDivElement>(null);
  const sheet = () => document.getElementById('sheet');
  useLayoutEffect(() => {
    const s = sheet();
    if (!top.current || !s) return;
    setAbove(top.current.getBoundingClientRect().top - s.getBoundingClientRect().top + s.scrollTop);
  }, [width]);
  // The compiler's memo is not at work here, so what it warns of does no harm.
  // eslint-disable-next-line react-hooks/incompatible-library
  const virtual = useVirtualizer({
    count: width > 0 ? rows.length : 0,
    getScrollElement: sheet,
    estimateSize: (i) => (rows[i] && 'heading' in rows[i] ? 44 : TALL),
    overscan: 3,
    scrollMargin: above,
  });
  return (
    <div ref={ref}>
      <Box
        ref={top}
        role={grouped ? 'group' : 'list'}
        aria-label={t`Blades`}
        sx={{ position: 'relative' }}
        style={{ height: virtual.getTotalSize() }}
      >
        {virtual.getVirtualItems().map((at) => {
          const row = rows[at.index]!;
          return (
            <Box
              key={at.key}
              ref={virtual.measureElement}
              data-index={at.index}
              role={grouped ? undefined : 'presentation'}
              sx={{ position: 'absolute', left: 0, right: 0, top: 0 }}
              style={{ transform: `translateY(${at.start - above}px)` }}
            >
              {'heading' in row ? (
                <Typography
                  variant="h2"
                  sx={{ pt: 1.5, borderTop: '1px solid', borderColor: 'divider', minHeight: 44 }}
                >
                  {row.heading}
                </Typography>
              ) : (
                <Box
                  role={grouped ? 'list' : 'presentation'}
                  sx={{ display: 'grid', columnGap: `${GAP}px` }}
                  style={{ gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))` }}
                >
                  {row.blades.map((b, i) => (
                    <Peg
                      key={b.id}
                      blade={b}
                      saw={p.saws.get(b.mounted_on ?? '')}
                      place={row.from + i + 1}
                      of={p.total}
                      size={size}
                      scale={scale}
                      search={p.search}
                      picked={p.picked.has(b.id)}
                      onPick={p.onPick}
                      onLook={p.onLook}
                    />
                  ))}
                </Box>
              )}
            </Box>
          );
        })}
      </Box>
    </div>
  );
}

interface PegProps {
  blade: Blade;
  saw: string | undefined;
  place: number;
  of: number;
  size: number;
  scale: number;
  search: string;
  picked: boolean;
  onPick: (id: string) => void;
  onLook: (id: string) => void;
}

function Peg({ blade: b, saw, place, of, size, scale, search, picked, onPick, onLook }: PegProps) {
  const where = b.retired
    ? (retiredWords[b.retired.reason] ?? b.retired.reason)
    : b.condition.away
      ? t`away`
      : saw
        ? t`on ${saw}`
        : b.hangs;
  return (
    <Box
      role="listitem"
      aria-posinset={place}
      aria-setsize={of}
      sx={{ position: 'relative', minWidth: 0, pb: 1 }}
    >
      <Box
        component={Link}
        to={`/blades/${b.id}${search}`}
        onPointerEnter={(e) => e.pointerType === 'mouse' && onLook(b.id)}
        onFocus={() => onLook(b.id)}
        sx={{
          display: 'block',
          color: 'inherit',
          textDecoration: 'none',
          textAlign: 'center',
          lineHeight: 1.2,
          '&:hover': { bgcolor: 'background.paper' },
        }}
      >
        <Box sx={{ display: 'grid', placeItems: 'center', height: size }}>
          <PegBlade blade={b} scale={scale} size={size} />
        </Box>
        <Box
          sx={{
            fontFamily: cutFace,
            fontWeight: 640,
            fontSize: { xs: 17, md: 18 },
            overflowWrap: 'anywhere',
          }}
        >
          {b.name}
        </Box>
        <Box sx={{ fontSize: 14, color: 'text.secondary' }}>{b.teeth > 0 ? shortSpecOf(b) : 'wheel'}</Box>
        <Box sx={{ fontSize: 14, overflowWrap: 'anywhere' }}>
          {b.condition.verdict !== 'clear' && !b.condition.away ? (
            <Verdict verdict={b.condition.verdict} size={11} />
          ) : null}{' '}
          {b.condition.verdict !== 'clear' && !b.condition.away ? stateWords[b.condition.state] : where}
        </Box>
      </Box>
      {!b.retired && (
        <Checkbox
          checked={picked}
          onChange={() => onPick(b.id)}
          slotProps={{ input: { 'aria-label': t`Pick ${b.name}` } }}
          sx={{
            position: 'absolute',
            top: -6,
            left: -6,
            width: 44,
            height: 44,
            opacity: picked ? 1 : 0.55,
            '&:hover, &:focus-within': { opacity: 1 },
          }}
        />
      )}
    </Box>
  );
}
