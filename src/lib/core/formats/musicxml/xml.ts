/** XML as text: elements written inside out. */

import { sure } from '../../base/list';

/** A name of an element or attribute, its text escaped; what is null or false is left out. */
type Attributes = Readonly<Record<string, string | number | null | undefined>>;

const ESCAPES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
/** XML has no room for most control characters, however they are written. */
// eslint-disable-next-line no-control-regex
const FORBIDDEN = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g;

/** Text for an element. Line breaks of attributes are kept. */
export function escaped(text: string): string {
  return text
    .replaceAll(FORBIDDEN, '')
    .replaceAll(/[&<>"]/g, (sign) => sure(ESCAPES[sign], 'ESCAPES'))
    .replaceAll('\r', '&#13;');
}

/** An element with what stands in it; one that is empty closes itself. */
export function element(name: string, attributes: Attributes, ...inside: readonly (string | null)[]): string {
  const said = Object.entries(attributes)
    .filter(([, value]) => value !== null && value !== undefined)
    .map(([key, value]) => ` ${key}="${escaped(String(value))}"`)
    .join('');
  const content = inside.filter((one) => one !== null).join('');
  return content ? `<${name}${said}>${content}</${name}>` : `<${name}${said}/>`;
}

/** An element that holds a text or a number. */
export const tagged = (name: string, value: string | number, attributes: Attributes = {}): string =>
  element(name, attributes, escaped(String(value)));
