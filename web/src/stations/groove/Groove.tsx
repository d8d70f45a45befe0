/** Grooves, the piece first: what goes in is measured, and every way that this shop has is laid out. */
import { plural, t } from '@lingui/core/macro';
import { Trans } from '@lingui/react/macro';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useRef, useState, type ReactNode } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { useGroovePlan, useGrooves, useStartGroove } from '../../api/groove';
import { useSaws } from '../../api/rack';
import { useMaterials } from '../../api/shop';
import type { Cut, GrooveRow, GrooveStart, Material, Saw, Units } from '../../api/types';
import { usePreferences } from '../../ui/preferences';
import { formatSetting, formatThin } from '../../measure/format';
import { NumberField } from '../../ui/Fields';
import { ChoiceWord, LengthWord } from '../../ui/Word';
import { Findings } from '../../cut/Findings';
import { finishes, finishWord, kinds, picks } from '../../cut/sentence';
import { useAsk, type Said } from './ask';
import { Piece } from './Piece';
import { WayDetail } from './WayDetail';
import { Ways } from './Ways';
import { useDates } from '../../ui/useDates';
import { FirstThings } from '../../ui/FirstThings';
import { Outline } from '../../ui/Outline';
import { Trouble } from '../../ui/Notice';

export function Groove() {
  const { units } = usePreferences();
  const [params] = useSearchParams();
  const saws = useSaws();
  const materials = useMaterials();
  const { cut, said, ask, say, changeCut, answer } = useAsk(saws.data, materials.data);
  const plan = useGroovePlan(ask, units);
  const start = useStartGroove();
  const key = useRef(crypto.randomUUID());
  const go = useNavigate();
  const [wanted, setWanted] = useState<string>();
  const saw = saws.data?.find((s) => s.id === cut?.saw_id);
  const failed = plan.error ?? start.error ?? saws.error;
  const shown = ask && !plan.error ? plan.data : undefined;
  const stops = shown?.findings.some((f) => f.verdict === 'stop'); // whatever cuts it
  const way = shown?.ways.find((w) => w.blade_id === wanted) ?? shown?.ways[0];
  // Laid out at once, with its first answer where one is asked for.
  const ready =
    Boolean(cut && saw && materials.data && (!ask || plan.data || plan.error)) || saws.data?.length === 0;
  const begin = (body: Omit<GrooveStart, 'units'>) =>
    start.mutate(
      { key: key.current, body: { ...body, units } },
      {
        onSuccess: (g) => void go(`/groove/${g.id}?${params}`),
        onError: () => (key.current = crypto.randomUUID()),
      },
    );
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 1.5 }}>
      <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 2, flexWrap: 'wrap' }}>
        <Typography variant="h1" sx={{ flex: 1 }}>{t`Grooves`}</Typography>
        <Button component={Link} to={`/groove/joints?${params}`} size="small">
          {t`Tenons, box joints, dovetails, folds`}
        </Button>
      </Box>
      {saws.data?.length === 0 && <FirstThings missing="saw" />}
      {ready && cut && saw && materials.data && saws.data && (
        <Sentence
          {...{ cut, said, saw, units }}
          saws={saws.data}
          materials={materials.data}
          onCut={changeCut}
          onSay={(part) => say(() => part)}
        />
      )}
      {failed && <Trouble sx={{ my: 1 }}>{failed.message}</Trouble>}
      {shown && stops && (
        <Findings findings={shown.findings.filter((f) => f.verdict === 'stop')} onYes={answer} />
      )}
      {!ready && !failed && <Outline rows={4} height={140} />}
      <Box
        sx={{
          display: ready ? 'grid' : 'none',
          gridTemplateColumns: { xs: 'minmax(0,1fr)', md: 'minmax(380px, 5fr) minmax(0, 7fr)' },
          columnGap: 4,
          rowGap: 2,
          borderTop: '2px solid',
          borderColor: 'text.primary',
          mt: 1,
          pt: 1,
        }}
      >
        <Box sx={{ minWidth: 0 }}>
          <Piece
            readings={said.piece}
            fit={said.fit}
            plan={shown}
            units={units}
            onRead={(change) => say((now) => ({ piece: change(now.piece) }))}
            onFit={(fit) => say(() => ({ fit }))}
          />
          {shown && !stops && (
            <Ways ways={shown.ways} chosen={way?.blade_id} units={units} onChoose={(id) => setWanted(id)} />
          )}
        </Box>
        <Box sx={{ minWidth: 0 }}>
          {shown && !stops && way && cut && (
            <WayDetail
              way={way}
              plan={shown}
              cut={cut}
              saw={saw}
              units={units}
              busy={start.isPending}
              onStart={() => begin({ ask, blade_id: way.blade_id })}
            />
          )}
          {!ask && <Earlier units={units} busy={start.isPending} onCallUp={(like) => begin({ like })} />}
          {shown && shown.earlier.length > 0 && (
            <Rows
              name={t`Made before in the same stock`}
              rows={shown.earlier}
              units={units}
              busy={start.isPending}
              onCallUp={(like) => begin({ like })}
            />
          )}
        </Box>
      </Box>
    </Box>
  );
}

const forms = [
  { value: 'groove', name: t`A groove` },
  { value: 'rabbet', name: t`A rabbet` },
] as const;
const ways = { rip: t`along the grain`, crosscut: t`across the grain`, sheet: t`in sheet` } as const;

interface SentenceProps {
  cut: Cut;
  said: Said;
  saw: Saw;
  saws: Saw[];
  materials: Material[];
  units: Units;
  onCut: (part: Partial<Cut>) => void;
  onSay: (part: Partial<Said>) => void;
}

/** The groove as a sentence whose words are its controls. */
function Sentence({ cut, said, saw, saws, materials, units, onCut, onSay }: SentenceProps) {
  const sizes = picks[units];
  // A form that is not a groove's is put right with the first word that is said.
  const say = (part: Partial<Cut>) => onCut({ form: cut.form, depth_mm: cut.depth_mm, ...part });
  const length = (
    key: 'depth_mm' | 'thickness_mm' | 'length_mm' | 'width_mm',
    label: string,
    list: number[],
  ) => (
    <LengthWord
      label={label}
      mm={cut[key]}
      units={units}
      picks={list}
      onChoose={(mm) => say({ [key]: mm })}
    />
  );
  const deep = length('depth_mm', t`Depth`, sizes.d);
  const thick = length('thickness_mm', t`Thickness`, sizes.t);
  const long = length('length_mm', t`Length`, sizes.l);
  const wide = length('width_mm', t`Width`, sizes.w);
  return (
    <Box
      component="section"
      aria-label={t`The groove`}
      sx={{ fontSize: { xs: 20, sm: 21 }, lineHeight: { xs: 1.65, md: 1.5 } }}
    >
      <ChoiceWord
        label={t`Form`}
        value={cut.form === 'rabbet' ? 'rabbet' : 'groove'}
        choices={[...forms]}
        onChoose={(form) => say({ form })}
      />{' '}
      <Trans>
        {deep} deep in {thick}
      </Trans>{' '}
      <Whole>
        <ChoiceWord
          label={t`Material`}
          value={cut.material}
          choices={materials.map((m) => ({ value: m.id, name: m.name, group: kinds[m.kind] }))}
          onChoose={(material) => say({ material })}
        />
        ,
      </Whole>{' '}
      <Whole>
        <ChoiceWord
          label={t`Direction`}
          value={cut.direction}
          choices={saw.directions.map((d) => ({ value: d, name: ways[d] }))}
          onChoose={(direction) => say({ direction })}
        />
        ,
      </Whole>{' '}
      <Trans>
        {long} long and {wide} wide
      </Trans>
      {cut.form === 'groove' && (
        <>
          ,{' '}
          <LengthWord
            label={t`From the edge`}
            mm={said.edge}
            units={units}
            picks={sizes.p}
            onChoose={(edge) => onSay({ edge: edge ?? 0 })}
          />{' '}
          {t`from the edge`}
        </>
      )}
      ;{' '}
      <Box
        component="span"
        sx={{ display: 'inline-block', width: 84, verticalAlign: 'middle', mt: 1.25, mb: 0.5 }}
      >
        <NumberField
          label={t`How many`}
          value={said.count}
          onNumber={(v) => v !== undefined && onSay({ count: Math.max(1, Math.round(v)) })}
        />
      </Box>{' '}
      {t`pieces`},{' '}
      <Whole>
        <ChoiceWord
          label={t`Finish`}
          value={cut.finish}
          choices={finishes}
          onChoose={(finish) => say({ finish })}
        >
          {finishWord[cut.finish]}
        </ChoiceWord>
        ,
      </Whole>{' '}
      {t`on the`}{' '}
      <Whole>
        <ChoiceWord
          label={t`Saw`}
          value={cut.saw_id}
          choices={saws.map((s) => ({ value: s.id, name: s.name }))}
          onChoose={(saw_id) => onCut({ saw_id })}
        />
        .
      </Whole>
    </Box>
  );
}

/** A word and the stop after it, which do not part at the end of a line. */
const Whole = ({ children }: { children: ReactNode }) => (
  <Box component="span" sx={{ whiteSpace: 'nowrap' }}>
    {children}
  </Box>
);

function Earlier({ units, busy, onCallUp }: { units: Units; busy: boolean; onCallUp: (id: string) => void }) {
  const grooves = useGrooves(units);
  if (grooves.data?.length === 0) return <Box sx={{ fontSize: 17 }}>{t`No grooves yet.`}</Box>;
  return <Rows name={t`Grooves you made`} rows={grooves.data ?? []} {...{ units, busy, onCallUp }} />;
}

function Rows({
  name,
  rows,
  units,
  busy,
  onCallUp,
}: {
  name: string;
  rows: GrooveRow[];
  units: Units;
  busy: boolean;
  onCallUp: (id: string) => void;
}) {
  const { short } = useDates();
  return (
    <Box component="section" aria-label={name} sx={{ mt: 1 }}>
      <Typography variant="h2">{name}</Typography>
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {rows.map((g) => (
          <Box
            component="li"
            key={g.id}
            sx={{
              borderTop: '1px solid',
              borderColor: 'divider',
              py: 0.75,
              display: 'flex',
              gap: 1,
              alignItems: 'center',
              flexWrap: 'wrap',
            }}
          >
            <Box sx={{ flex: 1, minWidth: 220 }}>
              <Link to={`/groove/${g.id}`}>
                {t`${formatThin(g.target_mm, units)} wide, ${formatSetting(g.depth_mm, units)} deep, ${g.material_name}`}
              </Link>
              <Box sx={{ color: 'text.secondary', fontSize: 15 }}>
                {t`${g.blade_name} on ${g.saw_name}: ${g.says}. ${g.ended ? t`${g.made} made after ${plural(g.tests, { one: '# test', other: '# tests' })}` : t`In progress`}, ${short(g.at)}.`}
              </Box>
            </Box>
            {g.ended && g.made > 0 && (
              <Button size="small" disabled={busy} onClick={() => onCallUp(g.id)}>
                {t`Reuse these settings`}
              </Button>
            )}
          </Box>
        ))}
      </Box>
    </Box>
  );
}
