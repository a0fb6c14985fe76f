import type { AdjusterLearned } from '@even-bed/core';

/** What has been learned of an adjuster, in a sentence. `name`: as its machine's page says it. */
export function learnedWords({ way, share, uncertainty, likely }: AdjusterLearned, name: string): string {
  const percent = Math.round(100 * Math.abs(1 - share));
  const give = `give or take ${Math.round(100 * uncertainty)} %`;
  switch (way) {
    case 'as-said':
      return `${name} does what its thread says.`;
    case 'other-thread':
      return `${name} moves about ${percent} % ${share < 1 ? 'less' : 'more'} than its thread says, ${give}: another thread, or it sticks or slips a little.`;
    case 'stuck':
      return `${name} hardly moves the bed: it is stuck, slips, or its nut turns along.`;
    case 'reversed':
      return `${name} moves the bed the other way round than is written down: clockwise and anticlockwise are swapped.`;
    case null:
      return likely['as-said'] > 0.5
        ? `${name} seems to do what its thread says; more rounds would tell.`
        : `${name} may not do what its thread says: ${Math.round(100 * (1 - likely['as-said']))} % likely. More rounds would tell.`;
  }
}

/** An adjuster that plans take otherwise than it is written down. */
export function pitchShareWords(share: number, name: string): string {
  const percent = Math.round(100 * Math.abs(1 - Math.abs(share)));
  const size = percent === 0 ? '' : ` ${percent} % ${Math.abs(share) < 1 ? 'less' : 'more'}`;
  return share > 0 ? `${name} moves${size}` : `${name} turns the other way round${size ? `, and moves${size}` : ''}`;
}
