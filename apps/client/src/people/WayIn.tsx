import { View } from 'react-native';
import { errorOf } from '../api/errorOf';
import { Failed, Loading } from '../ui/Loading';
import { QrCode } from '../ui/QrCode';
import { Words } from '../ui/Words';
import { useReachQuery } from './shopApi';

/** How another device gets in: the code that a phone scans, the address in letters, and what it comes to trust. */
export function WayIn() {
  const { data, error, refetch } = useReachQuery();
  const failure = errorOf(error);
  if (failure) return <Failed message={failure.message} onRetry={refetch} />;
  if (!data) return <Loading what="the address" />;
  const { addresses, by, trust } = data;
  const [first, ...more] = addresses;
  if (first === undefined)
    return (
      <Words testID="way-in">
        Only the computer that it runs on reaches this shop. Whoever runs it starts it with EVEN_BED_HOST=0.0.0.0; then
        phones get in, over https.
      </Words>
    );
  const scanned = trust?.address ?? first;
  return (
    <View style={{ gap: 12 }} testID="way-in">
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 20 }}>
        <QrCode text={scanned} label={`Code for ${scanned}`} />
        <View style={{ flexShrink: 1, flexBasis: 240, flexGrow: 1, gap: 8 }}>
          <Words bold>{trust ? 'Scan this, and trust the shop once' : 'Scan this'}</Words>
          <Words testID="way-in-address">{scanned}</Words>
          {trust ? (
            <Words size="small" tone="steel">
              {`The page shows how, for phones and for computers. From then on the app is at ${first}.`}
            </Words>
          ) : null}
          {more.length > 0 ? <Words size="small" tone="steel">{`Also at ${more.slice(0, 3).join(', ')}`}</Words> : null}
        </View>
      </View>
      {trust ? (
        <>
          <Words size="small">The certificate that the phone shows must have this fingerprint (SHA-256):</Words>
          <Words size="small" figures testID="way-in-fingerprint">
            {trust.fingerprint}
          </Words>
          <Words size="small" tone="steel">
            Until it is trusted the browser warns, and the camera, alarms, knocks and work without a signal stay off.
          </Words>
        </>
      ) : null}
      {by === 'none' ? (
        <Words size="small" tone="due">
          This address has no https: the camera, alarms, knocks and work without a signal stay off on other devices.
          Whoever runs the server can leave EVEN_BED_HTTPS=none away.
        </Words>
      ) : null}
    </View>
  );
}
