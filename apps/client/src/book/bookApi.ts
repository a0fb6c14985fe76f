import { bookOperations } from '@even-bed/contract/book/operations';
import { endpointsOf } from '../api/endpoints';

export const bookApi = endpointsOf(bookOperations);

export const { useBookQuery, useBookPagesInfiniteQuery, useEntryQuery, useCorrectMutation, useLazyCheckBookQuery } =
  bookApi;
