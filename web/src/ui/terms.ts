/** The words of the craft that Corte uses, each in a sentence or two. The page of words and every term open the same. */
import { t } from '@lingui/core/macro';
import type { TermId } from '../drawings/TermPicture';

export const terms: Record<TermId, { name: string; says: string }> = {
  arc: {
    name: t`Arc`,
    says: t`The way that a tooth travels through the wood. A low blade has a long one: more teeth at work, thinner chips, more rubbing and heat.`,
  },
  bite: {
    name: t`Bite`,
    says: t`How thick the chip is that one tooth takes. Too thin rubs and scorches, too thick splinters and stalls.`,
  },
  'burn-risk': {
    name: t`Burn risk`,
    says: t`How many of a hundred walls cut like this would show scorch.`,
  },
  'feed-range': {
    name: t`Feed range`,
    says: t`The feed rates at which this cut comes out well. Too slow and it burns; too fast and it tears out, bogs down or is hard to control. The pointer is the suggested feed rate. Where an end fades, it is not known exactly.`,
  },
  heel: {
    name: t`Heel`,
    says: t`The blade is not parallel to the miter slot: its rear is nearer to the fence than its front, or further from it. Toward the fence it pinches the work and burns it; from 0.2 mm on, don’t rip.`,
  },
  hook: {
    name: t`Hook`,
    says: t`How far a tooth leans into the cut, in degrees from a line to the middle of the blade. A strong hook pulls the work in; a negative one holds back.`,
  },
  kerf: { name: t`Kerf`, says: t`The width of the slot that the teeth leave, from tip to tip.` },
  pitch: {
    name: t`Pitch`,
    says: t`Resin and dust baked onto the teeth. It rubs, heats, and feels like a dull blade; washing takes it off.`,
  },
  proud: { name: t`Proud`, says: t`How far the teeth stand out over the work.` },
  raker: {
    name: t`Raker`,
    says: t`A flat tooth after a group of pointed ones, a little lower: it clears the bottom that they have cut at the edges.`,
  },
  room: {
    name: t`Room`,
    says: t`How wide a feed range is: its quick end over its slow end. Under 1 it is shut, from about 2 a hand finds it easily.`,
  },
  'run-out': {
    name: 'Run-out',
    says: t`How far the rim sways to the sides in one turn, from arbor, flanges or plate.`,
  },
  'side-clearance': {
    name: t`Side clearance`,
    says: t`How far a tip stands out over the plate, on each side. Too little and the plate rubs; more on one side and the blade wanders.`,
  },
  'zero-clearance': {
    name: t`Zero clearance`,
    says: t`An insert or a board that the blade itself has cut: no gap beside the teeth, so the wood there is held where they leave it.`,
  },
};
