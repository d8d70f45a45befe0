/** A drawing as a file of its own: the theme's inks are written into it, so that it stands without the page. */
export function saveSvg(within: HTMLElement | null, name: string) {
  const svg = within?.querySelector('svg');
  if (!svg) return;
  save(new Blob([standalone(svg)], { type: 'image/svg+xml' }), `${name}.svg`);
}

export function standalone(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const css = getComputedStyle(document.documentElement);
  const { width, height } = svg.getBoundingClientRect();
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('viewBox', copy.getAttribute('viewBox') ?? `0 0 ${width} ${height}`);
  copy.setAttribute('font-family', 'sans-serif');
  copy.removeAttribute('style');
  const inks = (text: string) =>
    text.replace(/var\((--[\w-]+)\)/g, (_, v: string) => css.getPropertyValue(v).trim());
  for (const el of [copy, ...copy.querySelectorAll('*')])
    for (const a of [...el.attributes]) if (a.value.includes('var(')) el.setAttribute(a.name, inks(a.value));
  const paper = document.createElementNS('http://www.w3.org/2000/svg', 'rect');
  for (const [k, v] of Object.entries({
    width: '100%',
    height: '100%',
    fill: inks('var(--mui-palette-background-default)'),
  }))
    paper.setAttribute(k, v);
  copy.prepend(paper);
  return new XMLSerializer().serializeToString(copy);
}

/** Hands a file to whoever asked for it. */
export function save(blob: Blob, name: string) {
  const url = URL.createObjectURL(blob);
  const a = document.createElement('a');
  a.href = url;
  a.download = name;
  a.click();
  URL.revokeObjectURL(url);
}
