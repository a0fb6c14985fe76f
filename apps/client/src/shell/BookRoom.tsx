import { BookScreen } from '../book/BookScreen';
import { LatestEntry } from '../book/EntryScreen';
import { useIsWide } from '../ui/theme';
import { ListAndPage } from './ListAndPage';

/** The book: its lines beside what stands behind one of them on a wide screen. */
export function BookRoom() {
  return (
    <ListAndPage
      root="/book"
      width={560}
      says="The book"
      list={(selectedId) => <BookScreen selectedId={selectedId} />}
    />
  );
}

/** The book before a line is chosen: its lines on a phone; the latest one, beside them, on a wide screen. */
export function BookIndex() {
  return useIsWide() ? <LatestEntry /> : <BookScreen selectedId={null} />;
}
