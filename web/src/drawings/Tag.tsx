/** A person's tag, a stamped disc on a peg: who works here, or who is meant. */
import { ink } from './ink';
import { cutFace } from './theme';

/** At most two letters of a name. */
export const initials = (name: string) =>
  name
    .split(/\s+/)
    .map((part) => [...part][0] ?? '')
    .slice(0, 2)
    .join('')
    .toLocaleUpperCase();

interface Props {
  name: string;
  size?: number; // px
  worn?: boolean; // it is with somebody, not on its peg
}

export function Tag({ name, size = 56, worn }: Props) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 56 56"
      aria-hidden
      focusable="false"
      style={{ flex: 'none' }}
    >
      {!worn && <path d="M28 1V8" stroke={ink.ink} strokeWidth={3} strokeLinecap="round" />}
      <circle cx={28} cy={31} r={23} fill={worn ? ink.ink : ink.steel} stroke={ink.ink} strokeWidth={2} />
      <circle cx={28} cy={14.5} r={3.5} fill={ink.sheet} stroke={ink.ink} strokeWidth={1.5} />
      <text
        x={28}
        y={41}
        textAnchor="middle"
        fontFamily={cutFace}
        fontSize={19}
        fontWeight={700}
        fill={worn ? ink.paper : ink.ink}
      >
        {initials(name)}
      </text>
    </svg>
  );
}
