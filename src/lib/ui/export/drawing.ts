/** A drawing of the page as a file: SVG that stands by itself, or PNG. */

import { nth, sure } from '$lib/core/base/list';

/** What a drawing takes from the style sheet and has to carry along. */
const STYLES = [
  'fill',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'stroke-linecap',
  'opacity',
  'fill-opacity',
  'font-family',
  'font-size',
  'font-weight',
  'text-anchor'
] as const;
/** Around the drawing, in pixels. */
const MARGIN = 16;
/** Pixels of the PNG for one of the drawing: sharp in print. */
const SHARPNESS = 2;
const NAMESPACE = 'http://www.w3.org/2000/svg';

/** A copy that looks the same without the page: styles written out, fonts and paper included. */
async function standalone(svg: SVGSVGElement): Promise<{ text: string; width: number; height: number }> {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const originals = [svg, ...svg.querySelectorAll('*')];
  const families = new Set<string>();
  for (const [i, element] of [copy, ...copy.querySelectorAll('*')].entries()) {
    const computed = getComputedStyle(nth(originals, i));
    for (const name of STYLES) {
      const value = computed.getPropertyValue(name);
      if (value) element.setAttribute(name, value);
    }
    if (element.tagName === 'text') {
      for (const family of computed.fontFamily.split(','))
        families.add(family.trim().replaceAll(/["']/g, ''));
    }
    for (const { name } of [...element.attributes]) {
      if (/^(?:class|style|tabindex|role|data-|aria-)/.test(name)) element.removeAttribute(name);
    }
  }
  const width = svg.width.baseVal.value + 2 * MARGIN;
  const height = svg.height.baseVal.value + 2 * MARGIN;
  copy.setAttribute('xmlns', NAMESPACE);
  copy.setAttribute('width', String(width));
  copy.setAttribute('height', String(height));
  copy.setAttribute('viewBox', `${-MARGIN} ${-MARGIN} ${width} ${height}`);
  const paper = document.createElementNS(NAMESPACE, 'rect');
  for (const [name, value] of Object.entries({ x: -MARGIN, y: -MARGIN, width, height })) {
    paper.setAttribute(name, String(value));
  }
  paper.setAttribute('fill', getComputedStyle(document.documentElement).getPropertyValue('--surface'));
  const style = document.createElementNS(NAMESPACE, 'style');
  style.textContent = await fontFaces(families);
  copy.prepend(style, paper);
  return { text: new XMLSerializer().serializeToString(copy), width, height };
}

/** The font faces of some families, with the font files inside. */
async function fontFaces(families: ReadonlySet<string>): Promise<string> {
  const rules = [...document.styleSheets]
    .flatMap((sheet) => [...sheet.cssRules])
    .flatMap((rule) => ('cssRules' in rule ? [rule, ...(rule as CSSGroupingRule).cssRules] : [rule]))
    .filter((rule) => rule instanceof CSSFontFaceRule)
    .filter((rule) => {
      const family = rule.style.getPropertyValue('font-family').replaceAll(/["']/g, '');
      // Western text and our own accidentals; other scripts would only make the file heavy.
      const range = rule.style.getPropertyValue('unicode-range');
      const isNeeded = !range || /U\+0{0,4}-|U\+0-|U\+266[D-F]/i.test(range);
      const isUpright = rule.style.getPropertyValue('font-style') !== 'italic';
      return families.has(family) && isNeeded && isUpright;
    });
  const faces = await Promise.all(
    rules.map(async (rule) => {
      const base = rule.parentStyleSheet?.href ?? location.href;
      const urls = [...rule.cssText.matchAll(/url\("?([^")]+)"?\)/g)].map(([, url]) => url!);
      const url = urls.find((one) => one.includes('woff2')) ?? urls[0];
      if (!url) return '';
      const data = await inlined(new URL(url, base).href);
      return rule.cssText.replace(/src:[^;]+;/, `src: url("${data}") format("woff2");`);
    })
  );
  return faces.join('\n');
}

async function inlined(url: string): Promise<string> {
  if (url.startsWith('data:')) return url;
  const blob = await (await fetch(url)).blob();
  return await new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result));
    reader.onerror = () => reject(new Error('The font could not be read.'));
    reader.readAsDataURL(blob);
  });
}

async function asPng({
  text,
  width,
  height
}: {
  text: string;
  width: number;
  height: number;
}): Promise<Blob> {
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(text)}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = width * SHARPNESS;
  canvas.height = height * SHARPNESS;
  const context = sure(canvas.getContext('2d'), 'getContext');
  context.scale(SHARPNESS, SHARPNESS);
  context.drawImage(image, 0, 0, width, height);
  return await new Promise((resolve, reject) =>
    canvas.toBlob(
      (blob) => (blob ? resolve(blob) : reject(new Error('The picture is too large.'))),
      'image/png'
    )
  );
}

export async function svgFile(svg: SVGSVGElement): Promise<Blob> {
  const { text } = await standalone(svg);
  return new Blob([text], { type: 'image/svg+xml' });
}

export async function pngFile(svg: SVGSVGElement): Promise<Blob> {
  return asPng(await standalone(svg));
}
