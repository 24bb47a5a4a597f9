// The paper for customs.
#import "alike.typ": *
#let data = json("data.json")
#let customs = data.customs
#set document(title: "Customs declaration")
#set page(paper: paper_name, margin: (x: 20mm, top: 18mm, bottom: 18mm), footer: foot(customs.head.studio + if customs.tracking == "" { "" } else { " · " + customs.tracking }))
#show: faces
#head(customs.head, data.mark)
#heading(level: 1, "Customs declaration")
#text(fill: soft, "Invoice for customs, " + customs.on + if customs.tracking != "" { ", parcel " + customs.tracking } else { "" })
#v(4mm)
#ends(customs.ends)
#v(4mm)
#facts((("Reason for sending", customs.reason), ("Weight of the parcel", if customs.mass == "" { "not weighed" } else { customs.mass })) + customs.numbers.map(one => (one.at(0), one.at(1))))
#heading(level: 2, "Contents")
#table(columns: (1fr, auto, auto, auto), stroke: (x, y) => (bottom: 0.4pt + luma(if y == 0 { 60 } else { 190 })), inset: (x: 3pt, y: 5pt),
  align: (left, left, right, right),
  ..("What it is", "Made in", "Count", "Value").map(name => text(fill: soft, size: 9pt, name)),
  ..customs.lines.map(line => (line.what, line.origin, str(line.count), line.value)).flatten(),
  text(weight: "bold", "Together"), "", "", text(weight: "bold", customs.total))
#heading(level: 2, "Protected materials")
#for line in customs.protected { block(above: 1.6mm, below: 1.6mm, line) }
#heading(level: 2, "Declared")
I declare that what is said here is right, and that nothing in the parcel is dangerous or forbidden to send. What customs and the carrier of your country ask for besides comes first.
#v(6mm)
#grid(columns: (1fr, 1fr), column-gutter: 10mm, ruled(100%, "Signature"), ruled(100%, "Place and date"))
