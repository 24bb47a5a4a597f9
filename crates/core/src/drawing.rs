//! True-scale drawings of what is cut: lines by what is done along them, in millimetres from the lower left corner.

use serde::{Deserialize, Serialize};
use strum::EnumCount;

use crate::{
    carton::{Blank, DepthCut, JoinedAs, LengthCut, LengthJoin, Point},
    container::SavedBox,
    layer::{CardPocket, Cradle, StockLength, TravelCase},
    quantity::{Length, Telling},
    stock::{BatchSheet, MaterialCut},
};

/// What is done along a line; each kind has a pattern and a name of its own, and is never told by colour alone.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, EnumCount)]
#[serde(rename_all = "snake_case")]
pub enum LineKind {
    /// Cut through.
    Cut,
    /// Score, and fold toward whoever looks at it.
    ScoreToward,
    /// Score, and fold away.
    ScoreAway,
    /// The edge of the sheet.
    Sheet,
    /// The edge of what is kept of the rest.
    Rest,
}

impl LineKind {
    /// Every kind.
    pub const ALL: [Self; <Self as EnumCount>::COUNT] = [
        Self::Cut,
        Self::ScoreToward,
        Self::ScoreAway,
        Self::Sheet,
        Self::Rest,
    ];

    /// What it is called in a drawing: the name of its layer.
    #[must_use]
    pub const fn layer(self) -> &'static str {
        match self {
            Self::Cut => "CUT",
            Self::ScoreToward => "SCORE_TOWARD",
            Self::ScoreAway => "SCORE_AWAY",
            Self::Sheet => "SHEET",
            Self::Rest => "REST",
        }
    }

    /// Lengths of dashes and gaps along it, in millimetres; none for a whole line.
    #[must_use]
    pub const fn dashes(self) -> &'static [f64] {
        match self {
            Self::Cut | Self::Sheet => &[],
            Self::ScoreToward => &[6.0, 3.0],
            Self::ScoreAway => &[6.0, 2.0, 1.0, 2.0],
            Self::Rest => &[1.0, 2.0],
        }
    }
}

/// A straight line of a drawing.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub struct DrawnLine {
    /// What is done along it.
    pub kind: LineKind,
    /// One end, in millimetres: across, up.
    pub from: [f64; 2],
    /// The other.
    pub to: [f64; 2],
}

/// A text of a drawing.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct DrawnText {
    /// Its middle, in millimetres: across, up.
    pub at: [f64; 2],
    /// How high its letters are, in millimetres.
    pub size: f64,
    /// What it says.
    pub text: String,
}

/// A drawing at true scale.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Drawing {
    /// What it is of.
    pub title: String,
    /// What stands below the title.
    pub says: String,
    /// Across, in millimetres.
    pub width: f64,
    /// Up, in millimetres.
    pub height: f64,
    /// Its lines.
    pub lines: Vec<DrawnLine>,
    /// Its texts.
    pub texts: Vec<DrawnText>,
}

/// A kept carton that is laid open to be cut.
#[derive(Debug, Clone, Copy)]
pub struct LaidOpen {
    /// Inside: along its opening, across it, and deep.
    pub sides: [Length; 3],
    /// Of its board.
    pub caliper: Length,
    /// How it is cut down.
    pub cut: Option<DepthCut>,
    /// How it is made shorter.
    pub shorter: Option<LengthCut>,
    /// How it is joined to another one, and whether it is the inner of the two.
    pub join: Option<(LengthJoin, bool)>,
    /// Whether it is the second of two.
    pub second: bool,
}

impl LaidOpen {
    /// Returns every carton of a box that is made of kept ones, where something is cut of it.
    #[must_use]
    pub fn all_of(saved: &SavedBox) -> Vec<Self> {
        let second = saved.second.as_deref();
        let first = Self {
            sides: saved.carton_mm,
            caliper: saved.caliper,
            cut: saved.cut,
            shorter: saved.shorter,
            join: second.map(|second| (second.join, second.join.second_outside)),
            second: false,
        };
        let other = second.map(|second| Self {
            sides: second.carton_mm,
            cut: second.cut,
            shorter: None,
            join: Some((second.join, !second.join.second_outside)),
            second: true,
            ..first
        });
        let is_cut = |one: &Self| one.cut.is_some() || one.shorter.is_some() || one.join.is_some();
        std::iter::once(first).chain(other).filter(is_cut).collect()
    }
}

const DUST: f64 = 1e-6;
const NAME: f64 = 12.0;
const NUMBER: f64 = 10.0;
/// A letter is about so much narrower than it is high.
const NARROWER: f64 = 0.55;

fn xy(point: Point) -> [f64; 2] {
    [point.x.as_mm(), point.y.as_mm()]
}

impl Drawing {
    /// Returns a blank, seen from inside: what is cut, and what is scored toward oneself or away.
    #[must_use]
    pub fn of_blank(blank: &Blank, title: &str, telling: Telling) -> Self {
        let scores: Vec<DrawnLine> = blank
            .hinges
            .iter()
            .map(|hinge| DrawnLine {
                kind: match hinge.fold {
                    crate::carton::Fold::Toward => LineKind::ScoreToward,
                    crate::carton::Fold::Away => LineKind::ScoreAway,
                },
                from: xy(hinge.from),
                to: xy(hinge.to),
            })
            .collect();
        let mut lines = Vec::new();
        for panel in &blank.panels {
            let next = panel.outline.iter().cycle().skip(1);
            for (from, to) in panel.outline.iter().zip(next) {
                for (from, to) in uncovered(xy(*from), xy(*to), &scores) {
                    let cut = DrawnLine {
                        kind: LineKind::Cut,
                        from,
                        to,
                    };
                    let known = |line: &DrawnLine| {
                        near(line.from, to) && near(line.to, from)
                            || near(line.from, from) && near(line.to, to)
                    };
                    if !lines.iter().any(known) {
                        lines.push(cut);
                    }
                }
            }
        }
        lines.extend(scores);
        let texts = blank.panels.iter().filter_map(|panel| {
            let (low, high) = bounds(panel.outline.iter().copied().map(xy));
            let (wide, tall) = (high[0] - low[0], high[1] - low[1]);
            let long = name_length(panel.name, NAME);
            (wide > long && tall > NAME * 2.0).then(|| DrawnText {
                at: [low[0] + wide / 2.0, low[1] + tall / 2.0],
                size: NAME,
                text: panel.name.to_owned(),
            })
        });
        Self {
            title: match blank.joined {
                Some(JoinedAs { n, of }) => format!("{title}: {}, part {n} of {of}", blank.part),
                None => format!("{title}: {}", blank.part),
            },
            says: format!(
                "{} \u{d7} {}, flutes upright, seen from the inner face",
                telling.length(blank.width),
                telling.length(blank.height)
            ),
            width: blank.width.as_mm(),
            height: blank.height.as_mm(),
            lines,
            texts: texts.collect(),
        }
    }

    /// Returns a corner pocket, seen from inside: its outline, its scores and the slit beside its tab.
    #[must_use]
    pub fn of_pocket(pocket: &CardPocket, title: &str, telling: Telling) -> Self {
        let line = |kind, [from, to]: [[Length; 2]; 2]| DrawnLine {
            kind,
            from: from.map(Length::as_mm),
            to: to.map(Length::as_mm),
        };
        let cut = &pocket.lines.cut_mm;
        let outline = cut
            .iter()
            .zip(cut.iter().cycle().skip(1))
            .map(|(from, to)| line(LineKind::Cut, [*from, *to]));
        let scores = pocket
            .lines
            .scores_mm
            .iter()
            .map(|score| line(LineKind::ScoreToward, *score));
        let slit = line(LineKind::Cut, pocket.lines.slit_mm);
        let half = pocket.leg.as_mm() / 2.0;
        Self {
            title: format!("{title}: corner pocket"),
            says: format!(
                "{} \u{d7} {}, leg {}, seen from the inner face",
                telling.length(pocket.blank_a),
                telling.length(pocket.blank_b),
                telling.length(pocket.leg)
            ),
            width: pocket.blank_a.as_mm(),
            height: pocket.blank_b.as_mm(),
            lines: outline.chain(scores).chain([slit]).collect(),
            texts: vec![DrawnText {
                at: [half, half],
                size: NUMBER,
                text: "face".to_owned(),
            }],
        }
    }

    /// Returns something flat that another thing is laid on or wrapped in: its outline, and lines across and up at running
    /// dimensions, where it is folded or where the other thing lies.
    #[must_use]
    pub fn of_laid(
        [title, says]: [String; 2],
        [width, height]: [Length; 2],
        [across, up]: [&[Length]; 2],
    ) -> Self {
        let (width, height) = (width.as_mm(), height.as_mm());
        let line = |from, to| DrawnLine {
            kind: LineKind::ScoreToward,
            from,
            to,
        };
        let within = |at: f64, side: f64| at > DUST && at < side - DUST;
        let upright = across
            .iter()
            .map(|at| at.as_mm())
            .filter(|at| within(*at, width))
            .map(|at| line([at, 0.0], [at, height]));
        let level = up
            .iter()
            .map(|at| at.as_mm())
            .filter(|at| within(*at, height))
            .map(|at| line([0.0, at], [width, at]));
        Self {
            title,
            says,
            width,
            height,
            lines: rectangle(LineKind::Cut, [0.0, 0.0], [width, height])
                .into_iter()
                .chain(upright)
                .chain(level)
                .collect(),
            texts: Vec::new(),
        }
    }

    /// Returns a kept carton laid open, seen from inside, with the lines along which it is cut and scored anew, and its running dimensions
    /// across and up.
    #[must_use]
    pub fn of_saved(open: &LaidOpen, telling: Telling) -> (Self, [Vec<Length>; 2]) {
        let [length, width, depth] = open.sides;
        let flap = (width + open.caliper) / 2.0;
        let whole = (length + width) * 2.0;
        let high = depth + flap * 2.0;
        let top = flap + depth;
        let none = Length::ZERO;
        let starts = [none, length, length + width, length * 2.0 + width];
        let wide = [length, width, length, width];
        let mut lines =
            rectangle(LineKind::Sheet, [0.0, 0.0], [whole.as_mm(), high.as_mm()]).to_vec();
        let (mut across, mut up) = (starts.to_vec(), vec![none, flap, top, high]);
        across.push(whole);
        let mut line = |kind, from: [Length; 2], to: [Length; 2]| {
            lines.push(DrawnLine {
                kind,
                from: from.map(Length::as_mm),
                to: to.map(Length::as_mm),
            });
        };
        // The scores and slots that it has.
        for y in [flap, top] {
            line(LineKind::Rest, [none, y], [whole, y]);
        }
        for x in &starts[1..] {
            line(LineKind::Rest, [*x, none], [*x, high]);
        }
        let mut told = Vec::new();
        if let Some(cut) = open.cut {
            let score = top - cut.below;
            line(LineKind::ScoreToward, [none, score], [whole, score]);
            for x in &starts[1..] {
                line(LineKind::Cut, [*x, score], [*x, top]);
            }
            for (at, (x, wide)) in starts.iter().zip(wide).enumerate() {
                let flap = if at % 2 == 1 {
                    cut.inner_flap
                } else {
                    cut.flap
                };
                let y = score + flap;
                line(LineKind::Cut, [*x, y], [*x + wide, y]);
                up.push(y);
            }
            up.push(score);
            told.push(format!("new scores {} lower", telling.length(cut.below)));
        }
        if let Some(shorter) = open.shorter {
            for x in [starts[0], starts[2]] {
                let from = x + (length - shorter.take_out) / 2.0;
                let both = [from, from + shorter.take_out];
                let count = if shorter.take_out > none { 2 } else { 1 };
                for at in both.into_iter().take(count) {
                    line(LineKind::Cut, [at, none], [at, high]);
                    across.push(at);
                }
                if let Some(tongue) = shorter.tongue {
                    for y in [flap, top] {
                        line(LineKind::Cut, [from - tongue, y], [from, y]);
                    }
                    across.push(from - tongue);
                }
            }
            told.push(format!("{} taken out", telling.length(shorter.take_out)));
        }
        if let Some((join, inner)) = open.join {
            let more = if inner { join.take_off } else { none };
            let [left, right] = [length - more, length + width + more];
            for x in [left, right] {
                line(LineKind::Cut, [x, none], [x, high]);
                across.push(x);
            }
            if let Some(tongue) = join.tongue.filter(|_| inner) {
                for y in [flap, top] {
                    line(LineKind::Cut, [left - tongue, y], [left, y]);
                    line(LineKind::Cut, [right, y], [right + tongue, y]);
                }
                across.extend([left - tongue, right + tongue]);
            }
            told.push("the end wall cut off".to_owned());
        }
        for runs in [&mut across, &mut up] {
            runs.sort_unstable();
            runs.dedup();
        }
        let says = std::iter::once(format!("{} inside", telling.sides(&open.sides)))
            .chain(told)
            .collect::<Vec<_>>()
            .join(", ");
        let drawing = Self {
            title: if open.second {
                "The second carton laid open"
            } else {
                "The carton laid open"
            }
            .to_owned(),
            says,
            width: whole.as_mm(),
            height: high.as_mm(),
            lines,
            texts: Vec::new(),
        };
        (drawing, [across, up])
    }

    /// Returns a cradle board with its chocks, and dashes around where a piece of a width and a height lies.
    #[must_use]
    pub fn of_cradle(cradle: &Cradle, [width, height]: [Length; 2]) -> Self {
        let laid = Self::of_laid(
            [
                "The board with its chocks".to_owned(),
                "the piece lies between the dashes".to_owned(),
            ],
            [cradle.width, cradle.height],
            [
                &[cradle.left, cradle.left + width],
                &[cradle.below, cradle.below + height],
            ],
        );
        let chocks = cradle.chocks.iter().flat_map(|chock| {
            let corners = chock.corners_mm.map(|corner| corner.map(Length::as_mm));
            [0, 1, 2, 3].map(|one: usize| DrawnLine {
                kind: LineKind::Cut,
                from: corners[one],
                to: corners[(one + 1) % 4],
            })
        });
        Self {
            lines: laid.lines.iter().copied().chain(chocks).collect(),
            ..laid
        }
    }

    /// Returns the frame of a travel case as it lies on its floor, seen from the lid: whole lines around its battens, dashes around those
    /// that lie flat across the faces.
    #[must_use]
    pub fn of_frame(case: &TravelCase) -> Self {
        let [width, height] = case.face_mm.map(Length::as_mm);
        let batten = case.batten.as_mm();
        let along = [batten, height - batten].map(|at| DrawnLine {
            kind: LineKind::Cut,
            from: [0.0, at],
            to: [width, at],
        });
        let short = [batten, width - batten].map(|at| DrawnLine {
            kind: LineKind::Cut,
            from: [at, batten],
            to: [at, height - batten],
        });
        let flat = case.across_at().flatten().map(|at| DrawnLine {
            kind: LineKind::ScoreToward,
            from: [at.as_mm(), 0.0],
            to: [at.as_mm(), height],
        });
        let outline = rectangle(LineKind::Cut, [0.0, 0.0], [width, height]);
        Self {
            title: "The frame, seen from the lid".to_owned(),
            says: if case.middle > 0 {
                "the short battens between the long ones; dashes: battens flat across both faces"
                    .to_owned()
            } else {
                "the short battens between the long ones".to_owned()
            },
            width,
            height,
            lines: outline
                .into_iter()
                .chain(along)
                .chain(short)
                .chain(flat)
                .collect(),
            texts: Vec::new(),
        }
    }

    /// Returns stock lengths that are sawn alike, as one of them with its saw lines.
    #[must_use]
    pub fn of_stock(stock: &StockLength, count: u32, telling: Telling) -> Self {
        let (width, height) = (stock.length.as_mm(), stock.height.as_mm());
        let cuts = stock.cuts_mm.iter().map(|at| DrawnLine {
            kind: LineKind::Cut,
            from: [at.as_mm(), 0.0],
            to: [at.as_mm(), height],
        });
        let outline = rectangle(LineKind::Cut, [0.0, 0.0], [width, height]);
        Self {
            title: format!("{count} \u{d7} {}", stock.of),
            says: format!(
                "saw beyond each line; {} are left",
                telling.length(stock.left)
            ),
            width,
            height,
            lines: outline.into_iter().chain(cuts).collect(),
            texts: Vec::new(),
        }
    }

    /// Returns a sheet with its knife lines, numbered, the scores of its parts, and what is left of it.
    #[must_use]
    pub fn of_sheet(cut: &MaterialCut, sheet: &BatchSheet, telling: Telling) -> Self {
        let (width, height) = (sheet.width.as_mm(), sheet.height.as_mm());
        let mut lines = rectangle(LineKind::Sheet, [0.0, 0.0], [width, height]).to_vec();
        let mut texts = Vec::new();
        for line in &sheet.cuts {
            let (at, from, to) = (line.at.as_mm(), line.from.as_mm(), line.to.as_mm());
            let end = |along: f64| {
                if line.upright {
                    [at, along]
                } else {
                    [along, at]
                }
            };
            lines.push(DrawnLine {
                kind: LineKind::Cut,
                from: end(from),
                to: end(to),
            });
            texts.push(DrawnText {
                at: end(to - NUMBER),
                size: NUMBER,
                text: line.n.to_string(),
            });
        }
        for part in &sheet.parts {
            let [x, y, wide, tall] = [part.x, part.y, part.width, part.height].map(Length::as_mm);
            for at in &part.scores_x {
                let at = x + at.as_mm();
                lines.push(DrawnLine {
                    kind: LineKind::ScoreToward,
                    from: [at, y],
                    to: [at, y + tall],
                });
            }
            for at in &part.scores_y {
                let at = y + at.as_mm();
                lines.push(DrawnLine {
                    kind: LineKind::ScoreToward,
                    from: [x, at],
                    to: [x + wide, at],
                });
            }
            texts.push(DrawnText {
                at: [x + wide / 2.0, y + tall / 2.0],
                size: NAME,
                text: part.code.clone(),
            });
        }
        for rest in sheet.rest.iter().filter(|rest| rest.worth_keeping) {
            let rest = rest.piece;
            let [x, y, wide, tall] = [rest.x, rest.y, rest.width, rest.height].map(Length::as_mm);
            lines.extend(rectangle(LineKind::Rest, [x, y], [x + wide, y + tall]));
        }
        Self {
            title: format!("Sheet {}: {}", sheet.n, cut.name),
            says: format!(
                "{} \u{d7} {}, flutes upright, measured from the lower left corner",
                telling.length(sheet.width),
                telling.length(sheet.height)
            ),
            width,
            height,
            lines,
            texts,
        }
    }
}

/// A name is so long at a height of letters; a count of letters is small.
fn name_length(name: &str, size: f64) -> f64 {
    let letters = u32::try_from(name.chars().count()).unwrap_or(u32::MAX);
    f64::from(letters) * size * NARROWER
}

fn rectangle(kind: LineKind, low: [f64; 2], high: [f64; 2]) -> [DrawnLine; 4] {
    let corners = [low, [high[0], low[1]], high, [low[0], high[1]]];
    [0, 1, 2, 3].map(|at| DrawnLine {
        kind,
        from: corners[at],
        to: corners[(at + 1) % 4],
    })
}

fn bounds(points: impl Iterator<Item = [f64; 2]>) -> ([f64; 2], [f64; 2]) {
    points.fold(([f64::MAX; 2], [f64::MIN; 2]), |(low, high), [x, y]| {
        (
            [low[0].min(x), low[1].min(y)],
            [high[0].max(x), high[1].max(y)],
        )
    })
}

fn near(one: [f64; 2], other: [f64; 2]) -> bool {
    (one[0] - other[0]).abs() < DUST && (one[1] - other[1]).abs() < DUST
}

/// The stretches of an edge on which no score lies.
fn uncovered(from: [f64; 2], to: [f64; 2], scores: &[DrawnLine]) -> Vec<([f64; 2], [f64; 2])> {
    let (dx, dy) = (to[0] - from[0], to[1] - from[1]);
    let long = dx.hypot(dy);
    if long < DUST {
        return Vec::new();
    }
    let along = |point: [f64; 2]| ((point[0] - from[0]) * dx + (point[1] - from[1]) * dy) / long;
    let beside = |point: [f64; 2]| ((point[0] - from[0]) * dy - (point[1] - from[1]) * dx) / long;
    let mut covered: Vec<(f64, f64)> = scores
        .iter()
        .filter(|score| beside(score.from).abs() < DUST && beside(score.to).abs() < DUST)
        .map(|score| {
            let (one, other) = (along(score.from), along(score.to));
            (one.min(other).max(0.0), one.max(other).min(long))
        })
        .filter(|(begins, ends)| ends - begins > DUST)
        .collect();
    covered.sort_by(|one, other| one.0.total_cmp(&other.0));
    let point = |at: f64| [from[0] + dx * at / long, from[1] + dy * at / long];
    let mut free = Vec::new();
    let mut reached = 0.0;
    for (begins, ends) in covered {
        if begins - reached > DUST {
            free.push((point(reached), point(begins)));
        }
        reached = ends.max(reached);
    }
    if long - reached > DUST {
        free.push((point(reached), to));
    }
    free
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::{
        carton::{BoxSize, SlottedEdge},
        house::Allowances,
    };

    #[test]
    fn a_blank_is_drawn_by_its_cuts_and_scores() {
        // 740 × 560 × 90, c 4: 1709 × 662. Four walls and a tab hang on each other at four upright scores of 568 (W + 2c)
        // each; eight flaps of 47 hang on the walls.
        let [length, width, height, caliper] = [740.0, 560.0, 90.0, 4.0].map(Length::mm);
        let blank = SlottedEdge(BoxSize {
            length,
            width,
            height,
            caliper,
        })
        .blank(&Allowances::default());
        let drawing = Drawing::of_blank(&blank, "Kelp", Telling::default());
        assert_eq!((drawing.width, drawing.height), (1709.0, 662.0));
        let length_of = |kind: fn(LineKind) -> bool| -> f64 {
            let of = drawing.lines.iter().filter(|line| kind(line.kind));
            of.map(|line| (line.to[0] - line.from[0]).hypot(line.to[1] - line.from[1]))
                .sum()
        };
        let hinges: f64 = blank
            .hinges
            .iter()
            .map(|hinge| {
                (hinge.to.x - hinge.from.x)
                    .as_mm()
                    .hypot((hinge.to.y - hinge.from.y).as_mm())
            })
            .sum();
        let scored = length_of(|kind| matches!(kind, LineKind::ScoreToward | LineKind::ScoreAway));
        assert!((scored - hinges).abs() < 1e-9);
        // Every panel's edge is a cut or one side of a score.
        let around: f64 = blank
            .panels
            .iter()
            .map(|panel| {
                let next = panel.outline.iter().cycle().skip(1);
                let edges = panel.outline.iter().zip(next);
                edges
                    .map(|(a, b)| (b.x - a.x).as_mm().hypot((b.y - a.y).as_mm()))
                    .sum::<f64>()
            })
            .sum();
        let cut = length_of(|kind| kind == LineKind::Cut);
        assert!(
            (cut - (around - 2.0 * hinges)).abs() < 1e-6,
            "{cut} {around} {hinges}"
        );
    }
}
