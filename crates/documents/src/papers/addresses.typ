// Both addresses for the outside of a box: to whom in letters that are read across a counter, from whom small above it.
#import "alike.typ": *
#let on = json("page.json")
#let paper_name = if on.paper == "letter" { "us-letter" } else { "a4" }
#let data = json("data.json")
#set document(title: "Addresses")
#set page(paper: paper_name, flipped: true, margin: 16mm)
#show: faces.with(size: 14pt)
#text(size: 11pt, fill: soft, "From")
#linebreak()
#for line in data.ends.from { line; linebreak() }
#v(1fr)
#text(size: 16pt, fill: soft, "To")
#v(-2mm)
#block(text(size: 34pt, weight: "bold", { for line in data.ends.to { line; linebreak() } }))
#v(1fr)
#text(size: 9pt, fill: soft, "Flat on the largest side, not over a seam, under clear tape where it may rain.")
