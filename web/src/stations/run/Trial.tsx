/** A comparison under way: cut the pieces, grade them, read how sure the difference is. */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link, useLocation, useParams } from 'react-router';
import { useSaws } from '../../api/rack';
import { useEndTrial, useTrial, useTrialCut, useTrialGrade } from '../../api/run';
import { useMaterials } from '../../api/shop';
import type { Effort, Splinters, Trial as TrialOf, Units, Wall } from '../../api/types';
import { usePreferences } from '../../app/preferences';
import { cutFace } from '../../app/theme';
import { EdgeSample, WallSample } from '../../drawings/Sample';
import { TrialPlot } from '../../drawings/TrialPlot';
import { cutSaid, effortWords, splinterWords, supportWords } from '../../drawings/words';
import { formatSetting, trim } from '../../measure/format';
import { NumberField } from '../../ui/Fields';
import { Pick } from '../../ui/Pick';
import { Notice, Trouble } from '../../ui/Notice';

const letter = (i: number) => String.fromCharCode(65 + i);

export function Trial() {
  const { id = '' } = useParams();
  const { units } = usePreferences();
  const { search } = useLocation();
  const trial = useTrial(id);
  const saws = useSaws();
  const materials = useMaterials();
  const t = trial.data;
  const saw = saws.data?.find((s) => s.id === t?.cut.saw_id);
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 2, maxWidth: 1000 }}>
      <Button component={Link} to={`/run${search}`} size="small" sx={{ ml: -0.75 }}>
        ‹ Run
      </Button>
      <Typography variant="h1">Settings compared</Typography>
      {trial.error && <Trouble>{trial.error.message}</Trouble>}
      {t && saw && (
        <Box sx={{ fontFamily: cutFace, fontSize: 19, my: 0.5 }}>
          {cutSaid(
            t.cut,
            saw,
            materials.data?.find((m) => m.id === t.cut.material),
            units,
          )}
        </Box>
      )}
      {t && <Ways trial={t} units={units} />}
      {t?.note && (
        <Notice kind="caution" sx={{ my: 1 }}>
          {t.note}
        </Notice>
      )}
      {t && <Stage trial={t} units={units} />}
    </Box>
  );
}

function Ways({ trial: t, units }: { trial: TrialOf; units: Units }) {
  return (
    <Box
      component="dl"
      sx={{ m: 0, my: 1, display: 'grid', gridTemplateColumns: 'auto 1fr', columnGap: 1.5 }}
    >
      {t.settings.map((s, i) => (
        <Box key={i} sx={{ display: 'contents' }}>
          <Box component="dt" sx={{ fontFamily: cutFace, fontWeight: 700, fontSize: 19 }}>
            {letter(i)}
          </Box>
          <Box component="dd" sx={{ m: 0 }}>
            {wayWords(s, units)}
          </Box>
        </Box>
      ))}
    </Box>
  );
}

const wayWords = (s: TrialOf['settings'][number], units: Units) =>
  [
    s.blade_name,
    s.height_mm > 0 ? `at ${formatSetting(s.height_mm, units)}` : '',
    supportWords[s.exit_support],
    s.feed_m_min
      ? `${trim(((units === 'mm' ? 0.3 : 0.3048) * 60) / s.feed_m_min, 1)} s for ${units === 'mm' ? '300 mm' : 'a foot'}`
      : '',
  ]
    .filter(Boolean)
    .join(', ');

function Stage({ trial: t, units }: { trial: TrialOf; units: Units }) {
  const cut = useTrialCut();
  const grade = useTrialGrade();
  const end = useEndTrial();
  const nextCut = t.runs.find((r) => !r.cut);
  const nextGrade = nextCut ? undefined : t.grading.map((p) => t.runs[p - 1]!).find((r) => !r.graded);
  const failed = cut.error ?? grade.error ?? end.error;
  return (
    <Box
      component="section"
      aria-label="Next"
      sx={{ borderTop: '2px solid', borderColor: 'text.primary', pt: 1.5 }}
    >
      {failed && <Trouble sx={{ mb: 1 }}>{failed.message}</Trouble>}
      {t.ended_at ? (
        <Result trial={t} />
      ) : nextCut ? (
        <CutPiece
          key={nextCut.piece}
          trial={t}
          piece={nextCut.piece}
          setting={nextCut.setting ?? 0}
          units={units}
          busy={cut.isPending}
          onCut={(seconds) => cut.mutate({ id: t.id, version: t.version, piece: nextCut.piece, seconds })}
        />
      ) : nextGrade ? (
        <Grade
          key={nextGrade.piece}
          trial={t}
          piece={nextGrade.piece}
          busy={grade.isPending}
          onGrade={(wall, splinters, effort) =>
            grade.mutate({
              id: t.id,
              version: t.version,
              body: { piece: nextGrade.piece, wall, splinters, effort },
            })
          }
        />
      ) : (
        <Box>
          <Box sx={{ mb: 1 }}>Every piece is graded.</Box>
          <Button
            variant="contained"
            disabled={end.isPending}
            onClick={() => end.mutate({ id: t.id, version: t.version })}
            sx={{ px: 4, fontSize: 17 }}
          >
            Show what it came to
          </Button>
        </Box>
      )}
    </Box>
  );
}

function CutPiece({
  trial: t,
  piece,
  setting,
  units,
  busy,
  onCut,
}: {
  trial: TrialOf;
  piece: number;
  setting: number;
  units: Units;
  busy: boolean;
  onCut: (seconds: number | undefined) => void;
}) {
  const [seconds, setSeconds] = useState<number>();
  const before = t.runs[piece - 2];
  const changed = before === undefined || before.setting !== setting;
  return (
    <Box>
      <Box sx={{ color: 'text.secondary' }}>
        Cut piece {piece} of {t.runs.length}
      </Box>
      <Box sx={{ fontFamily: cutFace, fontSize: 40, fontWeight: 700, lineHeight: 1.15 }}>
        {letter(setting)}: {wayWords(t.settings[setting]!, units)}
      </Box>
      <Box sx={{ my: 1 }}>
        {changed ? 'Set it. Power off at the plug for any touch of the blade. ' : 'The setting stays. '}
        Cut, and write <b>{piece}</b> on the piece.
      </Box>
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
        <Box sx={{ width: 150 }}>
          <NumberField label="It took" unit="s" value={seconds} onNumber={setSeconds} />
        </Box>
        <Button
          variant="contained"
          disabled={busy}
          onClick={() => onCut(seconds)}
          sx={{ minHeight: 60, px: 4, fontSize: 18 }}
        >
          Piece {piece} is cut
        </Button>
      </Box>
    </Box>
  );
}

function Grade({
  trial: t,
  piece,
  busy,
  onGrade,
}: {
  trial: TrialOf;
  piece: number;
  busy: boolean;
  onGrade: (wall: Wall, splinters: Splinters, effort: Effort) => void;
}) {
  const [wall, setWall] = useState<Wall>();
  const [splinters, setSplinters] = useState<Splinters>();
  const [effort, setEffort] = useState<Effort>('normal');
  const graded = t.runs.filter((r) => r.graded).length;
  return (
    <Box sx={{ maxWidth: 560 }}>
      <Box sx={{ color: 'text.secondary' }}>
        Grade {graded + 1} of {t.runs.length}
        {t.blind && ', by the piece alone'}
      </Box>
      <Box sx={{ fontFamily: cutFace, fontSize: 40, fontWeight: 700, lineHeight: 1.15, mb: 1 }}>
        Piece {piece}
      </Box>
      <Box sx={{ display: 'grid', gap: 1.25 }}>
        <Pick
          label="Wall, held against these"
          value={wall}
          choices={(['clean', 'brown', 'black'] as const).map(
            (w) => [w, w, <WallSample key={w} wall={w} />] as const,
          )}
          onPick={setWall}
        />
        <Pick
          label="Edge where teeth left"
          value={splinters}
          choices={(['none', 'fuzz', 'splinters', 'torn'] as const).map(
            (s) => [s, splinterWords[s], <EdgeSample key={s} splinters={s} />] as const,
          )}
          onPick={setSplinters}
        />
        <Pick
          label="It fed"
          value={effort}
          choices={Object.entries(effortWords) as [Effort, string][]}
          onPick={setEffort}
        />
        <Button
          variant="contained"
          disabled={busy || !wall || !splinters}
          onClick={() => wall && splinters && onGrade(wall, splinters, effort)}
          sx={{ minHeight: 60, fontSize: 18 }}
        >
          That is piece {piece}
        </Button>
      </Box>
    </Box>
  );
}

function Result({ trial: t }: { trial: TrialOf }) {
  return (
    <Box>
      <Typography variant="h2">What it came to</Typography>
      <Box component="ul" sx={{ fontSize: 18, lineHeight: 1.45, pl: 2.5 }}>
        {t.says.map((s) => (
          <li key={s}>{s}.</li>
        ))}
      </Box>
      <TrialPlot trial={t} />
      <Box sx={{ color: 'text.secondary', fontSize: 14.5, mt: 1, maxWidth: 640 }}>
        By the exact permutation test: of all the ways to share these pieces between two settings, how many
        show a difference as large. Every piece is in the log, and teaches.
      </Box>
    </Box>
  );
}
