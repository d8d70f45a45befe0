/** Feed it: a board, a blade and two hands, on a saw that cannot hurt anybody; the wall grows behind the blade and tells how it was. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import useMediaQuery from '@mui/material/useMediaQuery';
import { useEffect, useRef, useState } from 'react';
import type { PracticeBoard, Units } from '../../api/types';
import { usePreferences } from '../../ui/preferences';
import { boardScale, FeedBoard } from '../../drawings/FeedBoard';
import { PracticeWall } from '../../drawings/PracticeWall';
import { trim } from '../../measure/format';
import { secondsAt } from '../../ui/feed';
import type { Taking } from './useTask';
import { SoundSwitch } from './SoundSwitch';
import { Stepwise } from './Stepwise';
import { BEFORE, useHand, type Hand } from './useHand';
import { useNote } from './useNote';

/** One board, pushed as often as somebody likes. */
export function FeedIt({ board, told, busy, onAnswer }: Taking & { board: PracticeBoard }) {
  const { units } = usePreferences();
  const [blind, setBlind] = useState(false);
  const still = useMediaQuery('(prefers-reduced-motion: reduce)');
  const [steps, setSteps] = useState(still);
  const note = useNote();
  const hand = useHand(board, (push) => onAnswer({ push }));
  const wall = told?.wall;
  const { hear, quiet } = note;
  const { turns, load } = hand.now;
  useEffect(() => {
    if (hand.pushing) hear({ turns, load, teeth: board.teeth });
    else quiet();
  }, [hand.pushing, turns, load, board.teeth, hear, quiet]);
  // Once more: the answer is gone, and the board stands before the blade again.
  const { anew } = hand;
  const was = useRef(told);
  useEffect(() => {
    if (was.current && !told) anew();
    was.current = told;
  });
  const seconds = (feed: number) => trim(secondsAt(feed, units), 1);
  const range = t`${seconds(board.slowest_m_min)} to ${seconds(board.fastest_m_min)} s ${stretch(units)}`;
  if (wall)
    return (
      <>
        <PracticeWall
          length={board.length_mm}
          wall={wall}
          slowest={board.slowest_m_min}
          fastest={board.fastest_m_min}
        />
        <Box sx={{ color: 'text.secondary', mt: 1 }}>
          {t`Top: the cut edge you made. Bottom: your feed rate along it, slow at the bottom. The band is the feed range, ${range}.`}
        </Box>
      </>
    );
  return (
    <>
      {steps ? (
        <Stepwise board={board} busy={busy} onPush={(push) => onAnswer({ push })} />
      ) : (
        <Pushed board={board} hand={hand} busy={busy} />
      )}
      <Box
        sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 2, alignItems: 'center', minHeight: 48, mt: 1 }}
      >
        {hand.pushing && <Button variant="outlined" onClick={hand.letGo}>{t`Let go`}</Button>}
        <FormControlLabel
          control={<Checkbox checked={blind} onChange={(e) => setBlind(e.target.checked)} />}
          label={t`Hide the numbers`}
        />
        {!hand.pushing && (
          <FormControlLabel
            control={<Checkbox checked={steps} onChange={(e) => setSteps(e.target.checked)} />}
            label={t`Step by step, without moving`}
          />
        )}
        {!steps && <SoundSwitch note={note} />}
        {!blind && (
          <Box sx={{ fontSize: 18, fontVariantNumeric: 'tabular-nums' }}>
            {hand.pushing && hand.feed > 0.05
              ? t`${seconds(hand.feed)} s ${stretch(units)}; the motor at ${Math.round(100 * load)} %`
              : t`The range is ${range}.`}
          </Box>
        )}
      </Box>
    </>
  );
}

const stretch = (units: Units) => (units === 'mm' ? t`for 300 mm` : t`for a foot`);

const keys: Record<string, string> = { ArrowRight: 'key right', ArrowDown: 'key down' };

/** The work under two hands: pointers, the wheel, or two keys. */
function Pushed({ board, hand, busy }: { board: PracticeBoard; hand: Hand; busy: boolean }) {
  const box = useRef<HTMLDivElement>(null);
  const last = useRef(new Map<number, number>());
  const { wheel } = hand;
  // A wheel that is turned over it must not turn the page: React's own listener could not say so.
  useEffect(() => {
    const at = box.current;
    const turn = (e: WheelEvent) => {
      e.preventDefault();
      if (!busy) wheel(0.3 * (e.deltaMode === 1 ? 16 * e.deltaY : e.deltaY));
    };
    at?.addEventListener('wheel', turn, { passive: false });
    return () => at?.removeEventListener('wheel', turn);
  });
  const mmPerPixel = () => 1000 / ((box.current?.clientWidth || 1000) * boardScale(board, BEFORE));
  const shown = Math.round(hand.mm);
  const drop = (id: number) => {
    last.current.delete(id);
    hand.release(`pointer ${id}`);
  };
  return (
    <Box
      ref={box}
      role="slider"
      tabIndex={0}
      aria-label={
        board.hand_held
          ? t`Move the saw through the board: drag it to the right, turn the wheel, or hold the right arrow key. The down arrow key is the other hand`
          : t`Push the board past the blade: drag it to the right, turn the wheel, or hold the right arrow key. The down arrow key is the other hand`
      }
      aria-valuemin={-BEFORE}
      aria-valuemax={Math.ceil(board.length_mm)}
      aria-valuenow={Math.min(shown, Math.ceil(board.length_mm))}
      aria-valuetext={shown < 0 ? t`before the blade` : t`${shown} mm cut`}
      onPointerDown={(e) => {
        if (busy) return;
        e.currentTarget.setPointerCapture(e.pointerId);
        last.current.set(e.pointerId, e.clientX);
        hand.grasp(`pointer ${e.pointerId}`);
      }}
      onPointerMove={(e) => {
        const was = last.current.get(e.pointerId);
        if (was === undefined) return;
        hand.move(`pointer ${e.pointerId}`, (e.clientX - was) * mmPerPixel());
        last.current.set(e.pointerId, e.clientX);
      }}
      onPointerUp={(e) => drop(e.pointerId)}
      onPointerCancel={(e) => drop(e.pointerId)}
      onKeyDown={(e) => {
        const key = keys[e.key];
        if (!key) return;
        e.preventDefault();
        if (!e.repeat && !busy) hand.grasp(key);
      }}
      onKeyUp={(e) => {
        const key = keys[e.key];
        if (key) hand.release(key);
      }}
      onBlur={() => Object.values(keys).forEach(hand.release)}
      sx={{ touchAction: 'none', userSelect: 'none', cursor: 'grab', minHeight: 96 }}
    >
      <FeedBoard
        board={board}
        mm={hand.mm}
        before={BEFORE}
        scorch={hand.scorch}
        splinter={hand.splinter}
        spent={hand.spent}
      />
      <Box
        sx={{
          color: hand.spent ? 'primary.main' : 'text.secondary',
          fontWeight: hand.spent ? 700 : 400,
          minHeight: 48,
        }}
      >
        {hand.spent
          ? t`Your arm is fully stretched. Move your hand, or take over with the other one first.`
          : t`Drag it to the right, turn the wheel over it, or hold the right arrow key. A long board needs two hands: a second finger or the down arrow key takes over. The blade keeps turning while you change hands.`}
      </Box>
    </Box>
  );
}
