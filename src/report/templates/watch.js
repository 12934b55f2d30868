// The page beside `run --watch`: asks again and again whether the stamp has changed, and takes the new results when it
// has. Files only: scripts may be loaded where nothing else may.
'use strict';
const glow = { stamp: '', chosen: { room: '', grid: '', scene: '', scale: 'grid', steps: 'linear' } };
const byId = (id) => document.getElementById(id);
const make = (name, words, properties) => Object.assign(document.createElement(name), { textContent: words }, properties);

function load(file, done) {
  const script = make('script', '', { src: `${file}?${Date.now()}`, onload: done });
  script.onerror = () => script.remove();
  document.head.append(script);
  setTimeout(() => script.remove(), 2000);
}

// Called by stamp.js and data.js.
glow.stamped = (stamp) => {
  if (stamp === glow.stamp) return;
  load('data.js', () => { glow.stamp = stamp; });
};
glow.take = (data) => {
  glow.data = data;
  glow.plan = new GridPlan(renewed('plan'), data.colours, data.light, data.length, (words) => {
    byId('value').textContent = words || 'Point at the plan, or use the arrow keys, for the value there.';
  });
  show();
};

// Without what listens to it.
function renewed(id) {
  const old = byId(id), fresh = old.cloneNode(false);
  old.replaceWith(fresh);
  return fresh;
}

function options(id, names, words) {
  const select = byId(id), wanted = glow.chosen[id];
  select.replaceChildren(...names.map((name, k) => make('option', words ? words[k] : name, { value: name })));
  select.value = names.includes(wanted) ? wanted : names[0];
  glow.chosen[id] = select.value;
  select.onchange = () => { glow.chosen[id] = select.value; show(); };
}

// Bounds of the colours: of this grid, of it in all scenes, or of all grids of the room in this scene.
function rangeOf(room, grid, scene) {
  const lists = { grid: () => [grid.uses[scene].total], scenes: () => Object.values(grid.uses).map((use) => use.total),
                  room: () => room.grids.filter((each) => each.uses[scene]).map((each) => each.uses[scene].total) };
  const values = lists[glow.chosen.scale]().flat();
  const high = Math.max(1e-3, ...values), low = Math.min(...values);
  return glow.chosen.steps === 'log' ? [Math.max(low, high / 1000), high] : [low, Math.max(high, low + 1e-3)];
}

function legend(range) {
  const stops = glow.data.colours.map((colour, k) => `${colour} ${(100 * k / (glow.data.colours.length - 1)).toFixed(1)}%`);
  byId('bar').style.background = `linear-gradient(to right, ${stops.join(',')})`;
  const middle = glow.chosen.steps === 'log' ? Math.sqrt(range[0] * range[1]) : (range[0] + range[1]) / 2;
  byId('marks').replaceChildren(...[range[0], middle, range[1]].map((value) => make('span', `${lightWords(value)} ${glow.data.light}`)));
}

function rows(id, lines, columns) {
  byId(id).replaceChildren(...lines.map((line) => {
    const row = make('tr', '');
    row.append(...columns(line).map(([words, kind]) => make('td', words, { className: kind || '' })));
    return row;
  }));
}

const signs = { met: '✓ met', 'not met': '✗ not met', undecided: '? undecided', 'no target': 'no target' };
const kindOf = (verdict) => verdict.replace(' ', '-');

function show() {
  const { data, chosen } = glow;
  document.title = `${data.project}: ${data.summary}`;
  byId('project').textContent = data.project;
  byId('state').textContent = data.state;
  byId('faults').replaceChildren(...data.faults.map((fault) => make('p', fault)));
  rows('moved', data.moved, (line) => [[line.room], [line.what], [line.before], [line.now], [line.words, line.kind]]);
  byId('moved-part').hidden = data.moved.length === 0;
  byId('work').hidden = data.rooms.length === 0;
  if (data.rooms.length === 0) return;
  const first = data.rooms.find((room) => room.verdict === 'not met');
  if (!chosen.room && first) chosen.room = first.name;
  options('room', data.rooms.map((room) => room.name), data.rooms.map((room) => `${room.name}: ${room.verdict}`));
  const room = data.rooms.find((each) => each.name === chosen.room);
  options('grid', room.grids.map((grid) => grid.name));
  const grid = room.grids.find((each) => each.name === chosen.grid);
  options('scene', Object.keys(grid.uses), Object.keys(grid.uses).map((name) => name || 'all groups as placed'));
  options('scale', ['grid', 'scenes', 'room'], ['this plan', 'all scenes of it', 'all plans of the room']);
  options('steps', ['linear', 'log'], ['even', 'by ratio']);
  const use = grid.uses[chosen.scene], range = rangeOf(room, grid, chosen.scene);
  glow.plan.show(grid, use, range, chosen.steps === 'log');
  legend(range);
  byId('facts').textContent = `mean ${lightWords(use.mean)} ${data.light} ± ${use.uncertainty.toPrecision(2)}, least ` +
      `${lightWords(Math.min(...use.total))}, most ${lightWords(Math.max(...use.total))}` +
      (use.u0 === null ? '' : `, U0 ${use.u0.toFixed(2)}`);
  byId('verdict').textContent = signs[room.verdict] || room.verdict;
  byId('verdict').className = kindOf(room.verdict);
  rows('checks', room.checks.filter((check) => check.scene === chosen.scene || (!check.scene && !chosen.scene)),
       (check) => [[check.of], [check.quantity], [check.required], [check.found],
                   [check.binding ? signs[check.verdict] : `(${check.verdict})`, kindOf(check.verdict)]]);
  byId('advice').replaceChildren(...room.advice.map(([words, kind]) => make('li', words, { className: kind })));
  byId('views').replaceChildren(...room.views.map((view) => make('img', '', { src: `${view}?${glow.stamp}`, alt: `${room.name}: picture` })));
}

setInterval(() => load('stamp.js'), 400);
load('stamp.js');
