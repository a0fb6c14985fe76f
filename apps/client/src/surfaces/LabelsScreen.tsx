import { LABEL_SHEETS } from '@even-bed/core/surfaces/labelSheet';
import { router, useLocalSearchParams } from 'expo-router';
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { useSettingsQuery } from '../people/settingsApi';
import { useReachQuery } from '../people/shopApi';
import { ActionButton } from '../ui/ActionButton';
import { Field } from '../ui/Field';
import { Loading } from '../ui/Loading';
import { Notice } from '../ui/Notice';
import { Page } from '../ui/Page';
import { Pick } from '../ui/Pick';
import { SPACE, useIsWide, usePalette } from '../ui/theme';
import { Words } from '../ui/Words';
import { prose } from '../ui/prose';

const WIDTH = 260;
/** Addresses that lead to whatever device asks. */
const OWN = /^(localhost|127\.|\[?::1)/;

/** Where the codes will lead; labels that only this computer can open are said to be such before they are printed. */
function WhereCodesLead() {
  const { data: settings } = useSettingsQuery();
  const { data: reach } = useReachQuery();
  if (!settings || typeof window === 'undefined') return null;
  const origin = settings.address || window.location.origin;
  if (!OWN.test(new URL(origin).hostname))
    return (
      <Words size="small" tone="steel" testID="labels-address">
        {`The codes lead to ${origin}.`}
      </Words>
    );
  const [better] = reach?.addresses ?? [];
  return (
    <Notice kind="stop" title="These codes would open on this computer alone" testID="labels-address">
      <Words>
        {`They would lead to ${origin}. Write the shop’s address into Settings before you print${better ? `, such as ${better}` : ': the one under which phones reach it'}.`}
      </Words>
      <View style={{ alignSelf: 'flex-start' }}>
        <ActionButton label="Settings" onPress={() => router.push('/settings')} testID="labels-settings" />
      </View>
    </Notice>
  );
}

/** Labels to print: of which tags, on which sheet, on which of its cells. */
export function LabelsScreen() {
  const params = useLocalSearchParams<{ tags?: string }>();
  const palette = usePalette();
  const wide = useIsWide();
  const [tags, setTags] = useState(params.tags ?? '');
  const [sheetId, setSheetId] = useState(LABEL_SHEETS[0]!.id);
  const sheet = LABEL_SHEETS.find(({ id }) => id === sheetId)!;
  const all = sheet.columns * sheet.rows;
  const [used, setUsed] = useState<ReadonlySet<number>>(new Set());
  const list = tags
    .toUpperCase()
    .split(/[\s,;]+/)
    .filter(Boolean);
  const bad = list.find((tag) => !/^[A-Z]{1,4}-\d{1,6}$/.test(tag));
  const coming = [useSettingsQuery(), useReachQuery()].some(({ isLoading }) => isLoading);
  const free = Array.from({ length: all }, (_, i) => i).filter((cell) => !used.has(cell));
  const scale = WIDTH / sheet.page.width;
  const choose = (id: string) => {
    setSheetId(id);
    setUsed(new Set());
  };
  const toggle = (cell: number) => {
    const next = new Set(used);
    if (!next.delete(cell)) next.add(cell);
    setUsed(next);
  };
  const open = () => {
    const query = new URLSearchParams({ sheet: sheet.id, tags: list.join(',') });
    if (used.size > 0) query.set('cells', free.join(','));
    window.open(`/api/labels?${query.toString()}`);
  };
  if (coming)
    return (
      <Page title="Labels" crumbs={[{ label: 'Rack', href: '/rack' }]}>
        <Loading what="the shop’s address" />
      </Page>
    );
  return (
    <Page
      title="Labels"
      testID="labels"
      crumbs={[{ label: 'Rack', href: '/rack' }]}
      actions={
        <ActionButton
          label={`Make a PDF of ${list.length}`}
          icon="print"
          kind="main"
          grow
          disabled={list.length === 0 || bad !== undefined || free.length === 0}
          onPress={open}
          testID="labels-pdf"
        />
      }
    >
      <View style={wide ? { flexDirection: 'row', gap: SPACE.l, alignItems: 'flex-start' } : { gap: SPACE.l }}>
        <View style={{ gap: SPACE.m, flexGrow: 1, maxWidth: 520 }}>
          <Field
            label="Tags, with commas between"
            value={tags}
            onChange={setTags}
            lines={3}
            error={bad === undefined ? undefined : `“${bad}” is no tag. Tags look like S-014.`}
            testID="labels-tags"
          />
          <Pick
            label="Sheet of labels"
            value={sheetId}
            options={LABEL_SHEETS.map(({ id, name }) => ({ value: id, label: prose(name) }))}
            onChange={choose}
            testID="labels-sheet"
          />
          <WhereCodesLead />
          <Words size="small" tone="steel">
            Each label carries the tag and a code that opens its page. Print at full size, “fit to page” off, and try
            plain paper first.
          </Words>
        </View>
        <View style={{ gap: 8 }}>
          <Words size="small" tone="steel">
            {all === 1 ? 'One label after another.' : 'The first sheet: tap the cells that are used up.'}
          </Words>
          <View
            style={{
              width: WIDTH,
              height: sheet.page.height * scale,
              backgroundColor: palette.raised,
              borderWidth: 1,
              borderColor: palette.edge,
            }}
            testID="labels-cells"
          >
            {Array.from({ length: all }, (_, cell) => {
              const next = free.indexOf(cell);
              const tag = next >= 0 ? list[next] : undefined;
              return (
                <Pressable
                  key={cell}
                  role="checkbox"
                  aria-checked={!used.has(cell)}
                  aria-label={`Cell ${cell + 1}${used.has(cell) ? ', used up' : ''}`}
                  onPress={() => toggle(cell)}
                  testID={`cell-${cell}`}
                  style={{
                    position: 'absolute',
                    left: (sheet.left + (cell % sheet.columns) * sheet.across) * scale,
                    top: (sheet.top + Math.floor(cell / sheet.columns) * sheet.down) * scale,
                    width: sheet.label.width * scale,
                    height: sheet.label.height * scale,
                    borderWidth: 1,
                    borderColor: palette.hairline,
                    backgroundColor: used.has(cell) ? palette.hairline : 'transparent',
                    alignItems: 'center',
                    justifyContent: 'center',
                  }}
                >
                  <Words size="small" bold={Boolean(tag)} tone={tag ? 'ink' : 'steel'}>
                    {used.has(cell) ? 'used' : (tag ?? '')}
                  </Words>
                </Pressable>
              );
            })}
          </View>
        </View>
      </View>
    </Page>
  );
}
