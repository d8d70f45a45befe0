/** The word for what is cut. */
import { t } from '@lingui/core/macro';
import { lazy, Suspense } from 'react';
import type { Material } from '../../api/types';
import { PopoverWord } from '../../ui/Word';

const MaterialPicker = lazy(() => import('./MaterialPicker').then((m) => ({ default: m.MaterialPicker })));

interface Props {
  value: string;
  materials: Material[];
  wrong?: boolean;
  onChoose: (id: string) => void;
}

export function MaterialWord({ value, materials, wrong, onChoose }: Props) {
  const said = materials.find((m) => m.id === value)?.name ?? value;
  return (
    <PopoverWord label={t`Material`} wrong={wrong} said={said}>
      {(close) => (
        <Suspense fallback={null}>
          <MaterialPicker
            {...{ value, materials }}
            onChoose={(id) => {
              close();
              onChoose(id);
            }}
          />
        </Suspense>
      )}
    </PopoverWord>
  );
}
