// Certificates of authenticity, each on a card of the studio's own size.
#import "alike.typ": *
#let data = json("data.json")
#let (wide, high) = (data.card.width_mm * 1mm, data.card.height_mm * 1mm)
#set document(title: "Certificate of authenticity")
#set page(width: wide, height: high, margin: calc.min(wide, high) * 0.09)
// What fits a postcard well grows with a larger card.
#let grow = calc.max(0.75, calc.min(1.5, calc.min(wide / 148mm, high / 105mm)))
#show: faces.with(size: 9pt * grow)
#for (at, one) in data.certificates.enumerate() {
  if at > 0 { pagebreak() }
  grid(columns: (1fr, auto), align: (left, right),
    text(font: ("Bricolage Grotesque", "Noto Sans"), size: 8.5pt * grow, fill: soft, "Certificate of authenticity"),
    if data.mark { image("picture-0", height: 9mm * grow) } else { text(size: 8.5pt * grow, fill: soft, data.studio) })
  v(1mm * grow)
  text(font: ("Bricolage Grotesque", "Noto Sans"), weight: "bold", size: 15pt * grow, one.title)
  v(0.5mm * grow)
  grid(columns: (auto, 1fr), column-gutter: 5mm * grow, row-gutter: 1.9mm * grow,
    ..one.facts.map(row => (text(fill: soft, row.at(0)), row.at(1))).flatten())
  v(1fr)
  let signed(name, says) = {
    box(height: 7mm * grow, align(bottom, says))
    v(-1.5mm)
    line(length: 100%, stroke: 0.4pt)
    v(-1.8mm)
    text(size: 7.5pt * grow, fill: soft, name)
  }
  grid(columns: (1fr, 28mm * grow, 24mm * grow), column-gutter: 5mm * grow, align: bottom,
    signed("Signature", ""),
    signed("Date", if one.dated != none { one.dated } else { "" }),
    box(width: 24mm * grow, height: 16mm * grow, radius: 1mm, stroke: (paint: luma(150), thickness: 0.4pt, dash: "dotted"),
      align(center + horizon, text(size: 7.5pt * grow, fill: soft, "Seal"))))
  if data.mark { v(1mm * grow); text(size: 7.5pt * grow, fill: soft, data.studio) }
}
