import { decodeText } from '@even-bed/core/fleet/decodeText';
import { useRouter } from 'expo-router';
import Papa from 'papaparse';
import { useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { errorOf } from '../api/errorOf';
import { ActionButton } from '../ui/ActionButton';
import { Notice } from '../ui/Notice';
import { Page } from '../ui/Page';
import { pickFile } from '../ui/pickFile';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { Words } from '../ui/Words';
import { useAreasQuery, useMachinesQuery, useSaveAreaMutation, useSaveMachineMutation } from './fleetApi';
import { fleetColumns, fleetUnits, readFleetLine, type FleetLine } from './fleetList';

const MOST_LINES = 500;

/** A fleet from a list: one machine a line, looked at first, then added one after another. */
export default function FleetListScreen() {
  const router = useRouter();
  const { data: areas = [] } = useAreasQuery();
  const { data: machines = [] } = useMachinesQuery();
  const [lines, setLines] = useState<FleetLine[] | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [done, setDone] = useState<number | null>(null);
  const [saveArea] = useSaveAreaMutation();
  const [saveMachine] = useSaveMachineMutation();
  const names = new Set(machines.map(({ name }) => name.toLowerCase()));
  const known = (line: FleetLine) => line.facts !== null && names.has(line.facts.name.toLowerCase());
  const good = lines?.filter((line) => line.facts !== null && !known(line)) ?? [];
  const choose = async () => {
    const file = await pickFile('.csv,.txt,.tsv,text/csv,text/plain');
    if (!file) return;
    const text = decodeText(new Uint8Array(await file.arrayBuffer())).replace(/^sep=[,;\t]\r?\n/i, '');
    const { data } = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy' });
    const [heads, ...rows] = data;
    setDone(null);
    if (!heads || rows.length === 0) return setProblem('There is no line under the heads of the columns.');
    if (rows.length > MOST_LINES) return setProblem(`A list may have at most ${MOST_LINES} machines.`);
    const columns = fleetColumns(heads);
    const units = fleetUnits(heads, columns);
    if (columns['name'] === undefined || columns['printWidth'] === undefined)
      return setProblem(
        'Two columns are needed: “name” and “print width”. Others: area, shelf, model, family, print depth, plate width, plate depth, first layer, adjusters.',
      );
    setProblem(null);
    setLines(rows.map((cells, i) => readFleetLine(cells, columns, i + 2, units)));
  };
  const add = async () => {
    const areaIds = new Map(areas.map(({ id, name }) => [name.toLowerCase(), id]));
    setProblem(null);
    for (const [i, { facts, area }] of good.entries()) {
      setDone(i);
      let areaId = areaIds.get(area.toLowerCase());
      if (areaId === undefined) {
        areaId = uuid();
        const made = await saveArea({
          id: areaId,
          key: uuid(),
          body: { name: area, position: areaIds.size, version: 0, at: Date.now() },
        });
        if (made.error) return setProblem(errorOf(made.error)!.message);
        areaIds.set(area.toLowerCase(), areaId);
      }
      const saved = await saveMachine({
        id: uuid(),
        key: uuid(),
        body: { ...facts!, areaId, version: 0, at: Date.now() },
      });
      if (saved.error)
        return setProblem(`${facts!.name}: ${errorOf(saved.error)!.message} What was added before stays.`);
    }
    router.replace('/floor');
  };
  return (
    <Page
      title="A fleet from a list"
      testID="fleet-list-page"
      crumbs={[{ label: 'Floor', href: '/floor' }]}
      actions={
        good.length > 0 ? (
          <ActionButton
            label={done === null ? `Add ${good.length} machines` : `Adding ${done + 1} of ${good.length}`}
            kind="main"
            grow
            busy={done !== null && problem === null}
            onPress={() => void add()}
            testID="fleet-add"
          />
        ) : (
          <ActionButton
            label="Choose a file"
            icon="file"
            kind="main"
            grow
            onPress={() => void choose()}
            testID="fleet-choose"
          />
        )
      }
    >
      <Words>
        A CSV with one machine a line. Needed: name, print width. Known: area, shelf, model, family, print depth, plate
        width, plate depth, first layer, adjusters (0, 3 or 4). The rest is the usual, to be changed on each machine’s
        page. A list of machines that was taken along from here is read back with all its facts but the console’s
        address.
      </Words>
      {problem ? (
        <Notice kind="stop" title="Look again" testID="fleet-problem">
          {problem}
        </Notice>
      ) : null}
      {lines ? (
        <Section title="WHAT WAS READ" testID="fleet-lines">
          {lines.map((line) => (
            <Row
              key={line.line}
              lead={<Signal kind={line.facts === null ? 'due' : known(line) ? 'hold' : 'ready'} />}
              end={<Words size="small" tone="steel">{`line ${line.line}`}</Words>}
            >
              <View>
                <Words bold>{line.facts ? `${line.facts.name} · ${line.area}` : `Line ${line.line}`}</Words>
                <Words size="small" tone="steel">
                  {line.facts
                    ? known(line)
                      ? 'There is a machine of this name already: passed over.'
                      : `${line.facts.model}, print area ${line.facts.printWidth} × ${line.facts.printDepth} mm, ${line.facts.adjusters.length} adjusters`
                    : line.faults.join(' ')}
                </Words>
              </View>
            </Row>
          ))}
        </Section>
      ) : null}
    </Page>
  );
}
