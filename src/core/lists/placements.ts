/** What a person's lines with placements come to; every line that is not blank is in one of the lists. */
export type PlacementLines = {
  addresses: string[];
  /** addresses that another one shuts out with it: it lies below it */
  folded: { address: string; under: string }[];
  refused: { line: number; raw: string; reason: string }[];
  /** lines that say what another says */
  twice: number;
};

const SCHEME = /^[a-z][a-z\d+.-]*:\/\//u;
const LONGEST = 250;

/**
 * The form in which placements are compared (rules 2.6): lower case, without scheme, `www.`, query string, fragment,
 * port, and slashes at the end.
 * @returns undefined where the text is no address: no host with a dot, or one that holds spaces
 * @example cleanPlacement('https://www.Hive-Films.example/clips/?a=1') // 'hive-films.example/clips'
 */
export function cleanPlacement(raw: string): string | undefined {
  const bare = raw
    .trim()
    .toLowerCase()
    .replace(SCHEME, '')
    .replace(/^www\./u, '');
  const [address = ''] = bare.split(/[?#]/u);
  const [host = '', ...path] = address.replace(/\/+$/u, '').split('/');
  const name = host.replace(/:\d+$/u, '').replace(/\.$/u, '');
  const isHost = /^[\p{L}\p{N}_-]+(?:\.[\p{L}\p{N}_-]+)+$/u.test(name);
  const cleaned = [name, ...path].join('/');
  return !isHost || /\s/u.test(cleaned) || cleaned.length > LONGEST ? undefined : cleaned;
}

/**
 * Whether an entry of a placement list shuts an address out (rules 2.6): it is the same, or the entry is a host and the
 * address lies on it or on a host below it. Both as `cleanPlacement` writes them.
 * @example shutsOut('films.example', 'old.films.example/clips') // true
 */
export function shutsOut(entry: string, address: string): boolean {
  if (entry === address) return true;
  if (entry.includes('/')) return false;
  const [host = ''] = address.split('/');
  return host === entry || host.endsWith(`.${entry}`);
}

/**
 * Reads placements from pasted lines; of each line the first cell counts.
 * @example readPlacementLines('www.films.example\nhttps://a.films.example').folded // [{ address: 'a.films.example', under: 'films.example' }]
 */
export function readPlacementLines(pasted: string): PlacementLines {
  const lines = pasted.replace(/^\uFEFF/u, '').split(/\r\n?|\n/u);
  const refused: PlacementLines['refused'] = [];
  const seen = new Set<string>();
  let twice = 0;
  for (const [i, raw] of lines.entries()) {
    const [cell = ''] = raw.replace(/^\s*(?:[-*•·–—]|\d{1,5}[.)])\s+/u, '').split(/[\t;,|]/u);
    if (
      raw.trim() === '' ||
      (i === 0 && /^"?(?:placements?|sites?|urls?|domains?|addresse?s?)"?$/iu.test(cell.trim()))
    )
      continue;
    const address = cleanPlacement(cell.trim().replace(/^"(.*)"$/u, '$1'));
    if (address === undefined) {
      refused.push({ line: i + 1, raw, reason: 'This is no address of a site, an app or a channel.' });
    } else if (seen.has(address)) twice += 1;
    else seen.add(address);
  }
  return { ...foldPlacements([...seen]), refused, twice };
}

/**
 * Leaves out of a list what another of its entries shuts out with it.
 * @example foldPlacements(['a.films.example', 'films.example']).addresses // ['films.example']
 */
export function foldPlacements(all: readonly string[]): Pick<PlacementLines, 'addresses' | 'folded'> {
  const known = new Set(all);
  const addresses: string[] = [];
  const folded: PlacementLines['folded'] = [];
  for (const address of known) {
    const under = hostsAbove(address).find((host) => known.has(host));
    if (under === undefined) addresses.push(address);
    else folded.push({ address, under });
  }
  return { addresses, folded };
}

/** The hosts that shut an address out, itself left aside; the widest first. */
function hostsAbove(address: string): string[] {
  const [host = ''] = address.split('/');
  const labels = host.split('.');
  const parents = labels.map((_, i) => labels.slice(i).join('.')).slice(0, -1);
  return parents.filter((parent) => parent !== address).reverse();
}
