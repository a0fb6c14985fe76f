/** What may touch a surface. */
export const CARE_ITEMS = [
  'water',
  'soap',
  'alcohol',
  'acetone',
  'scrub-pad',
  'steel-wool',
  'fine-abrasive',
  'scraper',
  'glue-stick',
] as const;
export type CareItem = (typeof CARE_ITEMS)[number];

/** How people write what they clean with. */
const NAMES: readonly (readonly [CareItem, RegExp])[] = [
  ['steel-wool', /\b(steel|wire) ?wool\b|\b0{2,4}\b/],
  ['scrub-pad', /\bscrub(bing)? ?pads?\b|\b(scouring|nylon) pads?\b|\bsponge\b/],
  ['fine-abrasive', /\bgrit\b|\bsand ?paper\b|\bsanded\b|\babrasive\b|\bemery\b/],
  ['acetone', /\bacetone\b/],
  ['alcohol', /\balcohol\b|\bisopropanol\b|\bipa\b|\bspirits?\b|\bethanol\b/],
  ['soap', /\bsoap\b|\bdish ?soap\b|\bdetergent\b/],
  ['water', /\bwater\b/],
  ['scraper', /\bscraper\b|\bblade\b/],
  ['glue-stick', /\bglue\b/],
];

/** What somebody says that they used on a surface, as far as the words name it. */
export function namedCare(words: string): CareItem[] {
  const text = words.slice(0, 500).toLowerCase();
  return NAMES.flatMap(([item, name]) => (name.test(text) ? [item] : []));
}
