// A card of thanks on a card of the studio's own size: a line that is printed, and room for a hand.
#import "alike.typ": *
#let data = json("data.json")
#let (wide, high) = (data.card.width_mm * 1mm, data.card.height_mm * 1mm)
#set document(title: "Thank you")
#set page(width: wide, height: high, margin: calc.min(wide, high) * 0.09)
#let grow = calc.max(0.75, calc.min(1.5, calc.min(wide / 148mm, high / 105mm)))
#show: faces.with(size: 9pt * grow)
#grid(columns: (1fr, auto), align: (left, right), none,
  if data.mark { image("picture-0", height: 9mm * grow) } else { text(size: 8.5pt * grow, fill: soft, data.studio) })
#text(font: ("Bricolage Grotesque", "Noto Sans"), weight: "bold", size: 15pt * grow,
  if data.thanks.to != "" { "Thank you, " + data.thanks.to } else { "Thank you" })
#linebreak()
#for piece in data.thanks.pieces { piece; linebreak() }
#v(1fr)
#for _ in range(3) { v(6mm * grow); line(length: 100%, stroke: (paint: luma(180), thickness: 0.3pt)) }
#if data.mark { v(1mm * grow); text(size: 7.5pt * grow, fill: soft, data.studio) }
