import type { Plan } from '@even-bed/contract';
import { useState } from 'react';
import { View } from 'react-native';
import { useMachinesQuery } from '../fleet/fleetApi';
import { shortDate } from '../ui/formatTime';
import { Columns } from '../ui/Columns';
import { Page } from '../ui/Page';
import { Row } from '../ui/Row';
import { SearchField } from '../ui/SearchField';
import { Section } from '../ui/Section';
import { withType } from '../ui/typeScale';
import { useNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { usePlansQuery } from './fitApi';
import { HAND_TOOLS, toolHref, TOOL_NAMES, toolName } from './toolNames';

/** The sums without a record, and the plans that were kept of them. */
export function ToolsScreen() {
  const now = useNow();
  const [search, setSearch] = useState('');
  const { data: plans = [] } = usePlansQuery({});
  const { data: machines = [] } = useMachinesQuery();
  const words = search.trim().toLowerCase();
  const nameOf = (id: string) => machines.find((machine) => machine.id === id)?.name ?? '';
  const tools = [...TOOL_NAMES.map((tool) => ({ ...tool, href: toolHref(tool.id) })), ...HAND_TOOLS].filter(
    ({ name, asks, also }) => `${name} ${asks} ${also}`.toLowerCase().includes(words),
  );
  const kept = plans.filter(({ title, machineId, tool }) =>
    `${title} ${nameOf(machineId)} ${toolName(tool).name}`.toLowerCase().includes(words),
  );
  const list = (
    <Section title="SUMS WITHOUT A RECORD">
      {tools.length === 0 ? <Words tone="steel">No tool answers to that.</Words> : null}
      {/* As many beside each other as there is room for. */}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: 32 }}>
        {tools.map(({ id, name, asks, href }) => (
          <View key={id} style={{ flexGrow: 1, flexShrink: 1, flexBasis: withType(300) }}>
            <Row href={href} testID={`to-${id}`}>
              <Words bold>{name}</Words>
              <Words size="small" tone="steel">
                {asks}
              </Words>
            </Row>
          </View>
        ))}
      </View>
    </Section>
  );
  return (
    <Page title="Tools" crumbs={[{ label: 'Bench', href: '/bench' }]} testID="tools">
      <View style={{ flexDirection: 'row', maxWidth: 520 }}>
        <SearchField label="Search tools and plans" value={search} onChange={setSearch} />
      </View>
      {kept.length > 0 ? (
        <Columns share={0.6} left={list} right={<Kept plans={kept} nameOf={nameOf} now={now} />} />
      ) : (
        list
      )}
    </Page>
  );
}

/** Plans that were kept of tools, each with what it said. */
function Kept({ plans, nameOf, now }: { plans: readonly Plan[]; nameOf: (id: string) => string; now: number }) {
  return (
    <Section title="KEPT PLANS" testID="kept-plans">
      {plans.map((plan) => (
        <Row
          key={plan.id}
          href={toolHref(plan.tool, plan.id)}
          end={
            <Words size="small" tone="steel">
              {shortDate(plan.at, now)}
            </Words>
          }
        >
          <Words bold>{`${nameOf(plan.machineId)} · ${plan.title}`}</Words>
          <Words size="small" tone="steel">
            {plan.sentence}
          </Words>
        </Row>
      ))}
    </Section>
  );
}
