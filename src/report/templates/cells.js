// Goes over the cells of a grid that is drawn: the one under the pointer, or where the arrow keys have gone.
'use strict';
const lightWords = (value) => (value < 10 ? value.toFixed(1) : value.toFixed(0));

// What is told of point `k`.
function pointWords(grid, { total, direct }, k, light, length) {
  const place = grid.points[k].map((value) => value.toFixed(2)).join(', ');
  return `${lightWords(total[k])} ${light} at (${place}) ${length}: direct ${lightWords(direct[k])}, reflected ` +
    lightWords(total[k] - direct[k]);
}

// `grid()`: what is shown; `metres(place)`: [x, y] on it of a place in the drawing; `choose(k)`: takes the cell, -1 for none.
// Gives a function that chooses one from outside.
function followCells(svg, grid, metres, choose) {
  let at = -1;
  const go = (k) => choose(at = k);
  const cellAt = (column, row) => grid().cells.findIndex((each) => each[0] === column && each[1] === row);
  svg.addEventListener('pointermove', (event) => {
    const place = metres(new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM().inverse()));
    const { start, cell } = grid();
    go(cellAt(...[0, 1].map((axis) => Math.floor((place[axis] - start[axis]) / cell[axis]))));
  });
  svg.addEventListener('pointerleave', () => go(-1));
  svg.addEventListener('keydown', (event) => {
    const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key];
    if (!step) return;
    event.preventDefault();
    const from = grid().cells[Math.max(0, at)], to = cellAt(from[0] + step[0], from[1] + step[1]);
    go(at < 0 ? 0 : to < 0 ? at : to);
  });
  return (count) => go(at < count ? at : -1);  // stays where it was, where there still is such a cell
}
