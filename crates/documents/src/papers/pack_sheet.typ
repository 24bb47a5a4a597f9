// The pack sheet. What it says comes as data; nothing is reckoned here but where it stands on its page.
#let on = json("page.json")
#let paper_name = if on.paper == "letter" { "us-letter" } else { "a4" }
#let data = json("data.json")
#let sheet = data.sheet
#set document(title: sheet.title)
#set page(paper: paper_name, margin: (x: 14mm, top: 12mm, bottom: 14mm), footer: context {
  set text(size: 8pt)
  grid(columns: (1fr, auto), data.studio + " · " + sheet.title, counter(page).display("1 of 1", both: true))
})
#set text(font: ("Atkinson Hyperlegible Next", "Noto Sans"), size: 9.5pt, lang: "en")
#set par(leading: 0.5em)
#show heading: set text(font: ("Bricolage Grotesque", "Noto Sans"))
#show heading.where(level: 2): set block(above: 4mm, below: 2mm)

// What is folded, small, with its running dimensions below and beside it.
#let folded(d, wide, tall) = {
  let scale = calc.min(wide / (d.width * 1mm), tall / (d.height * 1mm), 1.0)
  let (w, h) = (d.width * scale * 1mm, d.height * scale * 1mm)
  block(breakable: false, above: 1.5mm, {
    // The topmost measure reaches a little above the drawing.
    block(width: 100%, below: 2mm, text(size: 7.5pt, fill: luma(60), d.title + ", " + d.says))
    box(width: w + 14mm, height: h + 7mm, {
      for l in d.lines {
        let at(p) = (p.at(0) * scale * 1mm, (d.height - p.at(1)) * scale * 1mm)
        // What is there already is thin.
        let (dash, paint, thickness) = if l.kind == "cut" { (none, black, 0.25mm) } else if l.kind == "sheet" {
          (none, luma(110), 0.12mm) } else if l.kind == "rest" { ("dotted", luma(110), 0.12mm) } else { ("dashed", black, 0.25mm) }
        place(top + left, line(start: at(l.from), end: at(l.to), stroke: (paint: paint, thickness: thickness, dash: dash)))
      }
      // A text that would lie on the one before it goes a line lower.
      let last = -20mm
      let low = false
      for m in d.across {
        let x = m.at * scale * 1mm
        low = if x - last < 7mm { not low } else { false }
        last = x
        place(top + left, line(start: (x, h + 0.5mm), end: (x, h + 1.5mm), stroke: 0.2mm))
        place(top + left, dx: x - 10mm, dy: h + if low { 4.2mm } else { 1.8mm }, box(width: 20mm, align(center, text(size: 6.5pt, m.text))))
      }
      let above = 1000mm
      let far = false
      for m in d.up {
        let y = h - m.at * scale * 1mm
        far = if above - y < 2.6mm { not far } else { false }
        above = y
        place(top + left, line(start: (w + 0.5mm, y), end: (w + 1.5mm, y), stroke: 0.2mm))
        place(top + left, dx: w + if far { 8.5mm } else { 2mm }, dy: y - 1.2mm, text(size: 6.5pt, m.text))
      }
    })
  })
}

// How an act looks: walls, what goes in, and which way something moves.
#let moved(n, p) = {
  let scale = calc.min(25mm / (p.width * 1mm), 22mm / (p.height * 1mm))
  let aside = if n == "" { 0mm } else { 2.6mm }
  let at(q) = (q.at(0) * scale * 1mm + aside, q.at(1) * scale * 1mm)
  box(width: p.width * scale * 1mm + aside + 1.5mm, height: p.height * scale * 1mm + 1mm, baseline: 0mm, {
    for f in p.faces {
      let paint = if f.of == "goods" { luma(200) } else if f.of == "inside" { luma(235) } else { white.transparentize(35%) }
      place(top + left, polygon(fill: paint, stroke: 0.18mm, ..f.points.map(at)))
    }
    if p.arrow != none {
      let (from, to) = (at(p.arrow.at(0)), at(p.arrow.at(1)))
      place(top + left, line(start: from, end: to, stroke: 0.5mm))
      place(top + left, dx: to.at(0) - 0.8mm, dy: to.at(1) - 0.8mm, circle(radius: 0.8mm, fill: black))
    }
    place(top + left, text(size: 7pt, weight: "bold", n))
  })
}

// What is done, in the words of paper where a screen has others.
#let on_paper(act) = {
  let own = act.at("prints", default: none)
  if own == none { act.says } else { own }
}

#let tick(done) = box(width: 4mm, height: 4mm, baseline: 0.8mm, stroke: 0.4mm, {
  if done { place(center + horizon, text(size: 9pt, weight: "bold", "x")) }
})

#grid(columns: (1fr, auto), column-gutter: 6mm,
  {
    heading(level: 1, sheet.title)
    for matter in sheet.against {
      let stop = matter.level == "stop"
      text(weight: if stop { "bold" } else { "regular" }, if stop { "Stop: " } else { "Open: " } + matter.says)
      linebreak()
    }
    for line in sheet.about { line; linebreak() }
    text(weight: "bold", sheet.comes_to)
    linebreak()
    text(fill: luma(70), "In the hand: " + sheet.tools)
  },
  if data.code != none {
    box(width: 26mm, {
      image(bytes(data.code), format: "svg", width: 26mm)
      align(center, text(size: 7pt, "to this packing"))
    })
  },
)

#if sheet.to.len() + sheet.from.len() > 0 {
  let end(name, lines) = block(width: 100%, inset: 2mm, stroke: 0.3mm, {
    text(size: 7.5pt, fill: luma(60), name)
    linebreak()
    for line in lines { line; linebreak() }
  })
  grid(columns: (1fr, 1fr), column-gutter: 6mm, end("To", sheet.to), end("From", sheet.from))
}

#if sheet.cuts.len() > 0 {
  heading(level: 2, "Cut")
  columns(2, gutter: 6mm, {
    for cut in sheet.cuts {
      block(breakable: false, above: 1.5mm, below: 1.5mm, {
        tick(cut.done)
        h(1.5mm)
        text(weight: "bold", cut.material)
        for part in cut.parts { linebreak(); h(5.5mm); part }
      })
    }
  })
}

#heading(level: 2, "Then, in this order")
#columns(2, gutter: 6mm, {
  for (i, step) in sheet.steps.enumerate() {
    block(breakable: false, above: 2.2mm, below: 2.2mm,
      grid(columns: (5mm, 1fr), column-gutter: 1mm, tick(step.done), {
        text(weight: "bold", str(i + 1) + "  " + step.title)
        linebreak()
        // What left before steps had acts has none.
        let acts = step.at("acts", default: ())
        let seen = acts.enumerate().filter(((n, act)) => act.picture != none)
        // Acts are numbered where pictures are, and where there are many: one a line.
        let numbered = acts.len() > 1 and (seen.len() > 0 or acts.len() > 6)
        if numbered {
          for (n, act) in acts.enumerate() {
            if n > 0 { linebreak() }
            text(size: 7.5pt, weight: "bold", str(n + 1)); h(0.8mm); on_paper(act)
          }
        } else { step.says }
        // A line to write on for each measure that is taken.
        let writes = step.at("writes", default: ())
        if writes.len() > 0 {
          linebreak()
          for what in writes { box(what + h(1mm) + box(width: 12mm, stroke: (bottom: 0.3mm), height: 3.4mm)); h(2mm) }
        }
        if step.tape != "" { linebreak(); text("Tape: " + step.tape) }
        if step.signs != "" { linebreak(); box(baseline: 0.3mm, polygon(stroke: 0.3mm, (0mm, 2.6mm), (3mm, 2.6mm), (1.5mm, 0mm))); h(1mm); text(size: 7.5pt, weight: "bold", step.signs) }
        if step.minds != "" { linebreak(); text(weight: "bold", "Mind: ") + step.minds }
        if step.asks != "" { linebreak(); text(style: "italic", step.asks) }
        for d in step.drawings { folded(d, 62mm, 34mm) }
        // How it lies then: the piece dark, what lies over and under it light.
        let still = step.at("still", default: none)
        if still != none {
          block(width: 100%, above: 1.5mm, below: 1mm, text(size: 7.5pt, fill: luma(60), "Then it lies like this, seen from the side"))
          moved("", still)
        }
        if seen.len() > 0 {
          linebreak()
          for (n, act) in seen { moved(if numbered { str(n + 1) } else { "" }, act.picture) }
        }
      }))
  }
})

#if sheet.drawings.len() > 0 {
  heading(level: 2, "To cut and fold, not to scale: cut along whole lines, score along dashes")
  for d in sheet.drawings { folded(d, 165mm, 95mm) }
}
