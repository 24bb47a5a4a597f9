// The condition report, with its photographs.
#import "alike.typ": *
#let data = json("data.json")
#let report = data.condition
#set document(title: "Condition report")
#set page(paper: paper_name, margin: (x: 22mm, top: 20mm, bottom: 18mm), footer: foot(report.head.studio + " · Condition report"))
#show: faces
#head(report.head, data.mark)
#heading(level: 1, "Condition report")
#text(fill: soft, "As it was before packing, " + report.on)
#for piece in report.pieces {
  block(breakable: false, above: 6mm, {
    text(weight: "bold", size: 12pt, piece.title)
    for line in piece.lines { linebreak(); line }
    v(1mm)
    facts((("Surface", piece.surface), ("Seen on it", if piece.notes == "" { "Nothing was written down." } else { piece.notes })))
  })
}
#if report.photographs.len() > 0 {
  heading(level: 2, "Photographs")
  photographs(report.photographs, if data.mark { 1 } else { 0 })
} else {
  block(above: 6mm, text(fill: soft, "No photographs were taken."))
}
#v(8mm)
#grid(columns: (1fr, 1fr), column-gutter: 10mm, ruled(100%, "Looked at by"), ruled(100%, "Date"))
