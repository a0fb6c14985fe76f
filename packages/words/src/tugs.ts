import type { ZeroExpiry } from '@even-bed/core';
import type { Corner, TugsRead } from '@even-bed/core/level/tugs';

const CORNERS: Record<Corner, string> = {
  'rear-left': 'rear left',
  'front-right': 'front right',
  'rear-right': 'rear right',
  'front-left': 'front left',
};

/** A corner as people say it. */
export const cornerWords = (corner: Corner): string => CORNERS[corner];

const listed = (corners: readonly Corner[]) => corners.map(cornerWords).join(' and ');
const capital = (text: string) => text[0]!.toUpperCase() + text.slice(1);

/** What the tugs of four sheets say, and what hands do next. */
export function tugWords({ verdict, at, than, order }: Pick<TugsRead, 'verdict' | 'at' | 'than' | 'order'>): string {
  const crosswise = `tighten crosswise, ${order.map(cornerWords).join(', ')}`;
  switch (verdict) {
    case 'even':
      return 'Alike at all four: it is level. Now zero.';
    case 'even-tighter':
      return 'Alike at all four, a hair tighter than meant: it is level, and zero takes the rest.';
    case 'even-looser':
      return 'Alike at all four, a hair looser than meant: it is level, and zero takes the rest.';
    case 'corner':
    case 'side':
    case 'mixed':
      return `${capital(listed(at))} ${at.length === 1 ? 'is' : 'are'} ${than} than the rest: loosen all, press in the middle, ${crosswise}.`;
    case 'rocks':
      return `${capital(listed(at))} are looser, across from each other: it rocks. Look for a crumb or tape first; no screw cures that.`;
    case 'all-loose':
      return 'All slide out: it does not lie on them. Loosen all, press it down, tighten while it is pressed.';
    case 'all-tight':
      return 'All too tight: loosen all, let it rise by itself, press less.';
  }
}

const SINCE: Record<ZeroExpiry, string> = {
  film: 'the new film',
  screws: 'the last levelling',
  platform: 'the platform was off',
  stack: 'the stack changed',
  home: 'home was moved',
};

/** Why zero no longer holds: "Zero is from before the new film". */
export const zeroExpiredWords = (why: ZeroExpiry): string => `Zero is from before ${SINCE[why]}`;
