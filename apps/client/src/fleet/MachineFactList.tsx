import type { MachineOverview } from '@even-bed/contract';
import { firstLayerAim } from '@even-bed/core/level/firstLayerAim';
import { area, length, size, temperature } from '../ui/formatHeight';
import { Facts } from '../ui/Facts';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { Words } from '../ui/Words';
import { FINDING_NAMES } from './findingNames';

/** What the shop has written down of a machine. */
export function MachineFactList({ machine }: { machine: MachineOverview }) {
  const levelled = machine.adjusters.length > 0;
  const facts: [string, string][] = [
    ['Tag', machine.tag],
    ['Model', machine.model],
    ['Hottest bed', machine.hottest === null ? 'not known' : temperature(machine.hottest)],
    ...(machine.family === 'resin'
      ? [
          ['Key of the platform', machine.platformKey == null ? 'not known' : size(machine.platformKey)] as [
            string,
            string,
          ],
        ]
      : []),
    ['Plate, measured', area(machine.plateWidth, machine.plateDepth)],
    ['Print area', area(machine.printWidth, machine.printDepth)],
    [
      'Adjusters',
      machine.adjusters.length === 0
        ? 'none'
        : machine.adjusters
            .map(({ name, thread, pitch }) => `${name} (${thread}, ${size(pitch, 4)} a turn)`)
            .join(', '),
    ],
    ...(levelled ? [['Clockwise', senseWords(machine)] as [string, string]] : []),
    ['Finds Z by', FINDING_NAMES[machine.finding]],
    ...(machine.family === 'resin' && !machine.compensation
      ? []
      : [['Compensation', machine.compensation ? 'on: prints follow a height map' : 'off'] as [string, string]]),
    ['First layer', `${length(machine.firstLayer)}`],
    ...(levelled
      ? [
          [
            'Aim',
            machine.aim === null
              ? `${length(firstLayerAim(machine), 3)}, the default for its first layer`
              : `${length(machine.aim, 3)}, set here`,
          ] as [string, string],
        ]
      : []),
    [
      'Console',
      machine.console
        ? `${machine.console.host}:${machine.console.port}${machine.console.simulated ? ', simulated' : ''}`
        : 'none: heights by paste, file or hand',
    ],
    ...(machine.note ? [['Note', machine.note] as [string, string]] : []),
  ];
  return (
    <Section title="FACTS" testID="facts" folded={`${machine.model}, ${machine.tag}`}>
      <Facts rows={facts} />
      <Row href={`/floor/${machine.id}/model`} testID="to-model">
        <Words>Learned on other machines of this model</Words>
      </Row>
    </Section>
  );
}

function senseWords({ adjusters, seenFrom }: MachineOverview): string {
  const senses = new Set(adjusters.map(({ clockwise }) => clockwise));
  const view = seenFrom === 'above' ? 'looking down' : 'looking up from below';
  return senses.size === 1 ? `${[...senses][0]} the bed, ${view}` : `differs from knob to knob, ${view}`;
}
