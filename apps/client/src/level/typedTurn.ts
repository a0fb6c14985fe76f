import { numberIn } from '../ui/numberIn';
import { currentManner } from '../ui/manner';

/** No screw is turned further in one go, turns. */
const MOST = 10;

/** How a turn of one's own is typed: in eighths, or in degrees where the shop says turns so. */
export function turnUnit(): { name: 'eighths' | 'degrees'; perTurn: number; example: string } {
  return currentManner().turns === 'degrees'
    ? { name: 'degrees', perTurn: 360, example: '90' }
    : { name: 'eighths', perTurn: 8, example: '3' };
}

/** Turns that were typed, without a sign; null: none that can be. */
export function typedTurn(text: string): number | null {
  const turns = numberIn(text) / turnUnit().perTurn;
  return turns > 0 && turns <= MOST ? turns : null;
}
