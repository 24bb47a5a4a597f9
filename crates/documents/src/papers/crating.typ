// The brief for a crating service.
#import "alike.typ": *
#let data = json("data.json")
#let brief = data.brief
#set document(title: "Brief for a crating service")
#set page(paper: paper_name, margin: (x: 22mm, top: 20mm, bottom: 18mm), footer: foot(brief.head.studio))
#show: faces
#head(brief.head, data.mark)
#heading(level: 1, "Brief for a crating service")
#text(fill: soft, brief.on)
#v(4mm)
#ends(brief.ends)
#heading(level: 2, "What it is")
#facts(brief.pieces)
#v(2mm)
#facts(brief.facts)
#heading(level: 2, "What it needs")
#for line in brief.needs { block(above: 1.6mm, below: 1.6mm, grid(columns: (5mm, 1fr), "–", line)) }
#heading(level: 2, "Please tell us")
Price with and without collection, the day it can go, what is covered and up to how much, and the outside size of the crate.
