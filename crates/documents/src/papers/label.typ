// Shipping labels of 100 × 150 mm or 4 × 6 in, each alone on a page or on a sheet with a line to cut along.
#import "alike.typ": *
#let data = json("data.json")
#set document(title: "Label " + data.labels.map(each => each.label.tracking).join(", "))
#show: faces.with(size: 10pt)
#let (wide, high) = if on.label == "4x6" { (4in, 6in) } else { (100mm, 150mm) }
#let (bar, named) = if on.inches { (4in, "4 in") } else { (100mm, "100 mm") }
#let one(label, code) = box(width: wide, height: high, inset: 5mm, {
  grid(columns: (1fr, 30mm), column-gutter: 3mm,
    {
      text(font: ("Bricolage Grotesque", "Noto Sans"), weight: "bold", size: 13pt, label.carrier)
      v(2mm)
      text(size: 8pt, { text(fill: soft, "From "); linebreak(); label.ends.from.join(linebreak()) })
    },
    {
      image(bytes(code), format: "svg", width: 30mm)
    })
  v(2mm)
  line(length: 100%, stroke: 1pt)
  v(1mm)
  text(size: 8pt, fill: soft, "To")
  v(-1mm)
  // As large as the longest line lets it be.
  let longest = calc.max(..label.ends.to.map(line => line.clusters().len()), 1)
  let size = calc.max(11pt, calc.min(18pt, 430pt / longest))
  block(height: 52mm, width: 100%, clip: true, {
    set par(leading: 0.5em)
    text(size: size, weight: "bold", label.ends.to.join(linebreak()))
  })
  line(length: 100%, stroke: 1pt)
  v(1mm)
  align(center, text(size: 20pt, weight: "bold", tracking: 0.06em, label.tracking))
  v(-1mm)
  grid(columns: (1fr, auto), text(size: 9pt, label.about), text(size: 9pt, label.reference))
  if label.lines.len() > 0 { v(0.5mm); text(size: 8.5pt, label.lines.join(" · ")) }
})
#if data.a4 {
  set page(paper: paper_name, margin: 15mm)
  for (at, (label, code)) in data.labels.map(each => (each.label, each.code)).enumerate() {
    if at > 0 { pagebreak() }
    box(stroke: (paint: luma(120), thickness: 0.3pt, dash: "dashed"), one(label, code))
    v(4mm)
    text(size: 9pt, fill: soft, "Print at 100 %, cut along the line. Flat on the largest side, not over a seam; no tape over the code.")
    v(3mm)
    box(width: bar, height: 6mm, {
      place(top + left, line(start: (0mm, 2mm), end: (bar, 2mm), stroke: 0.4mm))
      place(top + left, line(start: (0mm, 0mm), end: (0mm, 4mm), stroke: 0.2mm))
      place(top + left, line(start: (bar, 0mm), end: (bar, 4mm), stroke: 0.2mm))
      place(top + left, dy: 4.2mm, text(size: 7pt, named))
    })
  }
} else {
  set page(width: wide, height: high, margin: 0mm)
  for (at, (label, code)) in data.labels.map(each => (each.label, each.code)).enumerate() {
    if at > 0 { pagebreak() }
    one(label, code)
  }
}
