// The claim file: all that a carrier asks for.
#import "alike.typ": *
#let data = json("data.json")
#let claim = data.claim
#set document(title: "Claim: " + claim.title)
#set page(paper: paper_name, margin: (x: 20mm, top: 18mm, bottom: 18mm), footer: foot(claim.head.studio + " · Claim: " + claim.title))
#show: faces
#head(claim.head, data.mark)
#heading(level: 1, "Claim: " + claim.title)
#text(fill: soft, claim.on)
#v(3mm)
#ends(claim.ends)
#heading(level: 2, "What is claimed")
#facts(claim.asks)
#v(2mm)
#table(columns: (auto, 1fr, auto), stroke: (x, y) => (bottom: 0.3pt + luma(190)), inset: (x: 0pt, y: 4pt), column-gutter: 4mm,
  ..claim.pieces.map(row => (text(weight: "bold", row.at(0)), row.at(1), row.at(2))).flatten())
#heading(level: 2, "What happened")
#if claim.damage == "" { text(fill: soft, "Not described yet.") } else { claim.damage.split("\n").map(line => par(line)).join() }
#heading(level: 2, "The parcel")
#facts(claim.parcel)
#heading(level: 2, "Days and papers")
#facts(claim.papers)
#if claim.events.len() > 0 {
  heading(level: 2, "What the carrier said on the way")
  facts(claim.events)
}
#if claim.photographs.len() > 0 {
  heading(level: 2, "Photographs")
  photographs(claim.photographs, if data.mark { 1 } else { 0 })
  if claim.more_photographs > 0 { block(above: 3mm, text(fill: soft, str(claim.more_photographs) + " more are in the archive of this claim.")) }
}
#heading(level: 2, "How it was packed")
#columns(2, gutter: 6mm, for row in claim.steps {
  block(breakable: false, above: 1.4mm, below: 1.4mm, grid(columns: (1fr, auto), column-gutter: 3mm, row.at(0), text(size: 8.5pt, fill: soft, row.at(1))))
})
#v(8mm)
#grid(columns: (1fr, 1fr), column-gutter: 10mm, ruled(100%, "Signature"), ruled(100%, "Place and date"))
