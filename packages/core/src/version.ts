/** Version of the sums. Stored with each result; raised when a sum could give another answer. */
export const CORE_VERSION = '1';
