// Handling marks, each once for every place that it goes to, eight to a page: cut apart, and stuck on where the small line says.
#import "alike.typ": *
#let data = json("data.json")
#set document(title: "Handling marks")
#set page(paper: paper_name, margin: 12mm)
#show: faces
#let ink = 1.6pt + black
#let drawn = (
  this_side_up: box(width: 34mm, height: 34mm, {
    for x in (9mm, 25mm) {
      place(top + left, polygon(fill: black, (x - 6mm, 13mm), (x + 6mm, 13mm), (x, 3mm)))
      place(top + left, rect(fill: black, width: 3.4mm, height: 14mm), dx: x - 1.7mm, dy: 12.5mm)
    }
    place(top + left, dx: 3mm, dy: 29mm, line(length: 28mm, stroke: 2.4pt))
  }),
  fragile: box(width: 34mm, height: 34mm, {
    place(top + left, polygon(stroke: ink, (9mm, 3mm), (25mm, 3mm), (23mm, 14mm), (17mm, 18mm), (11mm, 14mm)))
    place(top + left, line(start: (17mm, 18mm), end: (17mm, 28mm), stroke: ink))
    place(top + left, line(start: (10mm, 29.5mm), end: (24mm, 29.5mm), stroke: 2.4pt))
    place(top + left, line(start: (18mm, 3mm), end: (15.5mm, 8mm), stroke: ink))
    place(top + left, line(start: (15.5mm, 8mm), end: (19mm, 9.5mm), stroke: ink))
    place(top + left, line(start: (19mm, 9.5mm), end: (17mm, 14mm), stroke: ink))
  }),
  glass: box(width: 34mm, height: 34mm, {
    place(top + left, polygon(stroke: ink, (9mm, 3mm), (25mm, 3mm), (23mm, 14mm), (17mm, 18mm), (11mm, 14mm)))
    place(top + left, line(start: (17mm, 18mm), end: (17mm, 28mm), stroke: ink))
    place(top + left, line(start: (10mm, 29.5mm), end: (24mm, 29.5mm), stroke: 2.4pt))
    place(top + left, line(start: (18mm, 3mm), end: (15.5mm, 8mm), stroke: ink))
    place(top + left, line(start: (15.5mm, 8mm), end: (19mm, 9.5mm), stroke: ink))
    place(top + left, line(start: (19mm, 9.5mm), end: (17mm, 14mm), stroke: ink))
  }),
  keep_dry: box(width: 34mm, height: 34mm, {
    place(top + left, curve(stroke: ink, fill: none, curve.move((4mm, 16mm)),
      curve.cubic((6mm, 3mm), (28mm, 3mm), (30mm, 16mm)), curve.line((4mm, 16mm))))
    place(top + left, line(start: (17mm, 16mm), end: (17mm, 28mm), stroke: ink))
    place(top + left, line(start: (17mm, 28mm), end: (21mm, 28mm), stroke: ink))
    for x in (8mm, 26mm) { place(top + left, line(start: (x, 20mm), end: (x - 1.5mm, 25mm), stroke: ink)) }
  }),
  face_of_the_art: box(width: 34mm, height: 34mm, {
    place(top + left, dx: 4mm, dy: 5mm, rect(width: 26mm, height: 20mm, stroke: ink))
    place(top + left, dx: 8mm, dy: 9mm, rect(width: 18mm, height: 12mm, fill: black))
    place(top + left, polygon(fill: black, (13mm, 33mm), (21mm, 33mm), (17mm, 27mm)))
  }),
  do_not_lay_flat: box(width: 34mm, height: 34mm, {
    place(top + left, dx: 4mm, dy: 20mm, rect(width: 26mm, height: 5mm, stroke: ink))
    place(top + left, dx: 2mm, dy: 27mm, line(length: 30mm, stroke: 2.4pt))
    place(top + left, line(start: (6mm, 14mm), end: (28mm, 30mm), stroke: 3pt))
    place(top + left, line(start: (28mm, 14mm), end: (6mm, 30mm), stroke: 3pt))
  }),
  do_not_bend: box(width: 34mm, height: 34mm, {
    place(top + left, curve(stroke: ink, fill: none, curve.move((4mm, 24mm)), curve.cubic((10mm, 10mm), (24mm, 10mm), (30mm, 24mm))))
    place(top + left, line(start: (6mm, 8mm), end: (28mm, 28mm), stroke: 3pt))
    place(top + left, line(start: (28mm, 8mm), end: (6mm, 28mm), stroke: 3pt))
  }),
)
#for (at, eight) in data.marks.chunks(8).enumerate() {
  if at > 0 { pagebreak() }
  grid(columns: (1fr, 1fr), rows: (66mm,) * 4, align: center + horizon,
    stroke: (paint: luma(150), thickness: 0.3pt, dash: "dashed"),
    ..eight.map(mark => {
      drawn.at(mark.draws)
      linebreak()
      text(font: ("Bricolage Grotesque", "Noto Sans"), weight: "bold", size: 17pt, mark.says)
      linebreak()
      text(size: 8pt, fill: soft, mark.goes)
    }))
}
