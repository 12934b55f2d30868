// What moves in a report: tables sorted by a column, values on plans (cells.js).
'use strict';
for (const table of document.querySelectorAll('table')) {
  const body = table.tBodies[0];
  if (body.rows.length < 3) continue;
  [...table.tHead.rows[0].cells].forEach((head, column) => {
    const button = document.createElement('button');
    button.type = 'button';
    button.append(...head.childNodes);
    head.append(button);
    button.onclick = () => {
      const way = head.getAttribute('aria-sort') === 'ascending' ? -1 : 1;
      for (const other of table.tHead.rows[0].cells) other.removeAttribute('aria-sort');
      head.setAttribute('aria-sort', way === 1 ? 'ascending' : 'descending');
      const key = (row) => row.cells[column].dataset.value ?? row.cells[column].textContent;
      const order = (a, b) => {
        const x = key(a), y = key(b);
        if (x === '' || y === '') return (x === '') - (y === '');
        return way * (isNaN(x) || isNaN(y) ? x.localeCompare(y) : x - y);
      };
      body.append(...[...body.rows].sort(order));
    };
  });
}

for (const figure of document.querySelectorAll('figure.plan')) {
  const svg = figure.querySelector('svg'), output = figure.querySelector('output');
  const grid = JSON.parse(figure.querySelector('script').textContent), values = grid.uses[''];
  const x0 = +svg.dataset.x0, y0 = +svg.dataset.y0, scale = +svg.dataset.perM / grid.per_m;
  const mark = document.createElementNS('http://www.w3.org/2000/svg', 'rect');
  for (const [key, value] of Object.entries({ fill: 'none', stroke: '#a3243b', 'stroke-width': 3, visibility: 'hidden' })) mark.setAttribute(key, value);
  svg.append(mark);
  svg.setAttribute('tabindex', '0');
  followCells(svg, () => grid, (place) => [(place.x - x0) / scale, (y0 - place.y) / scale], (k) => {
    mark.setAttribute('visibility', k < 0 ? 'hidden' : 'visible');
    output.textContent = k < 0 ? '' : pointWords(grid, values, k, grid.light, grid.length);
    if (k < 0) return;
    const low = [0, 1].map((axis) => grid.start[axis] + grid.cells[k][axis] * grid.cell[axis]);
    const box = { x: x0 + low[0] * scale, y: y0 - (low[1] + grid.cell[1]) * scale, width: grid.cell[0] * scale, height: grid.cell[1] * scale };
    for (const [key, value] of Object.entries(box)) mark.setAttribute(key, value);
  });
}
