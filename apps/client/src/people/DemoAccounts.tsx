import type { DemoAccount } from '@even-bed/contract';
import { Pressable, View } from 'react-native';
import { Icon } from '../ui/Icon';
import { Section } from '../ui/Section';
import { RADIUS, usePalette } from '../ui/theme';
import { Words } from '../ui/Words';

const ROLE_WORDS: Record<DemoAccount['role'], string> = {
  lead: 'lead: rules, people, settings',
  technician: 'technician: works on the machines',
  looker: 'view only',
};

/** The demo's people: one tap each. */
export function DemoAccounts({ accounts, onUse }: { accounts: DemoAccount[]; onUse: (account: DemoAccount) => void }) {
  const palette = usePalette();
  return (
    <Section title="THIS IS THE DEMO. SIGN IN AS" testID="demo-accounts">
      {accounts.map((account) => (
        <Pressable
          key={account.name}
          role="button"
          onPress={() => onUse(account)}
          testID={`demo-${account.role}`}
          style={{
            minHeight: 76,
            paddingHorizontal: 16,
            paddingVertical: 10,
            flexDirection: 'row',
            alignItems: 'center',
            gap: 14,
            borderWidth: 1,
            borderColor: palette.edge,
            borderRadius: RADIUS,
            backgroundColor: palette.raised,
          }}
        >
          <Icon name="person" size={26} />
          <View style={{ flex: 1 }}>
            <Words size="lead" bold>
              {account.name}
            </Words>
            <Words size="small" tone="steel">{`${ROLE_WORDS[account.role]} · ${account.secret}`}</Words>
          </View>
          <Icon name="next" size={20} color={palette.steel} />
        </Pressable>
      ))}
    </Section>
  );
}
