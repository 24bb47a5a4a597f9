// The packing slip: what is in the parcel, without a price.
#import "alike.typ": *
#let data = json("data.json")
#let slip = data.slip
#set document(title: "Packing slip")
#set page(paper: paper_name, margin: (x: 22mm, top: 20mm, bottom: 18mm), footer: foot(slip.head.studio))
#show: faces
#head(slip.head, data.mark)
#heading(level: 1, if slip.gift { "In this parcel" } else { "Packing slip" })
#text(fill: soft, (slip.order, slip.on).filter(it => it != "").join(" · "))
#v(4mm)
#ends(slip.ends)
#heading(level: 2, "What is in it")
#for piece in slip.pieces {
  block(breakable: false, above: 3mm, below: 3mm, {
    text(weight: "bold", piece.title)
    for line in piece.lines { linebreak(); line }
  })
}
#if slip.with_it.len() > 0 {
  heading(level: 2, "With it")
  for line in slip.with_it { block(above: 1.6mm, below: 1.6mm, grid(columns: (5mm, 1fr), "–", line)) }
}
#v(6mm)
Please photograph the closed box before you open it, and keep it until you are sure that all is well.
