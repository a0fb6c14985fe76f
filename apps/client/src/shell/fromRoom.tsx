import { lazy, Suspense, type ComponentType } from 'react';
import { Loading } from '../ui/Loading';

type Room = Record<string, ComponentType>;

const viewOf = (load: () => Promise<Room>, name: string): ComponentType => {
  const View = lazy(() => load().then((room) => ({ default: room[name]! })));
  return function RoomView() {
    return (
      <Suspense fallback={<Loading what="the view" />}>
        <View />
      </Suspense>
    );
  };
};

const hands = () => import('./handsRoom') as Promise<Room>;
const forms = () => import('./formsRoom') as Promise<Room>;

/** A view of the piece of code that holds what hands do. */
export const fromHands = (name: keyof typeof import('./handsRoom')): ComponentType => viewOf(hands, name);

/** A view of the piece of code that holds the large forms. */
export const fromForms = (name: keyof typeof import('./formsRoom')): ComponentType => viewOf(forms, name);
