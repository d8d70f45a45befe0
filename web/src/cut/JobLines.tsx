/** A list as it is typed or pasted, and beside it what is made of every line. */
import { plural, t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import { useMaterials } from '../api/shop';
import type { JobLine, Units } from '../api/types';
import { Verdict } from '../ui/Verdict';
import { cutFace } from '../drawings/theme';
import { doneTo, sizeOf, stages } from './jobWords';

interface TyperProps {
  text: string;
  onText: (text: string) => void;
}

/** The sheet that one writes on. */
export function Typer({ text, onText }: TyperProps) {
  return (
    <Box
      component="textarea"
      aria-label={t`List`}
      value={text}
      rows={14}
      spellCheck={false}
      onChange={(e: { target: { value: string } }) => onText(e.target.value)}
      placeholder={t`Platforms:
24 battens, 38 × 64 white pine, 1,200 long, crosscut
8 posts, 900 long
6 lids, 18 × 600 birch ply, 1,200 long, show`}
      sx={{
        width: '100%',
        boxSizing: 'border-box',
        p: 1.5,
        fontFamily: cutFace,
        fontSize: 18,
        lineHeight: '32px',
        color: 'text.primary',
        border: '1.5px solid',
        borderColor: 'text.primary',
        borderRadius: 0,
        resize: 'vertical',
        bgcolor: 'background.paper',
        backgroundImage: (th) =>
          `repeating-linear-gradient(transparent 0 31px, ${th.vars?.palette.divider ?? ''} 31px 32px)`,
        backgroundPosition: '0 12px',
        backgroundAttachment: 'local',
        '&::placeholder': { color: 'text.secondary', opacity: 1 },
      }}
    />
  );
}

const guessed: Record<string, string> = {
  pieces: t`one piece`,
  direction: t`the direction`,
  finish: t`the finish`,
};

/** Every line as it was understood. */
export function Lines({ lines, units }: { lines: JobLine[]; units: Units }) {
  const materials = useMaterials().data;
  const bad = lines.filter((l) => l.faults.length > 0).length;
  return (
    <Box>
      <Box role="status" sx={{ fontWeight: 650, mb: 1 }}>
        {bad > 0
          ? plural(bad, {
              one: '# line needs a fix before you can save. The reason is below it.',
              other: '# lines need a fix before you can save. The reason is below each.',
            })
          : plural(lines.length, { one: '# line understood.', other: 'All # lines understood.' })}
      </Box>
      <Box component="ol" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {lines.map((l, i) => {
          const heads = l.row.assembly && l.row.assembly !== lines[i - 1]?.row.assembly;
          return (
            <Box component="li" key={l.line}>
              {heads && <Box sx={{ fontWeight: 700, mt: 1 }}>{l.row.assembly}</Box>}
              <Line
                line={l}
                units={units}
                material={materials?.find((m) => m.id === l.row.material)?.name ?? l.row.material}
              />
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}

function Line({ line: l, units, material }: { line: JobLine; units: Units; material: string }) {
  const bad = l.faults.length > 0;
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: '52px minmax(0, 1fr)',
        columnGap: 1.5,
        py: 0.75,
        borderTop: '1px solid',
        borderColor: 'divider',
      }}
    >
      <Box sx={{ fontSize: 22, fontWeight: 700, textAlign: 'right' }}>
        {bad && !l.row.pieces ? '?' : l.row.pieces}
      </Box>
      <Box sx={{ minWidth: 0 }}>
        <Box sx={{ fontWeight: 650, overflowWrap: 'anywhere' }}>{l.row.name}</Box>
        <Box sx={{ color: 'text.secondary', fontSize: 15 }}>
          {sizeOf(l.row, units)} {material}: {doneTo(l.row, units)}; {stages[l.row.in_stage]}
        </Box>
        {l.guessed.length > 0 && !bad && (
          <Box sx={{ fontSize: 14.5, borderBottom: '1.5px dotted', display: 'inline' }}>
            {t`Assumed: ${l.guessed.map((g) => guessed[g] ?? g).join(', ')}`}
          </Box>
        )}
        {l.faults.map((f) => (
          <Box
            key={f.field + f.what}
            sx={{ color: 'error.main', display: 'flex', gap: 1, alignItems: 'baseline' }}
          >
            <Verdict verdict="stop" size={13} />
            <span>{t`Line ${l.line}: ${f.what}`}</span>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
