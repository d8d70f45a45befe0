/** The words of the craft that Corte uses, each in a sentence or two. The page of words and every term open the same. */
import { t } from '@lingui/core/macro';
import type { TermId } from '../drawings/TermPicture';

export const terms: Record<TermId, { name: string; says: string }> = {
  arc: {
    name: t`Arc`,
    says: t`The path a tooth takes through the wood. A low blade makes it long: more teeth cutting, thinner chips, more rubbing and heat.`,
  },
  bite: {
    name: t`Chip thickness`,
    says: t`How thick a chip each tooth cuts. Too thin rubs and burns. Too thick tears out and stalls.`,
  },
  'burn-risk': {
    name: t`Burn risk`,
    says: t`How many of 100 cuts like this would show burn marks.`,
  },
  'feed-range': {
    name: t`Feed range`,
    says: t`The feed rates at which this cut comes out well. Too slow and it burns; too fast and it tears out, bogs down or is hard to control. The pointer is the suggested feed rate. Where an end fades, it is not known exactly.`,
  },
  heel: {
    name: t`Toe-in or toe-out`,
    says: t`The blade isn't parallel to the miter slot. Toe-in means its rear is closer to the fence: it pinches and burns the wood and can kick back. Don't rip with a toe-in of 0.2 mm or more.`,
  },
  hook: {
    name: t`Hook`,
    says: t`How far a tooth leans into the cut, in degrees from a line to the center of the blade. A high hook angle pulls the wood in. A negative one holds it back.`,
  },
  kerf: { name: t`Kerf`, says: t`The width of the slot the blade cuts, measured from tip to tip.` },
  pitch: {
    name: t`Resin`,
    says: t`Resin and dust baked onto the teeth. It rubs and heats, and feels like a dull blade. Cleaning removes it.`,
  },
  proud: { name: t`Height above the stock`, says: t`How far the teeth rise above the stock.` },
  raker: {
    name: t`Raker`,
    says: t`A flat tooth after each group of beveled ones. It sits a little lower and cleans the bottom of the kerf.`,
  },
  room: {
    name: t`Feed range width`,
    says: t`How wide the feed range is: fastest over slowest. From about 2 it is easy to hit. Under 1 no feed rate works.`,
  },
  'run-out': {
    name: t`Run-out`,
    says: t`How far the rim wobbles sideways in one turn. The arbor, the flanges or the plate can cause it.`,
  },
  'side-clearance': {
    name: t`Side clearance`,
    says: t`How far the tip reaches past the plate on each side. Too little and the plate rubs. Uneven sides make the blade drift.`,
  },
  'zero-clearance': {
    name: t`Zero clearance`,
    says: t`A throat plate that the blade itself has cut. There is no gap beside the teeth, so it supports the wood and reduces tear-out.`,
  },
};
