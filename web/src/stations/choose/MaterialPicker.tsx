/** The materials to look through and to search, with what was cut last at their head. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { useState } from 'react';
import type { Material } from '../../api/types';
import { Swatch } from '../../drawings/Swatch';
import { TextBox } from '../../ui/TextBox';
import { kinds } from '../../cut/sentence';

const KEY = 'corte.materials';
const LAST = 5; // that are remembered

const lastUsed = () => JSON.parse(localStorage.getItem(KEY) ?? '[]') as string[];

/** Remembers what was cut, the latest first. */
function remember(...ids: string[]) {
  for (const id of ids)
    localStorage.setItem(KEY, JSON.stringify([id, ...lastUsed().filter((m) => m !== id)].slice(0, LAST)));
}

interface Props {
  value: string;
  materials: Material[];
  onChoose: (id: string) => void;
}

/** Materials under their headings: those cut last, then kind by kind. */
function headed(materials: Material[], wanted: string) {
  const words = wanted.toLowerCase().split(/\s+/).filter(Boolean);
  const found = materials.filter((m) => words.every((w) => m.name.toLowerCase().includes(w)));
  const out: { head: string; of: Material[] }[] = [];
  if (words.length === 0) {
    const last = lastUsed().flatMap((id) => materials.filter((m) => m.id === id));
    if (last.length > 0) out.push({ head: t`Cut last`, of: last });
  }
  for (const m of found) {
    const head = kinds[m.kind];
    const group = out.find((g) => g.head === head);
    if (group) group.of.push(m);
    else out.push({ head, of: [m] });
  }
  return out;
}

export function MaterialPicker({ value, materials, onChoose }: Props) {
  const choose = (id: string) => {
    remember(value, id);
    onChoose(id);
  };
  const [wanted, setWanted] = useState('');
  const groups = headed(materials, wanted);
  const first = groups[0]?.of[0];
  return (
    <Box>
      <TextBox
        label={t`Find a material`}
        value={wanted}
        autoFocus
        onChange={(e) => setWanted(e.target.value)}
        onKeyDown={(e) => {
          if (e.key !== 'Enter' || !first || wanted.trim() === '') return;
          e.preventDefault(); // or the word, which has the focus again, would open once more
          choose(first.id);
        }}
        inputProps={{ style: { fontSize: 18 } }}
      />
      <Box
        role="group"
        aria-label={t`Materials`}
        sx={{ mt: 1, mx: -2, maxHeight: 'min(52vh, 420px)', overflow: 'auto' }}
      >
        {groups.map((g) => (
          <Box key={g.head} role="group" aria-label={g.head}>
            <Box
              aria-hidden
              sx={{
                px: 2,
                py: 0.5,
                fontSize: 14,
                fontWeight: 650,
                color: 'text.secondary',
                position: 'sticky',
                top: 0,
                bgcolor: 'background.paper',
              }}
            >
              {g.head}
            </Box>
            {g.of.map((m) => (
              <ButtonBase
                key={m.id}
                aria-pressed={m.id === value}
                onClick={() => choose(m.id)}
                sx={{
                  width: '100%',
                  minHeight: 48,
                  px: 2,
                  gap: 1.5,
                  justifyContent: 'flex-start',
                  textAlign: 'left',
                  fontSize: 17,
                  '&[aria-pressed=true]': { fontWeight: 700, bgcolor: 'action.selected' },
                  '&:focus-visible': { outlineOffset: -3 },
                }}
              >
                <Swatch material={m} />
                {m.name}
              </ButtonBase>
            ))}
          </Box>
        ))}
        {groups.length === 0 && (
          <Box role="status" sx={{ px: 2, py: 1 }}>
            {t`No material has that name. Choose one of similar hardness.`}
          </Box>
        )}
      </Box>
    </Box>
  );
}
