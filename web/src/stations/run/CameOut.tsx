/** What came out of the cut: ten seconds, with thumbs. */
import { fixed } from '../../measure/format';
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import Drawer from '@mui/material/Drawer';
import Typography from '@mui/material/Typography';
import { useRef, useState } from 'react';
import { useKeep } from '../../api/logging';
import type { Blade, Cut, CutMade, FilledIn, Setting } from '../../api/types';
import { usePreferences } from '../../ui/preferences';
import { splinterWords, wallWords } from '../../drawings/recordWords';
import { ActionBar } from '../../ui/ActionBar';
import { Trouble } from '../../ui/Notice';
import { Grades, type Said } from './Grades';
import { EdgePhoto, WallPhoto } from './OffPhoto';

interface Props {
  cut: Cut;
  blade: Blade;
  setting: Setting | undefined;
  height: number | undefined; // mm; 0 or left out for a chop
  took: number | undefined; // seconds, by the beat
  heard: FilledIn | undefined; // of the cuts so far, where somebody listens
  phone: boolean; // it comes up from below, once the beat has ended
  lengthMm: number; // that one piece is fed
  edgeMm: number; // of each edge of it
  trace: string; // the address of Trace for this cut
  of: { job: string; row: string } | undefined; // the row of a job that it is
  onLogged: () => void;
}

type Condition = Blade['condition'];

const clean = (pieces: number): Said => ({ wall: 'clean', splinters: 'none', pieces });

export function CameOut({
  cut,
  blade,
  setting,
  height,
  took,
  heard,
  phone,
  lengthMm,
  edgeMm,
  trace,
  of,
  onLogged,
}: Props) {
  const [said, setSaid] = useState<Said>(clean(cut.pieces ?? 1));
  const [typed, setTyped] = useState<number>();
  const seconds = typed ?? heard?.seconds ?? took;
  const [up, setUp] = useState(false);
  const [came, setCame] = useState(took);
  if (took !== came) {
    setCame(took);
    if (took !== undefined) setUp(true);
  }
  // What is heard is filled in piece by piece; what was changed by hand stands until the next one.
  const [pieces, setPieces] = useState<number>();
  if (heard?.pieces !== pieces) {
    setPieces(heard?.pieces);
    if (heard) {
      setSaid((now) => ({ ...now, pieces: heard.pieces, effort: heard.effort }));
      setTyped(undefined);
    }
  }
  const [looks, setLooks] = useState<'wall' | 'edge'>();
  const [was, setWas] = useState<Condition>(); // how the blade stood before what was logged last
  const { units } = usePreferences();
  const log = useKeep();
  // One key for one cut: the same as long as the same cut is sent again.
  const sent = useRef<{ content: string; key: string }>(undefined);
  const set = (part: Partial<Said>) => setSaid((now) => ({ ...now, ...part }));
  const send = () => {
    const made: CutMade = {
      cut,
      blade_id: blade.id,
      height_mm: height || undefined,
      feed_m_min: setting?.feed_m_min,
      pieces: said.pieces,
      metres: said.metres,
      wall: said.wall,
      splinters: said.splinters,
      other_splinters: said.other,
      effort: said.effort,
      noise: said.noise,
      seconds,
      heard: heard?.heard,
      came_back: said.cameBack && said.cameBack === 'yes',
      job_id: of?.job,
      row_id: of?.row,
    };
    const content = JSON.stringify(made);
    if (sent.current?.content !== content) sent.current = { content, key: crypto.randomUUID() };
    log.mutate(
      { key: sent.current.key, made, blade: blade.name },
      {
        onSuccess: () => {
          setWas(blade.condition);
          setUp(false);
          sent.current = undefined; // the next one is another cut, even if it is alike
          setSaid(clean(cut.pieces ?? 1));
          setTyped(undefined);
          onLogged();
        },
      },
    );
  };
  const picks = (
    <Grades {...{ said, blade, setting, seconds }} onSaid={set} onSeconds={setTyped} onLook={setLooks} />
  );
  const offPhoto =
    looks === 'wall' ? (
      <WallPhoto
        of={{
          thickness_mm: cut.thickness_mm,
          saw_id: cut.saw_id,
          blade_id: blade.id,
          // The feed that it was really made at, where that is known.
          feed_m_min: seconds ? (lengthMm * 60) / 1000 / seconds : setting?.feed_m_min,
          units,
        }}
        trace={trace}
        onWall={(wall) => set({ wall })}
        onClose={() => setLooks(undefined)}
      />
    ) : (
      looks && (
        <EdgePhoto
          lengthMm={edgeMm}
          {...{ units, trace }}
          onSplinters={(splinters) => set({ splinters })}
          onClose={() => setLooks(undefined)}
        />
      )
    );
  const made = (
    <Button
      variant="contained"
      onClick={send}
      disabled={log.isPending}
      sx={{ minHeight: { xs: 52, sm: 60 }, fontSize: 18, px: 3, flex: 'none' }}
    >
      {log.isPending ? t`Logging…` : t`Cut made`}
    </Button>
  );
  const after = (
    <>
      <Box role="status" sx={{ mt: { sm: 0.5 }, minHeight: { sm: 24 } }}>
        {log.data && !log.data.waits && (
          <>
            {t`Cut logged.`} <Changed before={was} now={blade.condition} name={blade.name} />
          </>
        )}
        {log.data?.waits &&
          t`${log.data.why ?? t`You're offline.`} The cut is saved on this device and sent when you're back online.`}
      </Box>
      {log.error && <Trouble>{log.error.message}</Trouble>}
    </>
  );
  const beside = (
    <Box component="section" aria-labelledby="came-out" sx={{ minWidth: 0 }}>
      <Typography id="came-out" variant="h2" sx={{ mb: 0.5 }}>{t`How did it come out?`}</Typography>
      <Box sx={{ display: 'grid', gap: 1 }}>
        {picks}
        {made}
      </Box>
      {after}
    </Box>
  );
  const below = (
    <>
      <ActionBar said={after}>
        <ButtonBase
          aria-haspopup="dialog"
          onClick={() => setUp(true)}
          sx={{
            flex: 1,
            minWidth: 0,
            minHeight: 52,
            px: 1.5,
            display: 'block',
            textAlign: 'left',
            lineHeight: 1.2,
          }}
        >
          <Box sx={{ color: 'primary.main', fontWeight: 650 }}>{t`How did it come out?`}</Box>
          <Box sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
            {wallWords[said.wall]},{' '}
            {said.splinters === 'none' ? t`no tear-out` : splinterWords[said.splinters]},{' '}
            {said.pieces === 1 ? t`1 piece` : t`${said.pieces} alike`}
          </Box>
        </ButtonBase>
        {made}
      </ActionBar>
      <Drawer
        anchor="bottom"
        open={up}
        onClose={() => setUp(false)}
        slotProps={{
          paper: { role: 'dialog', 'aria-label': t`How did it come out?`, sx: { maxHeight: '92dvh' } },
        }}
      >
        <Box sx={{ p: 2, display: 'grid', gap: 1.25, borderTop: '2px solid', borderColor: 'text.primary' }}>
          {picks}
          <Box sx={{ display: 'flex', gap: 1, justifyContent: 'space-between' }}>
            <Button variant="outlined" onClick={() => setUp(false)} sx={{ minHeight: 52 }}>
              {t`Not yet`}
            </Button>
            {made}
          </Box>
        </Box>
      </Drawer>
    </>
  );
  return (
    <>
      {phone ? below : beside}
      {offPhoto}
    </>
  );
}

/** What a logged cut did to its blade, once the rack knows. */
function Changed({ before, now, name }: { before: Condition | undefined; now: Condition; name: string }) {
  if (!before || before === now) return null;
  const said = (from: string, to: string) => (from === to ? to : `${from} → ${to}`);
  const edge = (c: Condition) => `${Math.round(100 * c.wear_share)} %`;
  const pitch = (c: Condition) => fixed(c.pitch_level, 1);
  return (
    <>
      {t`${name}: edge ${said(edge(before), edge(now))} used up, resin ${said(pitch(before), pitch(now))} of 3.`}
    </>
  );
}
