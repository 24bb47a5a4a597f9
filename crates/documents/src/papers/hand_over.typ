// The hand-over list: a carrier's parcels of one day, with room to sign.
#import "alike.typ": *
#let data = json("data.json")
#let list = data.list
#set document(title: "Hand-over list")
#set page(paper: paper_name, margin: (x: 18mm, top: 18mm, bottom: 18mm), footer: foot(list.head.studio + " · " + list.carrier + " · " + list.on))
#show: faces
#head(list.head, data.mark)
#heading(level: 1, "Hand-over list")
#text(size: 12pt, list.carrier + ", " + list.on)
#v(2mm)
#table(columns: (7mm, auto, auto, 1fr, 1fr, auto), stroke: (x, y) => (bottom: 0.4pt + luma(if y == 0 { 60 } else { 190 })), inset: (x: 3pt, y: 6pt),
  align: (left, left, left, left, left, right),
  "", ..("Tracking number", "Service", "Piece", "To", "Weight").map(name => text(fill: soft, size: 9pt, name)),
  ..list.rows.map(row => (box(width: 4mm, height: 4mm, stroke: 0.4mm), text(weight: "bold", row.tracking), row.service, row.title, row.to, row.mass)).flatten())
#text(weight: "bold", list.total)
#v(10mm)
#grid(columns: (1fr, 1fr, 1fr), column-gutter: 8mm, ruled(100%, "Handed over by"), ruled(100%, "Taken by, for the carrier"), ruled(100%, "Day and time"))
