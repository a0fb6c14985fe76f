import { View } from 'react-native';
import { Row } from '../ui/Row';
import { Words } from '../ui/Words';
import type { ShapeSubject } from './shapeSubject';

interface Props {
  subject: Pick<ShapeSubject, 'machineId' | 'query'>;
  /** What the tool makes of heights, in a sentence. */
  gives: string;
  /** Heights may be pasted on this very page. */
  pasteHere?: boolean;
}

/** Where a tool has no heights to work with: what it gives once it has, and each way to get them. */
export function WaysToHeights({ subject: { machineId, query }, gives, pasteHere = false }: Props) {
  return (
    <View style={{ maxWidth: 640 }} testID="no-source">
      <Words>{gives}</Words>
      <Words tone="steel">First measure the plate, in one of these ways:</Words>
      <Row href={`/tools/light${query}` as never} testID="ways-light">
        <Words bold>Light under a straightedge</Words>
        <Words size="small" tone="steel">
          A straightedge, a lamp, and feelers where you have them: six to eight lines.
        </Words>
      </Row>
      {machineId ? (
        <Row href={`/floor/${machineId}`} testID="ways-map">
          <Words bold>A map by the machine’s probe</Words>
          <Words size="small" tone="steel">
            Begin a level check on its page and read the map in.
          </Words>
        </Row>
      ) : null}
      {pasteHere ? null : (
        <Row href={`/tools/shape${query}` as never} testID="ways-paste">
          <Words bold>Heights as text</Words>
          <Words size="small" tone="steel">
            Paste or type heights in the shape tool, then choose strips there.
          </Words>
        </Row>
      )}
    </View>
  );
}
