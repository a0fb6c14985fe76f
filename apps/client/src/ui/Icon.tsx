import Svg, { Path } from 'react-native-svg';
import { ICON_PATHS, type IconName } from './iconPaths';
import { usePalette } from './theme';

interface Props {
  name: IconName;
  size?: number;
  color?: string;
}

/** A picture from the icon set; it always stands beside its word, so it is silent itself. */
export function Icon({ name, size = 24, color }: Props) {
  const { ink } = usePalette();
  return (
    <Svg width={size} height={size} viewBox="0 0 24 24" style={{ flexShrink: 0 }} aria-hidden>
      <Path d={ICON_PATHS[name]} fill={color ?? ink} />
    </Svg>
  );
}

/** For the kit, which asks for icons by any name; unknown ones draw nothing. */
export function kitIcon({ name, size, color }: { name?: unknown; size?: number; color?: string }) {
  return typeof name === 'string' && name in ICON_PATHS ? (
    <Icon name={name as IconName} size={size} color={color} />
  ) : null;
}
