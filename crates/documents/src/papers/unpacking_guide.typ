// The unpacking guide for the buyer. What it says comes as data; nothing is reckoned here but where it stands on its page.
#let on = json("page.json")
#let paper_name = if on.paper == "letter" { "us-letter" } else { "a4" }
#let data = json("data.json")
#let guide = data.guide
#set document(title: "Unpacking " + guide.title)
#set page(paper: paper_name, margin: (x: 22mm, top: 20mm, bottom: 18mm), footer: context {
  set text(size: 8.5pt, fill: luma(70))
  grid(columns: (1fr, auto), data.studio + " · " + guide.title, counter(page).display("1 of 1", both: true))
})
#set text(font: ("Atkinson Hyperlegible Next", "Noto Sans"), size: 11.5pt, lang: "en")
#set par(leading: 0.55em)
#show heading: set text(font: ("Bricolage Grotesque", "Noto Sans"))
#show heading.where(level: 2): set block(above: 7mm, below: 3mm)

#text(fill: luma(70), data.studio)
#heading(level: 1, "Unpacking " + guide.title)

#heading(level: 2, "Before you open it")
#for line in guide.before { block(above: 1.6mm, below: 1.6mm, grid(columns: (5mm, 1fr), "–", line)) }

#heading(level: 2, "Then, one thing after the other")
#for (i, step) in guide.steps.enumerate() {
  if step.piece != none and (i == 0 or guide.steps.at(i - 1).piece != step.piece) {
    block(above: 4mm, below: 1.6mm, sticky: true, text(weight: "bold", fill: rgb("#6d4a7c"), step.piece))
  }
  block(breakable: false, above: 2mm, below: 2mm,
    grid(columns: (9mm, 1fr), text(weight: "bold", str(i + 1)), { text(weight: "bold", step.title); linebreak(); step.says }))
}

#heading(level: 2, "When it is out")
#for line in guide.after { block(above: 1.6mm, below: 1.6mm, grid(columns: (5mm, 1fr), "–", line)) }
