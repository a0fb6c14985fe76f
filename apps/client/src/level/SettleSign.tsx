import type { HeightPoint, ParseOptions } from '@even-bed/core';
import { settleSign } from '@even-bed/core/level/settleSign';
import { useState } from 'react';
import { ActionButton } from '../ui/ActionButton';
import { Choice } from '../ui/Choice';
import { DialogFrame } from '../ui/DialogFrame';
import { length, signedLength } from '../ui/formatHeight';
import { Words } from '../ui/Words';

interface Props {
  /** As they stand now: read with the sign that is taken. */
  points: readonly HeightPoint[];
  plus: NonNullable<ParseOptions['plus']>;
  onSettled: (plus: NonNullable<ParseOptions['plus']>) => void;
  onClose: () => void;
}

const PLACES = ['front left', 'front right', 'rear left', 'rear right', 'middle'] as const;
type Place = (typeof PLACES)[number];

/** What + means, from a place that was made higher on purpose. */
export function SettleSign({ points, plus, onSettled, onClose }: Props) {
  const [place, setPlace] = useState<Place | null>(null);
  // As it was printed: with the other sign where + was taken to mean lower.
  const printed = plus === 'higher' ? points : points.map((point) => ({ ...point, z: -point.z }));
  const read = place && points.length >= 5 ? settleSign(printed, placeIn(points, place)) : null;
  return (
    <DialogFrame open title="What + means" onClose={onClose} testID="settle-sign">
      <Words>
        Lay a few tenths under the probe at one corner, a shim or a folded card, and read the map again with it there.
        Then say where it lay. Until this is settled, a map that is off and one that is turned over look alike.
      </Words>
      <Choice
        label="It lay at"
        narrow
        options={PLACES.map((value) => ({ value, label: value }))}
        value={place}
        onChange={setPlace}
        testID="sign-at"
      />
      {points.length < 5 ? <Words tone="stop">At least five readings are needed.</Words> : null}
      {read ? (
        <Words bold live testID="sign-read">
          {read.plus === null
            ? `It stands out by ${length(Math.abs(read.stands), 2)} only; more than ${length(read.needed, 2)} would tell. Lay something thicker.`
            : `There it was printed as ${signedLength(read.stands, 2)} against the rest: + means ${read.plus}.`}
        </Words>
      ) : null}
      <ActionButton
        label={read?.plus ? `Take it: + means ${read.plus}` : 'Take it'}
        kind="main"
        disabled={!read?.plus}
        onPress={() => {
          onSettled(read!.plus!);
          onClose();
        }}
        testID="sign-take"
      />
    </DialogFrame>
  );
}

function placeIn(points: readonly HeightPoint[], place: Place): { x: number; y: number } {
  const [xs, ys] = [points.map(({ x }) => x), points.map(({ y }) => y)];
  const [left, right, front, rear] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  if (place === 'middle') return { x: (left + right) / 2, y: (front + rear) / 2 };
  return { x: place.endsWith('left') ? left : right, y: place.startsWith('front') ? front : rear };
}
