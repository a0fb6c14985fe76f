import type { TestPlateRead } from '@even-bed/core/level/testPlate';

/** What thin pieces over a platform say by where they failed. */
export function piecesWords({ verdict, side }: TestPlateRead): string {
  switch (verdict) {
    case 'held':
      return 'All nine hold.';
    case 'tilt':
      return `The ${side} fails and its opposite holds: a tilt.`;
    case 'flatness':
      return 'The centre, or here and there, after a proven level: the platform is not flat.';
    case 'exposure':
      return 'All fail after a proven level: exposure.';
    case 'zero':
      return 'All fail, and its level isn’t proven: level and zero first.';
    case 'level-first':
      return 'Here and there, and its level isn’t proven: that can’t be told apart yet. Level it first.';
  }
}
