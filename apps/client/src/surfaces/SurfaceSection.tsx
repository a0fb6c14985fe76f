import type { Surface } from '@even-bed/contract';
import { size } from '../ui/formatHeight';
import { Section } from '../ui/Section';
import { StackSection } from '../ui/StackSection';
import { Words } from '../ui/Words';
import { useStackQuery } from './surfacesApi';
import { sideWords } from './surfaceWords';

/** A surface in section: in the stack of its machine with what lies under it, or by itself with its faces. */
export function SurfaceSection({ surface }: { surface: Surface }) {
  const { where } = surface.state;
  const machineId = where.kind === 'machine' ? where.machineId : null;
  const { data: stack } = useStackQuery({ id: machineId ?? '' }, { skip: machineId === null });
  const inVat = where.kind === 'machine' && where.slot === 'film';
  const { tag, kind, thickness } = surface;
  const own = { thickness: thickness ?? kind.thickness, measured: thickness !== null, loose: true, marked: true };
  const up = where.kind === 'machine' && kind.sides.length > 1 ? `${tag}, side ${where.sideUp} up` : tag;
  const layers =
    stack && !inVat
      ? stack.layers
          .filter(({ slot }) => slot !== 'film')
          .map((layer) =>
            layer.surfaceId === surface.id
              ? { ...own, name: up }
              : { ...layer, name: layer.tag ?? layer.name, loose: !layer.fixed },
          )
      : [{ ...own, name: up }];
  return (
    <Section title={stack && !inVat ? `IN THE STACK OF ${(surface.machineName ?? '').toUpperCase()}` : 'SECTION'}>
      <StackSection
        layers={layers}
        width={surface.width}
        label={`${tag} in section: ${layers.map(({ name, thickness: high }) => `${name} ${size(high)}`).join(', ')}`}
      />
      {where.kind === 'rack' && kind.sides.length > 1 ? (
        <Words size="small" tone="steel">
          {`Faces: ${sideWords('A', kind)}; ${sideWords('B', kind)}.`}
        </Words>
      ) : null}
    </Section>
  );
}
