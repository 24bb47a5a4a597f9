// Drawings at true scale. What is drawn comes as data; nothing is reckoned here but where it stands on its page.
#let data = json("data.json")
#let on = json("page.json")
#let paper_name = if on.paper == "letter" { "us-letter" } else { "a4" }
#let margin = 10mm
#let foot = 22mm
#let strokes = (:)
#for kind in data.kinds {
  let dash = if kind.dashes.len() == 0 { none } else { kind.dashes.map(d => d * 1mm) }
  strokes.insert(kind.key, (paint: black, thickness: if kind.key == "cut" { 0.5mm } else { 0.3mm }, dash: dash))
}
#set document(title: if data.drawings.len() > 0 { data.drawings.first().drawing.title } else { data.studio })
#set text(font: ("Atkinson Hyperlegible Next", "Noto Sans"), size: 10pt, lang: "en")
#show heading: set text(font: ("Bricolage Grotesque", "Noto Sans"))

#let drawn(d, marks) = {
  let at(p) = (p.at(0) * 1mm, (d.height - p.at(1)) * 1mm)
  for l in d.lines {
    place(top + left, line(start: at(l.from), end: at(l.to), stroke: strokes.at(l.kind)))
  }
  for t in d.texts {
    let (x, y) = at(t.at)
    place(top + left, dx: x - 150mm, dy: y - 20mm,
      box(width: 300mm, height: 40mm, align(center + horizon, text(size: t.size * 1mm, t.text))))
  }
  for m in marks {
    let (x, y) = at(m)
    place(top + left, line(start: (x - 4mm, y), end: (x + 4mm, y), stroke: 0.15mm))
    place(top + left, line(start: (x, y - 4mm), end: (x, y + 4mm), stroke: 0.15mm))
    place(top + left, dx: x - 2mm, dy: y - 2mm, circle(radius: 2mm, stroke: 0.15mm))
  }
}

// Exactly 100 mm or 4 in from tick to tick.
#let (step, ticks, long, named) = if on.inches { (0.5in, 8, 2, "4 in") } else { (10mm, 10, 5, "100 mm") }
#let bar = box(width: step * ticks, height: 7mm, {
  place(top + left, line(start: (0mm, 2mm), end: (step * ticks, 2mm), stroke: 0.4mm))
  for x in range(ticks + 1) {
    let high = if calc.rem(x, long) == 0 { 2mm } else { 1mm }
    place(top + left, line(start: (x * step, 2mm - high), end: (x * step, 2mm + high), stroke: 0.2mm))
  }
  place(top + left, dy: 4.2mm, text(size: 7pt, named + ": measure it before you cut"))
})

#let legend(used) = {
  for kind in data.kinds.filter(k => used.contains(k.key)) {
    box(baseline: -2pt, line(length: 12mm, stroke: strokes.at(kind.key)))
    h(1mm)
    text(size: 7pt, kind.name)
    h(4mm)
  }
}

#if data.list.len() > 0 {
  set page(paper: paper_name, margin: 18mm, footer: text(size: 8pt, data.studio))
  for (i, one) in data.list.enumerate() {
    if i > 0 { v(6mm) }
    block(breakable: false, {
      heading(level: 2, one.title)
      text(fill: luma(70), one.says)
    })
    enum(..one.cuts.map(c => enum.item(text(size: 12pt, c))))
    table(columns: (auto, 1fr, auto), stroke: (x, y) => (bottom: 0.3pt + luma(160)), inset: 4pt,
      ..one.parts.flatten().map(c => [#c]))
  }
}

#for pages in data.drawings {
  let d = pages.drawing
  let used = d.lines.map(l => l.kind).dedup()
  for tile in pages.tiles {
    set page(width: pages.page.at(0) * 1mm, height: pages.page.at(1) * 1mm, margin: 0mm)
    let (wide, high) = (pages.shows.at(0) * 1mm, pages.shows.at(1) * 1mm)
    // Its upper left corner on the drawing.
    let (dx, dy) = (tile.at.at(0) * 1mm, (d.height - tile.at.at(1) - pages.shows.at(1)) * 1mm)
    place(top + left, dx: margin, dy: margin, box(width: wide, height: high, clip: true,
      place(top + left, dx: -dx, dy: -dy, box(width: d.width * 1mm, height: d.height * 1mm, drawn(d, pages.marks)))))
    place(bottom + left, dx: margin, dy: -6mm, box(width: pages.page.at(0) * 1mm - margin * 2, {
      grid(columns: (1fr, step * ticks), column-gutter: 6mm,
        {
          text(weight: "bold", d.title)
          if tile.name != "" { text(", " + tile.name) }
          linebreak()
          text(size: 8pt, d.says)
          linebreak()
          legend(used)
        },
        bar)
    }))
    pagebreak(weak: true)
  }
}
