/** Types of photos that are taken. What they are is seen by their content, whatever they call themselves. */
export const PHOTO_TYPES = ['image/jpeg', 'image/png', 'image/webp'] as const;
/** Bytes. */
export const PHOTO_LIMIT = 20 * 1024 * 1024;
