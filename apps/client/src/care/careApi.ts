import type { Inspection, Photo } from '@even-bed/contract';
import { api } from '../api/api';

export type Subject = { surfaceId: string } | { machineId: string };
const of = (subject: Subject) => new URLSearchParams(subject as Record<string, string>).toString();

export const careApi = api.injectEndpoints({
  endpoints: (build) => ({
    inspections: build.query<Inspection[], Subject>({
      query: (subject) => `/inspections?${of(subject)}`,
      transformResponse: ({ items }: { items: Inspection[] }) => items,
      providesTags: ['Inspection'],
    }),
    photos: build.query<Photo[], Subject>({
      query: (subject) => `/photos?${of(subject)}`,
      transformResponse: ({ items }: { items: Photo[] }) => items,
      providesTags: ['Photo'],
    }),
    sendPhoto: build.mutation<
      Photo,
      { id: string; file: Blob; subject: Subject; inspectionId?: string; at: number; note: string }
    >({
      query: ({ id, file, subject, inspectionId, at, note }) => {
        const params = new URLSearchParams({
          ...subject,
          ...(inspectionId ? { inspectionId } : {}),
          at: String(at),
          note,
        });
        return {
          url: `/photos/${id}?${params.toString()}`,
          method: 'PUT',
          headers: { 'Content-Type': file.type || 'image/jpeg', 'Idempotency-Key': id },
          body: file,
        };
      },
      invalidatesTags: ['Photo', 'Inspection', 'Book'],
    }),
  }),
});

export const { useInspectionsQuery, usePhotosQuery, useSendPhotoMutation } = careApi;

/** Address of a photo's file. */
export const photoAddress = (id: string, size: 'small' | 'full') => `/api/photos/${id}/file?size=${size}`;
