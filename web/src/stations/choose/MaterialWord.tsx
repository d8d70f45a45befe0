/** The word for what is cut: a list to look through and to search, with what was cut last at its head. */
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { useState } from 'react';
import type { Material } from '../../api/types';
import { Swatch } from '../../drawings/Swatch';
import { TextBox } from '../../ui/TextBox';
import { PopoverWord } from '../../ui/Word';
import { kinds } from './sentence';

const KEY = 'corte.materials';
const LAST = 5; // that are remembered

const lastUsed = () => JSON.parse(localStorage.getItem(KEY) ?? '[]') as string[];

function remember(id: string) {
  localStorage.setItem(KEY, JSON.stringify([id, ...lastUsed().filter((m) => m !== id)].slice(0, LAST)));
}

interface Props {
  value: string;
  materials: Material[];
  wrong?: boolean;
  onChoose: (id: string) => void;
}

export function MaterialWord({ value, materials, wrong, onChoose }: Props) {
  const said = materials.find((m) => m.id === value)?.name ?? value;
  return (
    <PopoverWord label="Material" wrong={wrong} said={said}>
      {(close) => (
        <Picker
          {...{ value, materials }}
          onChoose={(id) => {
            close();
            remember(value);
            remember(id);
            onChoose(id);
          }}
        />
      )}
    </PopoverWord>
  );
}

/** Materials under their headings: those cut last, then kind by kind. */
function headed(materials: Material[], wanted: string) {
  const words = wanted.toLowerCase().split(/\s+/).filter(Boolean);
  const found = materials.filter((m) => words.every((w) => m.name.toLowerCase().includes(w)));
  const out: { head: string; of: Material[] }[] = [];
  if (words.length === 0) {
    const last = lastUsed().flatMap((id) => materials.filter((m) => m.id === id));
    if (last.length > 0) out.push({ head: 'Cut last', of: last });
  }
  for (const m of found) {
    const head = kinds[m.kind];
    const group = out.find((g) => g.head === head);
    if (group) group.of.push(m);
    else out.push({ head, of: [m] });
  }
  return out;
}

function Picker({ value, materials, onChoose }: Omit<Props, 'wrong'>) {
  const [wanted, setWanted] = useState('');
  const groups = headed(materials, wanted);
  const first = groups[0]?.of[0];
  return (
    <Box>
      <TextBox
        label="Find a material"
        value={wanted}
        autoFocus
        onChange={(e) => setWanted(e.target.value)}
        onKeyDown={(e) => {
          if (e.key !== 'Enter' || !first || wanted.trim() === '') return;
          e.preventDefault(); // or the word, which has the focus again, would open once more
          onChoose(first.id);
        }}
        inputProps={{ style: { fontSize: 18 } }}
      />
      <Box
        role="group"
        aria-label="Materials"
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
                onClick={() => onChoose(m.id)}
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
            No material of the table is called that. Take the nearest in hardness: its figures are the nearest
            too.
          </Box>
        )}
      </Box>
    </Box>
  );
}
