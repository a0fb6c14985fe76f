import { useState } from 'react';
import { quantityKept, quantityShown, type FieldUnit } from './typedQuantity';

/**
 * A typed quantity as it stands in its field. What is typed here stays as it was typed; what comes from elsewhere is shown
 * as the shop counts.
 * @param value as its form keeps it, in mm, °C or K
 */
export function useQuantity(
  value: string,
  unit: FieldUnit | undefined,
  onChange: (kept: string) => void,
): { shown: string; type: (typed: string) => void } {
  const [own, setOwn] = useState<{ kept: string; typed: string }>();
  return {
    shown: own?.kept === value ? own.typed : quantityShown(value, unit),
    type: (typed) => {
      const kept = quantityKept(typed, unit);
      setOwn({ kept, typed });
      onChange(kept);
    },
  };
}
