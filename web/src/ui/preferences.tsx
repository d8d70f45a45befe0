/** How this person, on this device, wants to read: the unit. Day or night is MUI's colour scheme. */
import { createContext, use, useState, type ReactNode } from 'react';
import type { Units } from '../api/types';

interface Preferences {
  units: Units;
  setUnits: (u: Units) => void;
}

const Context = createContext<Preferences | null>(null);
const KEY = 'corte.units';

export function PreferencesProvider({ children }: { children: ReactNode }) {
  const [units, set] = useState<Units>(() => (localStorage.getItem(KEY) === 'in' ? 'in' : 'mm'));
  const setUnits = (u: Units) => {
    localStorage.setItem(KEY, u);
    set(u);
  };
  return <Context value={{ units, setUnits }}>{children}</Context>;
}

export function usePreferences(): Preferences {
  const p = use(Context);
  if (!p) throw new Error('usePreferences outside PreferencesProvider');
  return p;
}
