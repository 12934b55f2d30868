// Draws a grid of values flat, in metres, with what stands and hangs there, and tells the value of the cell that is gone to
// (cells.js). Colours are the figures' own: `colours`, dark to light.
'use strict';
const svgNode = (name, attributes, parent) => {
  const node = document.createElementNS('http://www.w3.org/2000/svg', name);
  for (const key in attributes) node.setAttribute(key, attributes[key]);
  if (parent) parent.append(node);
  return node;
};
const pathOf = (points) => 'M' + points.map((p) => p.join(' ')).join('L') + 'Z';
const kWhiteBelow = 0.5;  // of the colours, white letters read better on the darker ones

// Where a value stands between the ends of a scale, 0 to 1.
function shareOf(value, [low, high], logarithmic) {
  const share = logarithmic ? Math.log(Math.max(value, low) / low) / Math.log(high / low) : (value - low) / (high - low);
  return Math.min(1, Math.max(0, Number.isFinite(share) ? share : 0));
}

class GridPlan {
  // `svg` is drawn into; `tell(words)` takes what is under the pointer.
  constructor(svg, colours, light, length, tell) {
    Object.assign(this, { svg, colours, light, length, tell });
    this.follow = followCells(svg, () => this.grid, (place) => [place.x, -place.y], (k) => this.choose(k));
  }

  // `range`: [low, high] of the scale; `logarithmic`: even steps are even ratios.
  show(grid, values, range, logarithmic) {
    this.grid = grid;
    this.values = values;
    this.share = (value) => shareOf(value, range, logarithmic);
    const { low, high } = grid;
    const margin = 0.04 * Math.max(high[0] - low[0], high[1] - low[1]);
    const box = [low[0] - margin, -high[1] - margin, high[0] - low[0] + 2 * margin, high[1] - low[1] + 2 * margin];
    this.svg.replaceChildren();
    this.svg.setAttribute('viewBox', box.join(' '));
    const flip = svgNode('g', { transform: 'scale(1 -1)' }, this.svg);
    const clip = svgNode('clipPath', { id: 'area', 'clip-rule': 'evenodd' }, flip);
    svgNode('path', { d: [grid.outline, ...grid.holes].map(pathOf).join(''), 'clip-rule': 'evenodd' }, clip);
    svgNode('path', { d: pathOf(grid.outline), fill: '#f4f3f0' }, flip);
    const cells = svgNode('g', { 'clip-path': 'url(#area)' }, flip);
    values.total.forEach((value, k) => svgNode('rect', { ...this.cell(k), fill: this.colour(value) }, cells));
    const line = { fill: 'none', stroke: '#55524c', 'stroke-width': 1.2, 'vector-effect': 'non-scaling-stroke' };
    for (const shape of grid.shapes)
      svgNode('path', { ...line, d: pathOf(shape.outline), 'stroke-dasharray': shape.covers ? 'none' : '4 3',
                        ...(shape.opening ? { stroke: '#1f6fb2', 'stroke-width': 3 } : {}) }, flip).append(this.title(shape.name));
    for (const hanging of grid.luminaires)
      svgNode('path', { ...line, d: pathOf(hanging.outline), stroke: '#1c1c1c' }, flip)
        .append(this.title(hanging.mark));
    svgNode('path', { ...line, d: pathOf(grid.outline), stroke: '#1c1c1c', 'stroke-width': 2 }, flip);
    this.numbers(box);
    this.mark = svgNode('rect', { ...line, stroke: '#a3243b', 'stroke-width': 2.5, visibility: 'hidden' }, flip);
    this.follow(values.total.length);
  }

  title(words) {
    const node = svgNode('title', {});
    node.textContent = words;
    return node;
  }

  cell(k) {
    const { start, cell, cells } = this.grid;
    return { x: start[0] + cells[k][0] * cell[0], y: start[1] + cells[k][1] * cell[1], width: cell[0], height: cell[1] };
  }

  colour(value) {
    return this.colours[Math.round((this.colours.length - 1) * this.share(value))];
  }

  // Values stand in their cells where they can be read.
  numbers(box) {
    const scale = Math.min(this.svg.clientWidth / box[2], this.svg.clientHeight / box[3]) || 60, { cell } = this.grid;
    if (cell[0] * scale < 24 || cell[1] * scale < 13) return;
    const size = 10.5 / scale;
    const group = svgNode('g', { 'font-size': size, 'text-anchor': 'middle', 'pointer-events': 'none', class: 'numbers' }, this.svg);
    this.values.total.forEach((value, k) => {
      const rect = this.cell(k);
      svgNode('text', { x: rect.x + rect.width / 2, y: -rect.y - rect.height / 2 + size / 3,
                          fill: this.share(value) < kWhiteBelow ? '#ffffff' : '#1c1c1c' }, group).textContent = lightWords(value);
    });
  }

  choose(k) {
    this.mark.setAttribute('visibility', k < 0 ? 'hidden' : 'visible');
    if (k < 0) return this.tell('');
    for (const [key, value] of Object.entries(this.cell(k))) this.mark.setAttribute(key, value);
    this.tell(pointWords(this.grid, this.values, k, this.light, this.length));
  }
}
