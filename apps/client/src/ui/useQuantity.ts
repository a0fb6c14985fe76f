import { useState } from 'react';
import { currentManner } from './manner';
import { quantityKept, quantityShown, type FieldUnit } from './typedQuantity';

/**
 * A typed quantity as it stands in its field. What is typed here stays as it was typed; what comes from elsewhere is shown
 * as the shop counts, and so is what was typed before the shop changed its units.
 * @param value as its form keeps it, in mm, °C or K
 */
export function useQuantity(
  value: string,
  unit: FieldUnit | undefined,
  onChange: (kept: string) => void,
): { shown: string; type: (typed: string) => void } {
  const { units } = currentManner();
  const [own, setOwn] = useState<{ kept: string; typed: string; units: string }>();
  return {
    shown: own?.kept === value && own.units === units ? own.typed : quantityShown(value, unit),
    type: (typed) => {
      const kept = quantityKept(typed, unit);
      setOwn({ kept, typed, units });
      onChange(kept);
    },
  };
}
