// What all papers set alike: faces, head, lists of facts, the foot with its page.
#let on = json("page.json")
#let paper_name = if on.paper == "letter" { "us-letter" } else { "a4" }
#let soft = luma(70)
#let heather = rgb("#6d4a7c")
#let faces(size: 10.5pt, body) = {
  set text(font: ("Atkinson Hyperlegible Next", "Noto Sans"), size: size, lang: "en")
  set par(leading: 0.55em)
  show heading: set text(font: ("Bricolage Grotesque", "Noto Sans"))
  show heading.where(level: 2): set block(above: 7mm, below: 3mm)
  body
}
#let foot(left) = context {
  set text(size: 8.5pt, fill: soft)
  grid(columns: (1fr, auto), left, counter(page).display("1 of 1", both: true))
}
// The studio's own mark, where there is one, with its name and lines.
#let head(letterhead, mark) = {
  let named = {
    text(font: ("Bricolage Grotesque", "Noto Sans"), weight: "bold", size: 13pt, letterhead.studio)
    for line in letterhead.lines { linebreak(); text(size: 9pt, fill: soft, line) }
  }
  if mark {
    grid(columns: (auto, 1fr), column-gutter: 5mm, align: left + horizon, image("picture-0", height: 16mm), named)
  } else { named }
}
#let address(title, lines) = {
  text(size: 8.5pt, fill: soft, title)
  linebreak()
  lines.join(linebreak())
}
#let ends(both) = grid(columns: (1fr, 1fr), column-gutter: 8mm,
  address("From", both.from), address("To", both.to))
#let facts(rows) = table(columns: (auto, 1fr), stroke: (x, y) => (bottom: 0.3pt + luma(190)), inset: (x: 0pt, y: 4pt), column-gutter: 6mm,
  ..rows.map(row => (text(fill: soft, row.at(0)), row.at(1))).flatten())
#let ruled(width, says) = box(width: width, {
  v(9mm)
  line(length: 100%, stroke: 0.4pt)
  v(-2mm)
  text(size: 8.5pt, fill: soft, says)
})
// Photographs two in a row; `first` is the number of the first picture.
#let photographs(lines, first) = grid(columns: (1fr, 1fr), gutter: 6mm,
  ..lines.enumerate().map(((at, one)) => block(breakable: false, {
    align(center, image("picture-" + str(first + at), width: 100%, height: 78mm, fit: "contain"))
    text(size: 8.5pt, one.says + " · " + one.taken_at)
  })))
