/** Feed it: a board, a blade and a hand, on a saw that cannot hurt anybody; the wall tells how it was. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import Typography from '@mui/material/Typography';
import { useEffect, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { usePractise, usePracticeBoard } from '../../api/practice';
import type { PracticeBoard, PracticeWall as Wall } from '../../api/types';
import { usePreferences } from '../../app/preferences';
import { boardScale, FeedBoard } from '../../drawings/FeedBoard';
import { PracticeWall } from '../../drawings/PracticeWall';
import { trim } from '../../measure/format';
import { Arriving } from '../../ui/Arriving';
import { secondsAt } from '../../ui/feed';
import { Notice, Trouble } from '../../ui/Notice';
import { BEFORE, useHand, type Push } from './useHand';

const BOARDS = 1_000_000;

export function FeedIt() {
  const { units } = usePreferences();
  const [query] = useSearchParams(); // two who mean the same board name it
  const [number, setNumber] = useState(() =>
    Number(query.get('board') ?? Math.floor(Math.random() * BOARDS)),
  );
  const board = usePracticeBoard(number, units);
  if (!board.data) return <Arriving title={t`Feed it`} of={[board]} rows={2} drawing />;
  return (
    <Bench key={number} board={board.data} onNext={() => setNumber(Math.floor(Math.random() * BOARDS))} />
  );
}

/** One board, pushed as often as somebody likes. */
function Bench({ board, onNext }: { board: PracticeBoard; onNext: () => void }) {
  const { units } = usePreferences();
  const cut = usePractise();
  const [blind, setBlind] = useState(false);
  const over = (push: Push) => cut.mutate({ board: board.number, units, ...push });
  const hand = useHand(board.length_mm, over);
  const again = () => {
    cut.reset();
    hand.anew();
  };
  const wall = cut.data;
  const seconds = (feed: number) => trim(secondsAt(feed, units), 1);
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 1.5 }}>
      <Typography variant="h1">{t`Feed it`}</Typography>
      <Box sx={{ fontSize: 18, mb: 1 }}>{board.text}</Box>
      {wall ? (
        <PracticeWall
          length={board.length_mm}
          wall={wall}
          slowest={board.slowest_m_min}
          fastest={board.fastest_m_min}
        />
      ) : (
        <Pushed board={board} hand={hand} />
      )}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5, alignItems: 'center', my: 1.5, minHeight: 48 }}>
        {wall ? (
          <>
            <Button variant="contained" onClick={again}>{t`Once more`}</Button>
            <Button variant="outlined" onClick={onNext}>{t`Another board`}</Button>
          </>
        ) : (
          <>
            {hand.pushing ? (
              <Button variant="outlined" onClick={hand.letGo}>{t`Let it go`}</Button>
            ) : (
              <Button variant="outlined" onClick={onNext}>{t`Another board`}</Button>
            )}
            <FormControlLabel
              control={<Checkbox checked={blind} onChange={(e) => setBlind(e.target.checked)} />}
              label={t`Blind: no numbers`}
            />
            {!blind && (
              <Box sx={{ fontSize: 18, fontVariantNumeric: 'tabular-nums' }}>
                {hand.pushing && hand.feed > 0.05
                  ? saidFeed(seconds(hand.feed), units)
                  : t`The range is ${seconds(board.slowest_m_min)} to ${seconds(board.fastest_m_min)} s ${stretch(units)}.`}
              </Box>
            )}
          </>
        )}
      </Box>
      {cut.error && <Trouble>{cut.error.message}</Trouble>}
      {wall && <Told wall={wall} />}
      {wall && (
        <Box sx={{ color: 'text.secondary', mt: 1 }}>
          {t`Above the wall as it came out, under it the feed along it, slow at the bottom; the band is the feed range, ${seconds(board.slowest_m_min)} to ${seconds(board.fastest_m_min)} s ${stretch(units)}.`}
        </Box>
      )}
      <Notice kind="caution" sx={{ mt: 2 }}>
        {t`A drill teaches what to look for. It is no substitute for being shown at a saw by a trained person.`}
      </Notice>
    </Box>
  );
}

const stretch = (units: 'mm' | 'in') => (units === 'mm' ? t`for 300 mm` : t`for a foot`);
const saidFeed = (seconds: string, units: 'mm' | 'in') => t`${seconds} s ${stretch(units)}`;

/** The board under a hand: dragged, turned on by the wheel, or held on by a key. */
function Pushed({ board, hand }: { board: PracticeBoard; hand: ReturnType<typeof useHand> }) {
  const box = useRef<HTMLDivElement>(null);
  const last = useRef<number | undefined>(undefined);
  const { grasp, move, key } = hand;
  // A wheel that is turned over it must not turn the page: React's own listener could not say so.
  useEffect(() => {
    const at = box.current;
    const turn = (e: WheelEvent) => {
      e.preventDefault();
      grasp();
      move(0.3 * (e.deltaMode === 1 ? 16 * e.deltaY : e.deltaY));
    };
    at?.addEventListener('wheel', turn, { passive: false });
    return () => at?.removeEventListener('wheel', turn);
  });
  const mmPerPixel = () => 1000 / ((box.current?.clientWidth || 1000) * boardScale(board.length_mm, BEFORE));
  const shown = Math.round(hand.mm);
  return (
    <Box
      ref={box}
      role="slider"
      tabIndex={0}
      aria-label={t`Push the board past the blade: drag it to the right, turn the wheel, or hold the right arrow key`}
      aria-valuemin={-BEFORE}
      aria-valuemax={Math.ceil(board.length_mm)}
      aria-valuenow={Math.min(shown, Math.ceil(board.length_mm))}
      aria-valuetext={shown < 0 ? t`before the blade` : t`${shown} mm cut`}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        last.current = e.clientX;
        grasp();
      }}
      onPointerMove={(e) => {
        if (last.current === undefined) return;
        move((e.clientX - last.current) * mmPerPixel());
        last.current = e.clientX;
      }}
      onPointerUp={() => (last.current = undefined)}
      onPointerCancel={() => (last.current = undefined)}
      onKeyDown={(e) => {
        if (e.key !== 'ArrowRight') return;
        e.preventDefault();
        if (!e.repeat) key(true);
      }}
      onKeyUp={(e) => e.key === 'ArrowRight' && key(false)}
      onBlur={() => key(false)}
      sx={{ touchAction: 'none', userSelect: 'none', cursor: 'grab', minHeight: 96 }}
    >
      <FeedBoard length={board.length_mm} mm={hand.mm} before={BEFORE} across={board.across} />
      {!hand.pushing && (
        <Box sx={{ color: 'text.secondary' }}>
          {t`Drag the board to the right, turn the wheel over it, or hold the right arrow key. Let go to take it anew: the blade goes on.`}
        </Box>
      )}
    </Box>
  );
}

function Told({ wall }: { wall: Wall }) {
  if (wall.clean) return <Notice kind="done">{wall.says.join(' ')}</Notice>;
  return (
    <Box component="ul" aria-live="polite" sx={{ m: 0, pl: 2.5, fontSize: 18 }}>
      {wall.says.map((s) => (
        <li key={s}>{s}</li>
      ))}
    </Box>
  );
}
