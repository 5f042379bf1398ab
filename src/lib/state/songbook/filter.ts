/** What the list of charts is narrowed down to; an empty word lets everything through. */
export const FILTERS = ['key', 'form', 'style', 'tag', 'practised'] as const;
export interface Filter {
  readonly key: string;
  readonly form: string;
  readonly style: string;
  readonly tag: string;
  readonly practised: '' | 'lately' | 'long ago' | 'never';
}
export const NO_FILTER: Filter = { key: '', form: '', style: '', tag: '', practised: '' };

export const SORTS = ['practised', 'title', 'changed'] as const;
export type Sort = (typeof SORTS)[number];
const PRACTISED = ['lately', 'long ago', 'never'] as const;

/** What an address says of search, order and filter. */
export function queryIn(params: URLSearchParams) {
  const word = (name: string) => params.get(name) ?? '';
  const search = word('search');
  const sort = SORTS.find((one) => one === params.get('sort')) ?? 'practised';
  const filter: Filter = {
    key: word('key'),
    form: word('form'),
    style: word('style'),
    tag: word('tag'),
    practised: PRACTISED.find((one) => one === params.get('practised')) ?? ''
  };
  return { search, sort, filter, asked: queryOf(search, sort, filter) };
}

/** Search, order and filter as the routes and the address say them; what is as usual is left out. */
export function queryOf(search: string, sort: Sort, filter: Filter): Record<string, string> {
  const said = [['search', search], ['sort', sort === 'practised' ? '' : sort], ...Object.entries(filter)];
  return Object.fromEntries(said.filter(([, value]) => value));
}

/** The same as one text, as an address has it. */
export const saidOf = (asked: Readonly<Record<string, string>>): string =>
  new URLSearchParams(asked).toString();
