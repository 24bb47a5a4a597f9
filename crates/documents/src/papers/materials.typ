// The materials list: what several shipments take off the shelf together, with room to tick.
#import "alike.typ": *
#let data = json("data.json")
#let list = data.list
#set document(title: "Materials list")
#set page(paper: paper_name, margin: (x: 18mm, top: 18mm, bottom: 18mm), footer: foot(list.head.studio + " · materials · " + list.on))
#show: faces
#head(list.head, data.mark)
#heading(level: 1, "Materials for " + if list.shipments.len() == 1 { "one shipment" } else { str(list.shipments.len()) + " shipments" })
#for (at, title) in list.shipments.enumerate() { text(str(at + 1) + "  " + title); linebreak() }
#v(2mm)
#table(columns: (7mm, 1fr, auto, auto, auto, auto), stroke: (x, y) => (bottom: 0.4pt + luma(if y == 0 { 60 } else { 190 })), inset: (x: 3pt, y: 6pt),
  align: (left, left, right, right, left, left),
  "", ..("Material", "Takes", "There is", "To order", "For").map(name => text(fill: soft, size: 9pt, name)),
  ..list.rows.map(row => (box(width: 4mm, height: 4mm, stroke: 0.4mm), row.name, text(weight: "bold", row.takes), row.left, text(weight: "bold", row.short), row.of)).flatten())
#text(fill: soft, size: 9pt, "Sheets are counted as they are cut for all of them together. “There is” is empty for what nobody counts.")
