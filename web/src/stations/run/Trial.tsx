/** A comparison under way: cut the pieces, grade them, read how sure the difference is. */
import { t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Link, useLocation, useParams } from 'react-router';
import { useSaws } from '../../api/rack';
import { useEndTrial, useTrial, useTrialCut, useTrialGrade } from '../../api/run';
import { useMaterials } from '../../api/shop';
import type { Effort, Splinters, Trial as TrialOf, Units, Wall } from '../../api/types';
import { useChanges } from '../../api/changes';
import { usePreferences } from '../../ui/preferences';
import { cutFace } from '../../drawings/theme';
import { EdgeSample, WallSample } from '../../drawings/Sample';
import { TrialPlot } from '../../drawings/TrialPlot';
import { cutSaid, supportWords } from '../../drawings/words';
import { effortWords, splinterWords, wallWords } from '../../drawings/recordWords';
import { formatSetting, trim } from '../../measure/format';
import { NumberField } from '../../ui/Fields';
import { Pick } from '../../ui/Pick';
import { Notice, Trouble } from '../../ui/Notice';
import { EdgePhoto, OffPhotoButton, WallPhoto } from './OffPhoto';

const letter = (i: number) => String.fromCharCode(65 + i);

export function Trial() {
  const { id = '' } = useParams();
  const { units } = usePreferences();
  const { search } = useLocation();
  useChanges();
  const trial = useTrial(id);
  const saws = useSaws();
  const materials = useMaterials();
  const it = trial.data;
  const saw = saws.data?.find((s) => s.id === it?.cut.saw_id);
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 2, maxWidth: 1000 }}>
      <Button component={Link} to={`/run${search}`} size="small" sx={{ ml: -0.75 }}>{t`‹ Run`}</Button>
      <Typography variant="h1">{t`Settings compared`}</Typography>
      {trial.error && <Trouble>{trial.error.message}</Trouble>}
      {it && saw && (
        <Box sx={{ fontFamily: cutFace, fontSize: 19, my: 0.5 }}>
          {cutSaid(
            it.cut,
            saw,
            materials.data?.find((m) => m.id === it.cut.material),
            units,
          )}
        </Box>
      )}
      {it && <Ways trial={it} units={units} />}
      {it?.note && (
        <Notice kind="caution" sx={{ my: 1 }}>
          {it.note}
        </Notice>
      )}
      {it && <Stage trial={it} units={units} />}
    </Box>
  );
}

function Ways({ trial: it, units }: { trial: TrialOf; units: Units }) {
  return (
    <Box
      component="dl"
      sx={{ m: 0, my: 1, display: 'grid', gridTemplateColumns: 'auto 1fr', columnGap: 1.5 }}
    >
      {it.settings.map((s, i) => (
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
    s.height_mm > 0 ? t`at ${formatSetting(s.height_mm, units)}` : '',
    supportWords[s.exit_support],
    s.feed_m_min
      ? t`${trim(((units === 'mm' ? 0.3 : 0.3048) * 60) / s.feed_m_min, 1)} s for ${units === 'mm' ? t`300 mm` : t`a foot`}`
      : '',
  ]
    .filter(Boolean)
    .join(', ');

function Stage({ trial: it, units }: { trial: TrialOf; units: Units }) {
  const cut = useTrialCut();
  const grade = useTrialGrade();
  const end = useEndTrial();
  const nextCut = it.runs.find((r) => !r.cut);
  const nextGrade = nextCut ? undefined : it.grading.map((p) => it.runs[p - 1]!).find((r) => !r.graded);
  const failed = cut.error ?? grade.error ?? end.error;
  return (
    <Box
      component="section"
      aria-label={t`Next`}
      sx={{ borderTop: '2px solid', borderColor: 'text.primary', pt: 1.5 }}
    >
      {failed && <Trouble sx={{ mb: 1 }}>{failed.message}</Trouble>}
      {it.ended_at ? (
        <Result trial={it} />
      ) : nextCut ? (
        <CutPiece
          key={nextCut.piece}
          trial={it}
          piece={nextCut.piece}
          setting={nextCut.setting ?? 0}
          units={units}
          busy={cut.isPending}
          onCut={(seconds) => cut.mutate({ id: it.id, version: it.version, piece: nextCut.piece, seconds })}
        />
      ) : nextGrade ? (
        <Grade
          key={nextGrade.piece}
          trial={it}
          units={units}
          piece={nextGrade.piece}
          busy={grade.isPending}
          onGrade={(wall, splinters, effort) =>
            grade.mutate({
              id: it.id,
              version: it.version,
              body: { piece: nextGrade.piece, wall, splinters, effort },
            })
          }
        />
      ) : (
        <Box>
          <Box sx={{ mb: 1 }}>{t`Every piece is graded.`}</Box>
          <Button
            variant="contained"
            disabled={end.isPending}
            onClick={() => end.mutate({ id: it.id, version: it.version })}
            sx={{ px: 4, fontSize: 17 }}
          >
            {t`Show result`}
          </Button>
        </Box>
      )}
    </Box>
  );
}

function CutPiece({
  trial: it,
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
  const before = it.runs[piece - 2];
  const changed = before === undefined || before.setting !== setting;
  return (
    <Box>
      <Box sx={{ color: 'text.secondary' }}>{t`Cut piece ${piece} of ${it.runs.length}`}</Box>
      <Box sx={{ fontFamily: cutFace, fontSize: 40, fontWeight: 700, lineHeight: 1.15 }}>
        {letter(setting)}: {wayWords(it.settings[setting]!, units)}
      </Box>
      <Box sx={{ my: 1 }}>
        {changed ? t`Set it. Disconnect the power before you touch the blade.` : t`The setting stays.`}{' '}
        <Trans>
          Cut, and write <b>{piece}</b> on the piece.
        </Trans>
      </Box>
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
        <Box sx={{ width: 150 }}>
          <NumberField label={t`Time taken`} unit="s" value={seconds} onNumber={setSeconds} />
        </Box>
        <Button
          variant="contained"
          disabled={busy}
          onClick={() => onCut(seconds)}
          sx={{ minHeight: 60, px: 4, fontSize: 18 }}
        >
          {t`Piece ${piece} is cut`}
        </Button>
      </Box>
    </Box>
  );
}

function Grade({
  trial: it,
  units,
  piece,
  busy,
  onGrade,
}: {
  trial: TrialOf;
  units: Units;
  piece: number;
  busy: boolean;
  onGrade: (wall: Wall, splinters: Splinters, effort: Effort) => void;
}) {
  const [wall, setWall] = useState<Wall>();
  const [splinters, setSplinters] = useState<Splinters>();
  const [effort, setEffort] = useState<Effort>('normal');
  const [looks, setLooks] = useState<'wall' | 'edge'>();
  const graded = it.runs.filter((r) => r.graded).length;
  return (
    <Box sx={{ maxWidth: 560 }}>
      <Box sx={{ color: 'text.secondary' }}>
        {t`Grade ${graded + 1} of ${it.runs.length}`}
        {it.blind && `, ${t`settings hidden`}`}
      </Box>
      <Box sx={{ fontFamily: cutFace, fontSize: 40, fontWeight: 700, lineHeight: 1.15, mb: 1 }}>
        {t`Piece ${piece}`}
      </Box>
      <Box sx={{ display: 'grid', gap: 1.25 }}>
        <Pick
          label={t`Cut edge, compared with these`}
          value={wall}
          choices={(['clean', 'brown', 'black'] as const).map(
            (w) => [w, wallWords[w], <WallSample key={w} wall={w} />] as const,
          )}
          onPick={setWall}
          aside={<OffPhotoButton of={t`Cut edge`} onClick={() => setLooks('wall')} />}
        />
        <Pick
          label={t`Exit edge`}
          value={splinters}
          choices={(['none', 'fuzz', 'splinters', 'torn'] as const).map(
            (s) => [s, splinterWords[s], <EdgeSample key={s} splinters={s} />] as const,
          )}
          onPick={setSplinters}
          aside={<OffPhotoButton of={t`The edge`} onClick={() => setLooks('edge')} />}
        />
        <Pick
          label={t`Feed`}
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
          {t`That is piece ${piece}`}
        </Button>
      </Box>
      {/* Neither saw nor blade is told: whoever grades does not know the setting. */}
      {looks === 'wall' && (
        <WallPhoto
          of={{ thickness_mm: it.cut.thickness_mm, units }}
          onWall={setWall}
          onClose={() => setLooks(undefined)}
        />
      )}
      {looks === 'edge' && (
        <EdgePhoto
          lengthMm={it.edge_length_mm}
          units={units}
          onSplinters={setSplinters}
          onClose={() => setLooks(undefined)}
        />
      )}
    </Box>
  );
}

function Result({ trial: it }: { trial: TrialOf }) {
  return (
    <Box>
      <Typography variant="h2">{t`Result`}</Typography>
      <Box component="ul" sx={{ fontSize: 18, lineHeight: 1.45, pl: 2.5 }}>
        {it.says.map((s) => (
          <li key={s}>{s}.</li>
        ))}
      </Box>
      <TrialPlot trial={it} />
      <Box sx={{ color: 'text.secondary', fontSize: 14.5, mt: 1, maxWidth: 640 }}>
        {t`Exact permutation test: of all the ways to share these pieces between two settings, how many show a difference this large. Every piece is in the log and improves your figures.`}
      </Box>
    </Box>
  );
}
