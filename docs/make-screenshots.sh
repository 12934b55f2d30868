#!/usr/bin/env bash
# Makes docs/screenshots/ anew from the demo project. Wants a build in build/release, rsvg-convert (librsvg2-bin), chromium, poppler-utils, imagemagick and
# the font DejaVu Sans Mono.
set -euo pipefail
here=$(cd "$(dirname "$0")" && pwd)
program="$here/../build/release/src/glowgrid"
folder=$(mktemp -d)
trap 'rm -rf "$folder"' EXIT
cd "$folder"

# A terminal of 84 columns: text from standard input to the PNG named by the first argument.
terminal() {
  local text lines=0
  text=$(sed -e 's/&/\&amp;/g; s/</\&lt;/g; s/>/\&gt;/g')
  lines=$(wc -l <<<"$text")
  {
    echo "<svg xmlns='http://www.w3.org/2000/svg' width='1280' height='$((lines * 26 + 60))' xml:space='preserve'>"
    echo "<rect width='100%' height='100%' fill='#fbfaf7'/><g font-family='DejaVu Sans Mono' font-size='20' fill='#222'>"
    local y=44
    while IFS= read -r line; do
      echo "<text x='32' y='$y'>$line</text>"
      y=$((y + 26))
    done <<<"$text"
    echo "</g></svg>"
  } >terminal.svg
  rsvg-convert -o "$here/screenshots/$1" terminal.svg
}

{ echo '$ glowgrid demo'; "$program" demo; } >demo.txt
terminal run-table.png <demo.txt
{ echo '$ glowgrid show millrace-demo/millrace.toml checks --room Showroom'; "$program" show millrace-demo/millrace.toml checks --room Showroom
  echo; echo '$ glowgrid show millrace-demo/millrace.toml grids --room Showroom'; "$program" show millrace-demo/millrace.toml grids --room Showroom; } >showroom.txt
{ echo '$ glowgrid check millrace-demo/millrace.toml | tail -26'; "$program" check millrace-demo/millrace.toml | tail -26; } | fold -s -w 98 >check.txt
sed -e 's/glazing"/glasing"/; s/furniture = "board"/furniture = "bord"/; s/on = "notice board"/on = "notice"/' millrace-demo/millrace.toml >millrace-demo/slips.toml
{ echo; echo '$ glowgrid check millrace-demo/slips.toml'; "$program" check millrace-demo/slips.toml 2>&1 || true; } | fold -s -w 98 >>check.txt
{ echo; echo '$ glowgrid tasks evening class'; "$program" tasks evening class; } >>check.txt
terminal check.png <check.txt
"$program" draw millrace-demo/millrace.toml -q -f png -o drawn
for pair in throwing-room--work-plane:plan \
  showroom--scenes--work-plane:scenes  en-17037-mill-rebuilt/throwing-room--daylight-plane--daylight-factor:daylight; do
  cp "drawn/${pair%%:*}.png" "$here/screenshots/${pair##*:}.png"
done
montage drawn/the-year/throwing-room--work-plane--daylight-autonomy-300-lx.png drawn/the-year/throwing-room--year.png -tile 1x -geometry +0+0 "$here/screenshots/year.png"
montage drawn/throwing-room--energy.png drawn/throwing-room--energy--days.png -tile 1x -geometry +0+0 "$here/screenshots/energy.png"
montage drawn/yard--neighbours.png drawn/yard--mill-lane-4--glare.png -tile 1x -geometry +0+0 "$here/screenshots/neighbours.png"
"$program" weather millrace-demo/weather/millrace.csv -o weather >/dev/null
cp weather/millrace--weather.png "$here/screenshots/weather.png"
"$program" run millrace-demo/millrace.toml -q --no-views --keep "as built" >/dev/null
{ echo '$ glowgrid runs millrace-demo/millrace.toml'; "$program" runs millrace-demo/millrace.toml; echo
  echo '$ glowgrid compare millrace-demo/millrace.toml "millrace-demo/millrace.toml@fewer spots" ..'
  "$program" compare millrace-demo/millrace.toml "millrace-demo/millrace.toml@fewer spots" "millrace-demo/millrace.toml@one more by the door" \
    "millrace-demo/millrace.toml@white walls" -q; } | fold -s -w 98 >compare.txt
terminal compare.png <compare.txt
"$program" arrange millrace-demo/millrace.toml --room "Throwing room" --mark P1 -q --figure "$here/screenshots/arrangement.png" >/dev/null
export XDG_CACHE_HOME="$folder/cache"
"$program" shelf millrace-demo/shelf -q --figure shelf.png >/dev/null
"$program" rank millrace-demo/millrace.toml --room "Glaze kitchen" --shelf millrace-demo/shelf --flux 1500..7000 --kind direct,direct-indirect -q --figure "$here/screenshots/ranking.png" >/dev/null
cd millrace-demo
"$program" view millrace.toml --room Showroom --view "display table" -q -f png -o pictures
cp pictures/showroom--display-table.png "$here/screenshots/view.png"
probe='probe millrace.toml --room Showroom --at 3.2,5.8,1.6 --facing till'
{ cat ../showroom.txt; echo; echo "$ glowgrid $probe"; "$program" $probe; } >probe.txt
terminal verdicts.png <probe.txt
"$program" inspect photometry/tarnfell-p1.ldt photometry/quillon-d2.ies -o curves >/dev/null
montage curves/together--polar.png ../shelf.png -tile 1x -geometry +0+0 "$here/screenshots/curves.png"
"$program" import plans/millrace.dxf -o from-plan.toml --rooms ROOMS --texts NAMES --doors DOORS --windows WINDOWS --blocks plans/blocks.csv \
  --floor 'River floor: -3000,-2000 17000,12000' --floor 'Street floor: 29000,-2000 43000,10000' --level 0 --level 3.6 >/dev/null
rsvg-convert -o "$here/screenshots/import.png" from-plan-import--river-floor.svg
cat >>from-plan.toml <<'END'

[luminaires.P1]
file = "photometry/tarnfell-p1.ldt"

[luminaires.D2]
file = "photometry/quillon-d2.ies"

[[settings]]
[[settings.luminaires]]
mark = "P1"
array = { rows = 2, columns = 3 }
mounting = "suspended"
suspension = 0.6

[[settings]]
for = { task = ["circulation.*", "storage.*"] }
[[settings.luminaires]]
mark = "D2"
array = { rows = 2, columns = 3 }
END
"$program" run from-plan.toml -q --no-views >/dev/null
rsvg-convert -o "$here/screenshots/floor.png" from-plan-results/figures/floor--river-floor.svg

# The page beside `run --watch`, after a save.
cp millrace.toml watched.toml
"$program" run watched.toml --watch --no-views -q >watched.txt &
watching=$!
until grep -q 'complete after' watched.txt; do sleep 0.5; done
awk '/^mark = "D2"/ && !done { print; print "dimming = 0.6"; done = 1; next } { print }' millrace.toml >aside.toml
mv aside.toml watched.toml
until [ "$(grep -c 'complete after' watched.txt)" = 2 ]; do sleep 0.5; done
kill -INT $watching
chromium --headless --no-sandbox --disable-gpu --hide-scrollbars --window-size=1280,960 --virtual-time-budget=4000 \
  --screenshot="$here/screenshots/watch.png" "file://$PWD/watched-results/watch/page.html" >/dev/null 2>&1

# The report: cover, summary and a room.
"$program" report millrace.toml -q --format pdf -o report >/dev/null
pdftoppm -r 58 -png -f 1 -l 1 report.pdf page && pdftoppm -r 58 -png -f 3 -l 5 report.pdf page
montage page-*.png -tile 4x -geometry +6+6 -background '#b9b6ae' "$here/screenshots/report.png"
