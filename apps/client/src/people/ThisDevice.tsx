import { Row } from '../ui/Row';
import { isSecurePage, useOffline } from '../ui/secure';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { Words } from '../ui/Words';

const OFFLINE_WORDS = {
  kept: 'It opens, and takes down what you do, where there is no signal.',
  insecure: 'Off: this address has no https.',
  distrusted: 'Off: this device does not trust the shop’s certificate yet.',
  none: 'Off: this browser can’t keep the app.',
} as const;

/** What this device can do for the shop, and why not. */
export function ThisDevice() {
  const offline = useOffline();
  const secure = isSecurePage();
  const needs = [
    ['Camera', typeof navigator !== 'undefined' && !!navigator.mediaDevices, 'Scans tags.'],
    ['Alarms', typeof Notification !== 'undefined', 'Say that a wait is over while another page is in front.'],
    ['Knocks', typeof DeviceMotionEvent !== 'undefined', 'Two knocks go on where hands are full.'],
  ] as const;
  return (
    <Section title="THIS DEVICE" testID="this-device">
      <Row lead={<Signal kind={offline === 'kept' ? 'ready' : 'hold'} />} testID="device-offline">
        <Words bold>Without a signal</Words>
        <Words size="small" tone="steel">
          {OFFLINE_WORDS[offline]}
        </Words>
      </Row>
      {needs.map(([name, there, what]) => (
        <Row
          key={name}
          lead={<Signal kind={secure && there ? 'ready' : 'hold'} />}
          testID={`device-${name.toLowerCase()}`}
        >
          <Words bold>{name}</Words>
          <Words size="small" tone="steel">
            {secure ? (there ? what : 'Off: this browser has none.') : 'Off: this address has no https.'}
          </Words>
        </Row>
      ))}
      {secure && offline !== 'distrusted' ? null : (
        <Words size="small">“People” shows how this device gets in over https.</Words>
      )}
    </Section>
  );
}
