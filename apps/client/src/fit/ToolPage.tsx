import type { ToolId } from '@even-bed/core';
import { useLocalSearchParams } from 'expo-router';
import type { ReactNode } from 'react';
import { useState } from 'react';
import { View, type ViewStyle } from 'react-native';
import { ActionButton } from '../ui/ActionButton';
import { Loading } from '../ui/Loading';
import { Page } from '../ui/Page';
import { RADIUS, SPACE, useIsWide, usePalette } from '../ui/theme';
import { Words } from '../ui/Words';
import { SavePlan } from './SavePlan';
import { toolName } from './toolNames';
import type { ToolForm } from './useToolForm';

interface Props<T extends ToolId> {
  tool: ToolForm<T>;
  /** What it answers: drawing, sentence, figures. */
  answer: ReactNode;
  /** What is asked. */
  children: ReactNode;
  /** The one thing to do with the answer. */
  action?: ReactNode;
  /** It is being worked out for the first time: the page comes when it can come whole. */
  working?: boolean;
  /** Why there is no answer, where the fields are well and the sum cannot be done. */
  failure?: string | null;
}

/** On a wide screen the answer stays in sight while what is asked runs past it. */
const BESIDE = { flex: 1, minWidth: 0, position: 'sticky', top: 0 } as unknown as ViewStyle;

/** Says that what is drawn below was made up; it goes as soon as something is typed. */
function ExampleMark({ onClear }: { onClear: () => void }) {
  return (
    <View style={{ gap: 4 }} testID="example">
      <Words bold>EXAMPLE</Words>
      <Words size="small" tone="steel">
        These figures are made up. Type your own over them, or fill them in from a machine.
      </Words>
      <View style={{ alignSelf: 'flex-start' }}>
        <ActionButton label="Clear the example" kind="quiet" onPress={onClear} testID="clear-example" />
      </View>
    </View>
  );
}

/** The frame of a tool: the answer first on a phone, beside what is asked on a wide screen. */
export function ToolPage<T extends ToolId>({ tool, answer, children, action, failure, working = false }: Props<T>) {
  const wide = useIsWide();
  const palette = usePalette();
  // A machine that the address names fills the form in a moment.
  const { machine: named } = useLocalSearchParams<{ machine?: string }>();
  const isExample = tool.isExample && !named;
  const [saving, setSaving] = useState(false);
  const { name, asks } = toolName(tool.tool);
  const missing = Object.values(tool.faults)[0];
  const [whole, setWhole] = useState(false);
  // An answer that comes late would push what is asked about, under a finger.
  if (!whole && tool.ready && !working) setWhole(true);
  return (
    <Page
      title={name}
      crumbs={[{ label: 'Tools', href: '/tools' }]}
      state={
        <Words size="small" tone="steel">
          not recorded
        </Words>
      }
      actions={
        <>
          <ActionButton
            label="Save as plan"
            grow
            disabled={tool.input === null || tool.isExample || Boolean(failure)}
            onPress={() => setSaving(true)}
            testID="save-plan"
          />
          {action}
        </>
      }
      testID={`tool-${tool.tool}`}
    >
      {!whole ? (
        <Loading what="the tool" />
      ) : (
        <View
          style={wide ? { flexDirection: 'row-reverse', gap: SPACE.xl, alignItems: 'flex-start' } : { gap: SPACE.l }}
        >
          <View
            style={{
              gap: SPACE.m,
              ...(wide ? BESIDE : {}),
              ...(isExample
                ? {
                    borderWidth: 2,
                    borderStyle: 'dashed',
                    borderColor: palette.edge,
                    borderRadius: RADIUS,
                    padding: 12,
                  }
                : {}),
            }}
            testID="answer"
          >
            {isExample ? <ExampleMark onClear={tool.clear} /> : null}
            {tool.input === null || failure ? (
              <Words size="lead" tone={failure ? 'stop' : 'steel'} live testID="no-answer">
                {failure ?? missing ?? asks}
              </Words>
            ) : (
              answer
            )}
          </View>
          <View style={{ gap: SPACE.l, ...(wide ? { width: 460 } : {}) }}>
            {children}
            <View style={{ alignSelf: 'flex-start' }}>
              <ActionButton label="Start anew" kind="quiet" onPress={tool.startAnew} testID="start-anew" />
            </View>
          </View>
        </View>
      )}
      {saving && tool.input ? <SavePlan tool={tool.tool} input={tool.input} onClose={() => setSaving(false)} /> : null}
    </Page>
  );
}
