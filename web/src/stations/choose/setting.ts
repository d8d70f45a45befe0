/** What is shown of a blade at a height, on a wide page (SettingPanel.tsx) and on a phone (Phone.tsx). */
import type { ReactNode } from 'react';
import type { Blade, Cut, Material, Option, Pin, Plan, Saw, Setting, Sweep, Units } from '../../api/types';
import type { Answers } from '../../cut/cut';

export interface SettingPanelProps {
  plan: Plan;
  cut: Cut;
  saw: Saw;
  material: Material | undefined;
  blade: Blade;
  option: Option;
  setting: Setting;
  schools: Sweep['schools'];
  passes: Sweep['passes'];
  sweep: Setting[]; // at every step of height; empty until it is known
  blades: Map<string, Blade>;
  pins: Pin[];
  card: string; // where the setup card of this setting stands
  units: Units;
  problem: string | undefined;
  onHeight: (mm: number) => void;
  onPin: () => void;
  onMount: () => void;
  onUnpin: (p: Pin) => void;
  onBlade: (id: string) => void; // take another blade instead
  onYes: (answers: Answers) => void; // to a question that stands against the cut
  list: ReactNode; // the other blades
  children: ReactNode; // what is done when the cut is made
}

/** What a phone opens over the setting. */
export type PhoneViewName = 'blades' | 'end' | 'heights' | 'hold' | 'compare';
