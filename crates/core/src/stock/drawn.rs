//! A blank that was drawn elsewhere: its outline as lines, and where it is scored.

use serde::{Deserialize, Serialize};

use crate::{
    Refusal, Refusals,
    material::{Catalogue, MaterialId},
    quantity::{Area, Length, Mass},
};

/// A straight line, in millimetres: across and up at both ends.
pub type Segment = [[f64; 2]; 2];

/// A blank that was drawn elsewhere, as it is asked for.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct DrawnLines {
    /// What it is called.
    pub name: String,
    /// The board of the stores that it is cut from.
    pub material: MaterialId,
    /// How many, 1 to 500.
    pub count: u32,
    /// Its edge, and what is cut out of it: lines that close, in any order, in millimetres.
    #[cfg_attr(feature = "schema", schema(value_type = Vec<Vec<Vec<f64>>>))]
    pub outline_mm: Vec<Segment>,
    /// Where it is scored.
    #[serde(default)]
    #[cfg_attr(feature = "schema", schema(value_type = Vec<Vec<Vec<f64>>>))]
    pub scores_mm: Vec<Segment>,
}

/// A blank that was drawn elsewhere, looked over.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct DrawnBlank {
    /// What it is called.
    pub name: String,
    /// The board of the stores that it is cut from.
    pub material: MaterialId,
    /// How many.
    pub count: u32,
    /// Of the rectangle that it is cut from, across the flutes.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Of the rectangle that it is cut from, along the flutes.
    #[serde(rename = "height_mm")]
    pub height: Length,
    /// Within its outline, what is cut out left out.
    #[serde(rename = "area_m2")]
    pub area: Area,
    /// Of one.
    #[serde(rename = "mass_g")]
    pub mass: Mass,
    /// Scores that run up, from its left edge.
    #[serde(rename = "scores_x_mm")]
    pub scores_x: Vec<Length>,
    /// Scores that run across, from its lower edge.
    #[serde(rename = "scores_y_mm")]
    pub scores_y: Vec<Length>,
}

/// Ends so near each other meet.
const MEETS: f64 = 0.05;
const LONGEST: f64 = 10_000.0;
const SHORTEST: f64 = 1.0;
const MOST_LINES: usize = 5000;
const MOST_BLANKS: u32 = 500;

impl DrawnLines {
    /// Looks it over: its lines close, around one piece of board, with what is cut out of it inside.
    ///
    /// # Errors
    /// A [`Refusal`] for each field, an outline that stays open with the place where it does.
    pub fn checked(&self, catalogue: &Catalogue) -> Result<DrawnBlank, Vec<Refusal>> {
        let mut refusals = Refusals::default();
        let name = self.name.trim();
        if name.is_empty() {
            refusals.refuse("name", "give it a name for the layout");
        }
        refusals.extend(crate::text::refused_text("name", name));
        if !(1..=MOST_BLANKS).contains(&self.count) {
            let says = format!("{} is out of range: cut 1 to {MOST_BLANKS}", self.count);
            refusals.refuse("count", says);
        }
        let board = catalogue.board(&self.material);
        if board.is_err() {
            refusals.refuse("material", "choose a board from Materials");
        }
        if self.outline_mm.len() + self.scores_mm.len() > MOST_LINES {
            let says = format!("it has more than {MOST_LINES} lines");
            refusals.refuse("outline_mm", says);
            return Err(refusals.into());
        }
        let shape = Shape::of(&self.outline_mm).map_err(|says| Refusal::new("outline_mm", says));
        let (board, shape) = match (board, shape) {
            (Ok(board), Ok(shape)) if refusals.is_empty() => (board, shape),
            (_, shape) => {
                refusals.extend(shape.err());
                return Err(refusals.into());
            }
        };
        let [low, high] = shape.bounds;
        let inside = |[x, y]: [f64; 2]| {
            (low[0] - MEETS..=high[0] + MEETS).contains(&x)
                && (low[1] - MEETS..=high[1] + MEETS).contains(&y)
        };
        if let Some(at) = self
            .scores_mm
            .iter()
            .position(|score| !score.iter().copied().all(inside))
        {
            let says = format!("score {} lies outside the outline", at + 1);
            return Err(vec![Refusal::new("scores_mm", says)]);
        }
        let runs = |side: usize| {
            let mut runs: Vec<f64> = self
                .scores_mm
                .iter()
                .filter(|[from, to]| (from[side] - to[side]).abs() < MEETS)
                .map(|[from, _]| from[side] - low[side])
                .filter(|at| *at > MEETS && *at < high[side] - low[side] - MEETS)
                .collect();
            runs.sort_by(f64::total_cmp);
            runs.dedup_by(|one, other| (*one - *other).abs() < MEETS);
            runs.into_iter().map(Length::mm).collect()
        };
        let area = Length::mm(shape.area) * Length::mm(1.0);
        Ok(DrawnBlank {
            name: name.to_owned(),
            material: self.material.clone(),
            count: self.count,
            width: Length::mm(high[0] - low[0]),
            height: Length::mm(high[1] - low[1]),
            area,
            mass: board.areal_density * area,
            scores_x: runs(0),
            scores_y: runs(1),
        })
    }
}

/// An outline with its holes.
struct Shape {
    bounds: [[f64; 2]; 2],
    area: f64,
}

impl Shape {
    /// # Errors
    /// A sentence for lines that don't close, that cross, or that go around more than one piece.
    fn of(lines: &[Segment]) -> Result<Self, String> {
        if lines.is_empty() {
            return Err("it is empty: choose the layer of the outline".to_owned());
        }
        let far = |[x, y]: [f64; 2]| !(x.abs() <= LONGEST * 10.0 && y.abs() <= LONGEST * 10.0);
        if lines.iter().flatten().copied().any(far) {
            return Err(
                "a corner lies too far out: check that the drawing is in millimetres".to_owned(),
            );
        }
        let loops = loops_of(lines)?;
        for (at, one) in loops.iter().enumerate() {
            if let Some([x, y]) = crossing(one, &loops[at..]) {
                return Err(format!("its lines cross near {x:.1}, {y:.1}"));
            }
        }
        let around = loops
            .iter()
            .max_by(|one, other| area(one).total_cmp(&area(other)))
            .ok_or("it is empty")?;
        let bounds = bounds(around);
        let [low, high] = bounds;
        let sides = [high[0] - low[0], high[1] - low[1]];
        if sides
            .iter()
            .any(|side| !(SHORTEST..=LONGEST).contains(side))
        {
            return Err(format!(
                "{:.1} \u{d7} {:.1} mm is out of range ({SHORTEST} to {LONGEST} mm): check that it was drawn in millimetres",
                sides[0], sides[1]
            ));
        }
        let holes: Vec<_> = loops
            .iter()
            .filter(|one| !std::ptr::eq(*one, around))
            .collect();
        if holes.iter().any(|hole| !holes_in(around, hole[0])) {
            return Err(
                "it has more than one outline: save each blank as a separate file".to_owned(),
            );
        }
        let out: f64 = holes.iter().map(|hole| area(hole)).sum();
        Ok(Self {
            bounds,
            area: area(around) - out,
        })
    }
}

fn meets(one: [f64; 2], other: [f64; 2]) -> bool {
    (one[0] - other[0]).hypot(one[1] - other[1]) <= MEETS
}

/// The lines as closed ways around.
fn loops_of(lines: &[Segment]) -> Result<Vec<Vec<[f64; 2]>>, String> {
    let mut left: Vec<Segment> = lines
        .iter()
        .copied()
        .filter(|[from, to]| !meets(*from, *to))
        .collect();
    let mut loops = Vec::new();
    while let Some([first, mut end]) = left.pop() {
        let mut around = vec![first];
        while !meets(end, first) {
            let next = left
                .iter()
                .position(|[from, to]| meets(*from, end) || meets(*to, end));
            let Some(next) = next else {
                return Err(format!(
                    "the outline is open at {:.1}, {:.1}: close it there",
                    end[0], end[1]
                ));
            };
            let [from, to] = left.swap_remove(next);
            around.push(end);
            end = if meets(from, end) { to } else { from };
        }
        loops.push(around);
    }
    if loops.is_empty() {
        return Err("every line in it is shorter than a point".to_owned());
    }
    Ok(loops)
}

fn edges(around: &[[f64; 2]]) -> impl Iterator<Item = Segment> + '_ {
    let next = around.iter().copied().cycle().skip(1);
    around
        .iter()
        .copied()
        .zip(next)
        .map(|(from, to)| [from, to])
}

fn area(around: &[[f64; 2]]) -> f64 {
    let doubled: f64 = edges(around)
        .map(|[from, to]| from[0] * to[1] - to[0] * from[1])
        .sum();
    doubled.abs() / 2.0
}

fn bounds(around: &[[f64; 2]]) -> [[f64; 2]; 2] {
    around
        .iter()
        .fold([[f64::MAX; 2], [f64::MIN; 2]], |[low, high], [x, y]| {
            [
                [low[0].min(*x), low[1].min(*y)],
                [high[0].max(*x), high[1].max(*y)],
            ]
        })
}

/// Where a way around crosses itself, or another.
fn crossing(one: &[[f64; 2]], with: &[Vec<[f64; 2]>]) -> Option<[f64; 2]> {
    for (at, mine) in edges(one).enumerate() {
        for (which, other) in with.iter().enumerate() {
            let from = if which == 0 { at + 1 } else { 0 };
            if let Some(cross) = edges(other).skip(from).find(|line| cross(mine, *line)) {
                return Some(cross[0]);
            }
        }
    }
    None
}

/// Whether two lines cross within both, not only touch at an end.
fn cross([a, b]: Segment, [c, d]: Segment) -> bool {
    let side = |p: [f64; 2], q: [f64; 2], r: [f64; 2]| {
        let turn = (q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0]);
        let long = (q[0] - p[0]).hypot(q[1] - p[1]).max(f64::MIN_POSITIVE);
        turn / long
    };
    let apart =
        |one: f64, other: f64| one > MEETS && other < -MEETS || one < -MEETS && other > MEETS;
    apart(side(a, b, c), side(a, b, d)) && apart(side(c, d, a), side(c, d, b))
}

/// Whether a point lies within a way around.
fn holes_in(around: &[[f64; 2]], [x, y]: [f64; 2]) -> bool {
    let crossed = edges(around)
        .filter(|[from, to]| (from[1] > y) != (to[1] > y))
        .filter(|[from, to]| {
            let at = from[0] + (y - from[1]) / (to[1] - from[1]) * (to[0] - from[0]);
            at > x
        })
        .count();
    crossed % 2 == 1
}

#[cfg(test)]
mod tests {
    use super::*;

    fn catalogue() -> Catalogue {
        serde_json::from_str(include_str!("../../../../demo/catalogue.json")).expect("a catalogue")
    }

    fn around(points: &[[f64; 2]]) -> Vec<Segment> {
        edges(points).collect()
    }

    fn drawn(outline: Vec<Segment>, scores: Vec<Segment>) -> DrawnLines {
        DrawnLines {
            name: "insert".into(),
            material: MaterialId::new("corrugated-c"),
            count: 2,
            outline_mm: outline,
            scores_mm: scores,
        }
    }

    #[test]
    fn a_cross_of_four_flaps_is_measured_and_weighed() {
        // A base of 300 × 200 with flaps of 50 on all sides, anywhere in the file: 400 × 300, and 300·200 + 2·300·50 +
        // 2·200·50 = 110 000 mm²; a window of 100 × 60 less, 104 000 mm², 0.104 m². Corrugated C weighs so much a m².
        let cross: Vec<[f64; 2]> = [
            [50.0, 0.0],
            [350.0, 0.0],
            [350.0, 50.0],
            [400.0, 50.0],
            [400.0, 250.0],
            [350.0, 250.0],
            [350.0, 300.0],
            [50.0, 300.0],
            [50.0, 250.0],
            [0.0, 250.0],
            [0.0, 50.0],
            [50.0, 50.0],
        ]
        .map(|[x, y]| [x + 1000.0, y - 70.0])
        .to_vec();
        let window = [
            [1150.0, 50.0],
            [1250.0, 50.0],
            [1250.0, 110.0],
            [1150.0, 110.0],
        ];
        let mut lines = around(&cross);
        // In any order, and either way round.
        lines.reverse();
        lines[3].reverse();
        lines.extend(around(&window));
        let scores = vec![
            [[1050.0, -20.0], [1050.0, 180.0]],
            [[1350.0, -20.0], [1350.0, 180.0]],
            [[1050.0, -20.0], [1350.0, -20.0]],
        ];
        let shelf = catalogue();
        let blank = drawn(lines, scores).checked(&shelf).expect("it is one");
        assert_eq!((blank.width.as_mm(), blank.height.as_mm()), (400.0, 300.0));
        assert!((blank.area.as_m2() - 0.104).abs() < 1e-12);
        let board = shelf.board(&blank.material).expect("a board");
        assert!((blank.mass.as_g() - 0.104 * board.areal_density.as_g_m2()).abs() < 1e-9);
        let runs = |runs: &[Length]| runs.iter().map(|run| run.as_mm()).collect::<Vec<_>>();
        assert_eq!(
            (runs(&blank.scores_x), runs(&blank.scores_y)),
            (vec![50.0, 350.0], vec![50.0])
        );
    }

    #[test]
    fn what_is_no_blank_is_told_with_the_place() {
        let square = [[0.0, 0.0], [100.0, 0.0], [100.0, 100.0], [0.0, 100.0]];
        let says = |lines: Vec<Segment>| {
            let refusals = drawn(lines, Vec::new())
                .checked(&catalogue())
                .expect_err("it can't be");
            assert_eq!(refusals.len(), 1, "{refusals:?}");
            assert_eq!(refusals[0].field, "outline_mm");
            refusals[0].message.clone()
        };
        let mut open = around(&square);
        open.remove(2);
        assert!(says(open).contains("open at"));
        let bow = [[0.0, 0.0], [100.0, 100.0], [100.0, 0.0], [0.0, 100.0]];
        assert!(says(around(&bow)).contains("cross near"));
        let mut two = around(&square);
        two.extend(around(&square.map(|[x, y]| [x + 300.0, y])));
        assert!(says(two).contains("more than one outline"));
        assert!(says(around(&square.map(|[x, y]| [x / 254.0, y / 254.0]))).contains("millimetres"));
        assert!(says(Vec::new()).contains("outline"));
        let outside = drawn(around(&square), vec![[[50.0, 0.0], [50.0, 140.0]]]);
        assert_eq!(
            outside.checked(&catalogue()).expect_err("it can't be")[0].field,
            "scores_mm"
        );
    }
}
