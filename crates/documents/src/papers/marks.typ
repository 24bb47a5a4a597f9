// Handling marks, a group for each side that the parcel may lie on: two groups to a page of A4, cut apart between.
#import "alike.typ": *
#let data = json("data.json")
#set document(title: "Handling marks")
#set page(paper: paper_name, margin: 12mm)
#show: faces
#let ink = 1.6pt + black
#let drawn = (
  up: box(width: 34mm, height: 34mm, {
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
  no_stack: box(width: 34mm, height: 34mm, {
    place(top + left, dx: 7mm, dy: 19mm, rect(width: 20mm, height: 11mm, stroke: ink))
    place(top + left, dx: 9mm, dy: 7mm, rect(width: 16mm, height: 9mm, stroke: ink))
    place(top + left, line(start: (5mm, 3mm), end: (29mm, 19mm), stroke: 3pt))
    place(top + left, line(start: (29mm, 3mm), end: (5mm, 19mm), stroke: 3pt))
  }),
  dry: box(width: 34mm, height: 34mm, {
    place(top + left, curve(stroke: ink, fill: none, curve.move((4mm, 16mm)),
      curve.cubic((6mm, 3mm), (28mm, 3mm), (30mm, 16mm)), curve.line((4mm, 16mm))))
    place(top + left, line(start: (17mm, 16mm), end: (17mm, 28mm), stroke: ink))
    place(top + left, line(start: (17mm, 28mm), end: (21mm, 28mm), stroke: ink))
    for x in (8mm, 26mm) { place(top + left, line(start: (x, 20mm), end: (x - 1.5mm, 25mm), stroke: ink)) }
  }),
)
#for (at, side) in data.sides.enumerate() {
  if at > 0 and calc.rem(at, 2) == 0 { pagebreak() }
  block(width: 100%, height: 128mm, stroke: (bottom: (paint: luma(150), thickness: 0.3pt, dash: "dashed")), {
    grid(columns: (1fr, 1fr), rows: (60mm, 60mm), align: center + horizon,
      ..side.map(mark => {
        drawn.at(mark.draws)
        linebreak()
        text(font: ("Bricolage Grotesque", "Noto Sans"), weight: "bold", size: 17pt, mark.says)
      }))
  })
  v(4mm)
}
