import { create } from 'qrcode';
import { useMemo } from 'react';
import { View } from 'react-native';
import Svg, { Path } from 'react-native-svg';

/** Cells of quiet round a code (ISO/IEC 18004). */
const QUIET = 4;

/** A code for a phone's camera: black on white by day and by night, since cameras read no other. */
export function QrCode({ text, label, side = 200 }: { text: string; label: string; side?: number }) {
  const { size, path } = useMemo(() => cellsOf(text), [text]);
  const whole = size + 2 * QUIET;
  return (
    <View role="img" aria-label={label} style={{ width: side, height: side, backgroundColor: '#ffffff' }}>
      <Svg width={side} height={side} viewBox={`${-QUIET} ${-QUIET} ${whole} ${whole}`}>
        <Path d={path} fill="#000000" />
      </Svg>
    </View>
  );
}

function cellsOf(text: string): { size: number; path: string } {
  const { modules } = create(text, { errorCorrectionLevel: 'M' });
  let path = '';
  for (let row = 0; row < modules.size; row++)
    for (let column = 0; column < modules.size; column++)
      if (modules.get(row, column)) path += `M${column} ${row}h1v1h-1z`;
  return { size: modules.size, path };
}
