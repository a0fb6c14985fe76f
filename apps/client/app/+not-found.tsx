import { Link } from 'expo-router';
import { Page } from '../src/ui/Page';
import { Words } from '../src/ui/Words';

export default function NotFound() {
  return (
    <Page title="There is nothing at this address">
      <Words>The page may have been taken away, or the address has a slip in it.</Words>
      <Link href="/bench">
        <Words bold tone="accent">
          Go to the bench
        </Words>
      </Link>
    </Page>
  );
}
