/**
 * A sentence whose words of the craft open what they mean: the first time each
 * of them stands in it. The server's sentences are read as they come, so a word
 * is found by how it is written, in the language that it is written in.
 */
import { Fragment } from 'react';
import type { TermId } from '../drawings/TermPicture';
import { spoken } from './spoken';
import { Term } from './Term';

const forms = Object.entries(spoken)
  .flatMap(([id, ways]) => ways.split('|').map((way) => [way.trim(), id as TermId] as const))
  .filter(([way]) => way !== '')
  .sort(([a], [b]) => b.length - a.length); // "side clearance" before "clearance"
const idOf = new Map(forms.map(([way, id]) => [way.toLowerCase(), id]));
const escaped = forms.map(([way]) => way.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'));
// No part of a longer word: a hook is one, hooked is none.
const pattern = new RegExp(`(?<![\\p{L}-])(${escaped.join('|')})(?![\\p{L}-])`, 'giu');

export function Worded({ children: text }: { children: string }) {
  const said = new Set<TermId>();
  return text.split(pattern).map((part, i) => {
    const id = i % 2 === 1 ? idOf.get(part.toLowerCase()) : undefined;
    if (!id || said.has(id)) return <Fragment key={i}>{part}</Fragment>;
    said.add(id);
    return (
      <Term key={i} of={id} within>
        {part}
      </Term>
    );
  });
}
