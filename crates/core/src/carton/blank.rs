//! A flat blank: panels and the hinges between them, seen from the inside face, y up.

use serde::Serialize;

use crate::{
    part::{Cut, PartId, part_and_name},
    quantity::{Area, Length},
};

/// A place on a blank, from its lower left corner.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Point {
    /// To the right.
    #[serde(rename = "x_mm")]
    pub x: Length,
    /// Up.
    #[serde(rename = "y_mm")]
    pub y: Length,
}

impl Point {
    /// Makes it from its distances to the lower left corner.
    #[must_use]
    pub const fn new(x: Length, y: Length) -> Self {
        Self { x, y }
    }
}

/// What a panel becomes when the box is folded.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum PanelRole {
    /// Before the face of the art.
    Front,
    /// Behind it.
    Back,
    /// A narrow side.
    Side,
    /// A closing flap.
    Flap,
    /// The tab that joins the ring.
    Tab,
}

/// One panel of a blank.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Panel {
    /// What it is called; no two panels of a blank are called alike.
    pub name: &'static str,
    /// What it becomes.
    pub role: PanelRole,
    /// Its corners, in order around it.
    pub outline: Vec<Point>,
    /// How far it lies inward of the plane that it is folded to, once folded; less than zero lies outward.
    /// Flaps that close over each other lie half a board to either side of their scores' plane.
    #[serde(rename = "lift_mm")]
    pub lift: Length,
}

impl Panel {
    /// Makes a panel from its corners, in order around it.
    #[must_use]
    pub const fn new(name: &'static str, role: PanelRole, outline: Vec<Point>) -> Self {
        Self {
            name,
            role,
            outline,
            lift: Length::ZERO,
        }
    }

    /// Makes a panel from two opposite corners.
    #[must_use]
    pub fn rectangle(name: &'static str, role: PanelRole, low: Point, high: Point) -> Self {
        let outline = vec![
            low,
            Point::new(high.x, low.y),
            high,
            Point::new(low.x, high.y),
        ];
        Self::new(name, role, outline)
    }

    /// Returns it lifted inward once folded, or outward when less than zero.
    #[must_use]
    pub fn lifted(self, lift: Length) -> Self {
        Self { lift, ..self }
    }

    /// Returns the area inside the outline, by the shoelace formula.
    #[must_use]
    pub fn area(&self) -> Area {
        let next = self.outline.iter().cycle().skip(1);
        let doubled: f64 = self
            .outline
            .iter()
            .zip(next)
            .map(|(from, to)| from.x.as_mm() * to.y.as_mm() - to.x.as_mm() * from.y.as_mm())
            .sum();
        Length::mm(doubled.abs() / 2.0) * Length::mm(1.0)
    }
}

/// Which way a score folds, seen from the inside face.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Fold {
    /// Toward the person who looks at the inside face.
    Toward,
    /// Away from them.
    Away,
}

/// A score that two panels share.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Hinge {
    /// The two panels, by their place in the list of panels.
    pub between: [usize; 2],
    /// One end of the score.
    pub from: Point,
    /// Its other end.
    pub to: Point,
    /// Which way it folds.
    pub fold: Fold,
    /// How far it is folded in the closed box.
    pub angle_deg: f64,
    /// When it is folded: all of one number before any of the next.
    pub step: u32,
}

/// A flat blank: a net of panels that hang together at their scores, from a root.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Blank {
    /// Which part of the box it is.
    #[serde(flatten, serialize_with = "part_and_name")]
    #[cfg_attr(feature = "schema", schema(value_type = crate::part::NamedPart))]
    pub part: PartId,
    /// Which part of a blank it is that no sheet takes whole; `None` if it is whole.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub joined: Option<JoinedAs>,
    /// What its tab laps outside, with its article; `None` if it has none.
    pub laps_over: Option<&'static str>,
    /// Of the rectangle that it is cut from.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Of the rectangle that it is cut from, along the flutes.
    #[serde(rename = "height_mm")]
    pub height: Length,
    /// What is left when the slots are cut out.
    #[serde(rename = "area_m2")]
    pub area: Area,
    /// The panel that lies still while the others fold, by its place in the list of panels.
    pub root: usize,
    /// Its panels.
    pub panels: Vec<Panel>,
    /// Its scores, each after those that it hangs on.
    pub hinges: Vec<Hinge>,
    /// What the inner flaps are trimmed to, where they would overlap if they were as long as the outer.
    #[serde(rename = "inner_flap_mm")]
    pub inner_flap: Option<Length>,
    /// Running distances of cuts and scores from the left edge.
    #[serde(rename = "runs_across_mm")]
    pub runs_across: Vec<Length>,
    /// Running distances of cuts and scores from the lower edge.
    #[serde(rename = "runs_up_mm")]
    pub runs_up: Vec<Length>,
}

/// Which of the parts of a blank one is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct JoinedAs {
    /// Its number from the left, from 1.
    pub n: usize,
    /// How many there are.
    pub of: usize,
}

/// What can be wrong with a net.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
pub enum NetFault {
    /// Two panels are called alike.
    #[error("two panels are called {0}")]
    TwoCalled(&'static str),
    /// A panel hangs on nothing, on two others, or on one that comes later.
    #[error("{0} does not hang on the root by one way")]
    NotATree(&'static str),
    /// A score does not lie on the edges of both its panels.
    #[error("the score of {0} lies off its edge")]
    OffTheEdge(&'static str),
    /// A panel reaches past the sheet.
    #[error("{0} reaches past the blank")]
    PastTheSheet(&'static str),
    /// A panel's corners don't go around a convex shape against the clock.
    #[error("{0} is not convex")]
    NotConvex(&'static str),
    /// Two panels take the same board.
    #[error("{0} and {1} overlap")]
    Overlap(&'static str, &'static str),
}

/// Binary dust between two distances that mean the same line.
const DUST_MM: f64 = 1e-6;

/// A blank while it is laid out on a sheet: panels first, each with the score that it hangs on.
#[derive(Debug)]
pub(super) struct Layout {
    part: PartId,
    laps_over: Option<&'static str>,
    inner_flap: Option<Length>,
    size: [Length; 2],
    panels: Vec<Panel>,
    hinges: Vec<Hinge>,
}

impl Layout {
    /// Begins with the panel that lies still.
    pub(super) fn new(part: PartId, size: [Length; 2], root: Panel) -> Self {
        Self {
            part,
            laps_over: None,
            inner_flap: None,
            size,
            panels: vec![root],
            hinges: Vec::new(),
        }
    }

    /// Says what its tab laps outside.
    pub(super) fn lapping(self, over: &'static str) -> Self {
        Self {
            laps_over: Some(over),
            ..self
        }
    }

    /// Says what the inner flaps are trimmed to.
    pub(super) fn trimmed_to(self, inner_flap: Option<Length>) -> Self {
        Self { inner_flap, ..self }
    }

    /// Hangs a panel on another at a score, and returns its place. One that is narrower or lower than nothing
    /// is left out, which a box of a few millimetres asks for.
    pub(super) fn hang(
        &mut self,
        on: usize,
        panel: Panel,
        score: [Point; 2],
        fold: (f64, u32),
    ) -> usize {
        let [from, to] = score;
        let place = self.panels.len();
        if panel.area() <= Area::ZERO || !panel.goes_around() {
            return place;
        }
        self.panels.push(panel);
        let (angle_deg, step) = fold;
        self.hinges.push(Hinge {
            between: [on, place],
            from,
            to,
            fold: Fold::Toward,
            angle_deg,
            step,
        });
        place
    }

    /// Returns the blank; its running distances are those of its edges and of the scores along them.
    pub(super) fn cut(self) -> Blank {
        let [width, height] = self.size;
        let ends = self.hinges.iter().map(|hinge| (hinge.from, hinge.to));
        let upright = ends.clone().filter(|(from, to)| near(from.x, to.x));
        let level = ends.filter(|(from, to)| near(from.y, to.y));
        Blank {
            part: self.part,
            joined: None,
            laps_over: self.laps_over,
            inner_flap: self.inner_flap,
            width,
            height,
            area: self.panels.iter().map(Panel::area).sum(),
            root: 0,
            runs_across: runs(width, upright.map(|(from, _)| from.x)),
            runs_up: runs(height, level.map(|(from, _)| from.y)),
            panels: self.panels,
            hinges: self.hinges,
        }
    }
}

pub(super) fn near(one: Length, other: Length) -> bool {
    (one - other).as_mm().abs() < DUST_MM
}

/// Each distance once, with both edges, from the least on.
pub(super) fn runs(end: Length, scores: impl Iterator<Item = Length>) -> Vec<Length> {
    let mut runs: Vec<Length> = scores.chain([Length::ZERO, end]).collect();
    runs.sort_by(|one, other| one.as_mm().total_cmp(&other.as_mm()));
    runs.dedup_by(|one, other| near(*one, *other));
    runs
}

impl Panel {
    /// Tells whether its corners go around it against the clock, without turning back.
    fn goes_around(&self) -> bool {
        let corners = &self.outline;
        let count = corners.len();
        (0..count).all(|at| {
            let [one, two, three] = [0, 1, 2].map(|by| corners[(at + by) % count]);
            let (ax, ay) = ((two.x - one.x).as_mm(), (two.y - one.y).as_mm());
            let (bx, by) = ((three.x - two.x).as_mm(), (three.y - two.y).as_mm());
            ax * by - ay * bx >= 0.0
        })
    }

    /// Tells whether a point lies on its edge.
    fn has_on_its_edge(&self, point: Point) -> bool {
        let next = self.outline.iter().cycle().skip(1);
        self.outline.iter().zip(next).any(|(from, to)| {
            let (along_x, along_y) = ((to.x - from.x).as_mm(), (to.y - from.y).as_mm());
            let (off_x, off_y) = ((point.x - from.x).as_mm(), (point.y - from.y).as_mm());
            let long = along_x.hypot(along_y);
            let off = (along_x * off_y - along_y * off_x) / long;
            let at = (along_x * off_x + along_y * off_y) / long;
            off.abs() < DUST_MM && (-DUST_MM..=long + DUST_MM).contains(&at)
        })
    }

    /// Tells whether a line along one of its own edges has another panel wholly on its outer side.
    fn keeps_out(&self, other: &Self) -> bool {
        let next = self.outline.iter().cycle().skip(1);
        self.outline.iter().zip(next).any(|(from, to)| {
            let (along_x, along_y) = ((to.x - from.x).as_mm(), (to.y - from.y).as_mm());
            let long = along_x.hypot(along_y);
            other.outline.iter().all(|point| {
                let (off_x, off_y) = ((point.x - from.x).as_mm(), (point.y - from.y).as_mm());
                along_x * off_y - along_y * off_x <= DUST_MM * long
            })
        })
    }
}

impl Blank {
    /// Returns what it is cut from a sheet as: its rectangle, its outline staying.
    pub(crate) fn cut(&self) -> Cut {
        Cut::of([self.width, self.height]).staying(self.area)
    }

    /// Checks that it is a net: every panel hangs on the root by one way, scores lie on edges, nothing overlaps.
    ///
    /// # Errors
    /// The first [`NetFault`] that is found.
    pub fn check(&self) -> Result<(), NetFault> {
        for (place, panel) in self.panels.iter().enumerate() {
            let name = panel.name;
            let former = &self.panels[..place];
            if former.iter().any(|other| other.name == name) {
                return Err(NetFault::TwoCalled(name));
            }
            if !panel.goes_around() {
                return Err(NetFault::NotConvex(name));
            }
            if !panel.outline.iter().all(|point| self.holds(*point)) {
                return Err(NetFault::PastTheSheet(name));
            }
            let meets = |other: &&Panel| !panel.keeps_out(other) && !other.keeps_out(panel);
            if let Some(other) = former.iter().find(meets) {
                return Err(NetFault::Overlap(other.name, name));
            }
            self.hangs_well(place)?;
        }
        Ok(())
    }

    fn holds(&self, point: Point) -> bool {
        let reach =
            |at: Length, end: Length| (-DUST_MM..=end.as_mm() + DUST_MM).contains(&at.as_mm());
        reach(point.x, self.width) && reach(point.y, self.height)
    }

    /// Checks the score of one panel; the root has none.
    fn hangs_well(&self, place: usize) -> Result<(), NetFault> {
        let panel = &self.panels[place];
        let known =
            |at: usize| at == self.root || self.hinges.iter().any(|hinge| hinge.between[1] == at);
        let mut scores = self.hinges.iter().filter(|hinge| hinge.between[1] == place);
        match (scores.next(), scores.next()) {
            (None, None) if place == self.root => Ok(()),
            (Some(hinge), None) if place != self.root && known(hinge.between[0]) => {
                let [on, _] = hinge.between;
                let lies = |panel: &Panel| {
                    [hinge.from, hinge.to]
                        .into_iter()
                        .all(|end| panel.has_on_its_edge(end))
                };
                if on < place && lies(&self.panels[on]) && lies(panel) {
                    Ok(())
                } else {
                    Err(NetFault::OffTheEdge(panel.name))
                }
            }
            _ => Err(NetFault::NotATree(panel.name)),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn at(x: f64, y: f64) -> Point {
        Point::new(Length::mm(x), Length::mm(y))
    }

    fn rectangle(name: &'static str, [x1, y1, x2, y2]: [f64; 4]) -> Panel {
        Panel::rectangle(name, PanelRole::Side, at(x1, y1), at(x2, y2))
    }

    /// A base of 100 × 50 with a wall of 30 to its right.
    fn corner() -> Blank {
        let size = [130.0, 50.0].map(Length::mm);
        let mut layout = Layout::new(
            PartId::Corner,
            size,
            rectangle("base", [0.0, 0.0, 100.0, 50.0]),
        );
        let wall = rectangle("wall", [100.0, 0.0, 130.0, 50.0]);
        layout.hang(0, wall, [at(100.0, 0.0), at(100.0, 50.0)], (90.0, 1));
        layout.cut()
    }

    #[test]
    fn what_follows_from_a_net_is_its_area_and_its_running_distances() {
        // 130 × 50 = 6500 mm²
        let blank = corner();
        assert_eq!(blank.check(), Ok(()));
        assert!((blank.area.as_m2() - 0.0065).abs() < 1e-12);
        let across: Vec<f64> = blank.runs_across.iter().map(|run| run.as_mm()).collect();
        assert_eq!(across, [0.0, 100.0, 130.0]);
        assert_eq!(blank.runs_up.len(), 2);
    }

    #[test]
    fn a_panel_of_no_width_is_left_out_with_its_score() {
        let size = [100.0, 50.0].map(Length::mm);
        let mut layout = Layout::new(
            PartId::Box,
            size,
            rectangle("base", [0.0, 0.0, 100.0, 50.0]),
        );
        for flap in [[20.0, 50.0, 20.0, 60.0], [30.0, 50.0, 10.0, 60.0]] {
            let score = [at(flap[0], 50.0), at(flap[2], 50.0)];
            layout.hang(0, rectangle("flap", flap), score, (90.0, 1));
        }
        let blank = layout.cut();
        assert_eq!((blank.panels.len(), blank.hinges.len()), (1, 0));
    }

    #[test]
    fn two_panels_of_one_name_are_told() {
        let mut blank = corner();
        blank.panels[1].name = "base";
        assert_eq!(blank.check(), Err(NetFault::TwoCalled("base")));
    }

    #[test]
    fn a_panel_that_hangs_on_nothing_or_twice_is_told() {
        let mut loose = corner();
        loose.hinges.clear();
        assert_eq!(loose.check(), Err(NetFault::NotATree("wall")));
        let mut twice = corner();
        twice.hinges.push(twice.hinges[0]);
        assert_eq!(twice.check(), Err(NetFault::NotATree("wall")));
        // The root hangs on nothing at all.
        let mut round = corner();
        let [on, panel] = round.hinges[0].between;
        round.hinges.push(Hinge {
            between: [panel, on],
            ..round.hinges[0]
        });
        assert_eq!(round.check(), Err(NetFault::NotATree("base")));
    }

    #[test]
    fn a_score_off_an_edge_is_told() {
        let mut blank = corner();
        blank.hinges[0].to = at(100.0, 51.0);
        assert_eq!(blank.check(), Err(NetFault::OffTheEdge("wall")));
        // On the edge of the wall, but through the base.
        let mut blank = corner();
        blank.hinges[0].from = at(90.0, 0.0);
        assert_eq!(blank.check(), Err(NetFault::OffTheEdge("wall")));
    }

    #[test]
    fn a_panel_past_the_sheet_and_one_over_another_are_told() {
        let mut blank = corner();
        blank.width = Length::mm(129.0);
        assert_eq!(blank.check(), Err(NetFault::PastTheSheet("wall")));
        let mut blank = corner();
        blank.panels[1] = rectangle("wall", [99.0, 0.0, 129.0, 50.0]);
        assert_eq!(blank.check(), Err(NetFault::Overlap("base", "wall")));
    }

    #[test]
    fn a_panel_that_turns_back_is_told() {
        let mut blank = corner();
        blank.panels[1].outline = vec![
            at(100.0, 0.0),
            at(130.0, 0.0),
            at(110.0, 25.0),
            at(130.0, 50.0),
            at(100.0, 50.0),
        ];
        assert_eq!(blank.check(), Err(NetFault::NotConvex("wall")));
        assert_eq!(
            NetFault::NotConvex("wall").to_string(),
            "wall is not convex"
        );
    }
}
