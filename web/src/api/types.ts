/** Short names for the contract's schemas. */
import type { components } from './schema';

type Schemas = components['schemas'];
export type Units = Schemas['Units'];
export type Cut = Schemas['Cut'];
export type Plan = Schemas['Plan'];
export type Option = Schemas['Option'];
export type Stopped = Schemas['Stopped'];
export type Setting = Schemas['Setting'];
export type Sweep = Schemas['Sweep'];
export type Face = Schemas['Face'];
export type FeedWindow = Schemas['Window'];
export type Blade = Schemas['Blade'];
export type Saw = Schemas['Saw'];
export type Shop = Schemas['Shop'];
export type Material = Schemas['Material'];
export type Verdict = Schemas['Verdict'];
export type Support = Schemas['Support'];
export type Direction = Schemas['Direction'];
export type Finish = Schemas['Finish'];
export type Grind = Schemas['Grind'];
export type Wall = Schemas['Wall'];
export type Splinters = Schemas['Splinters'];
export type CutMade = Schemas['CutMade'];
export type LogEntry = Schemas['LogEntry'];
export type Problem = Schemas['Problem'];
