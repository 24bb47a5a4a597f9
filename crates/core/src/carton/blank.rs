//! A flat blank: panels and the hinges between them, seen from the inside face, y up.

use serde::Serialize;

use crate::quantity::{Area, Length};

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
    /// What it becomes.
    pub role: PanelRole,
    /// Its corners, in order around it.
    pub outline: Vec<Point>,
}

impl Panel {
    /// Makes a panel from two opposite corners.
    #[must_use]
    pub fn rectangle(role: PanelRole, low: Point, high: Point) -> Self {
        let outline = vec![
            low,
            Point::new(high.x, low.y),
            high,
            Point::new(low.x, high.y),
        ];
        Self { role, outline }
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

/// A flat blank.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Blank {
    /// Of the rectangle that it is cut from.
    #[serde(rename = "width_mm")]
    pub width: Length,
    /// Of the rectangle that it is cut from, along the flutes.
    #[serde(rename = "height_mm")]
    pub height: Length,
    /// What is left when the slots are cut out.
    #[serde(rename = "area_m2")]
    pub area: Area,
    /// Its panels.
    pub panels: Vec<Panel>,
    /// Its scores.
    pub hinges: Vec<Hinge>,
    /// Running distances of cuts and scores from the left edge.
    #[serde(rename = "runs_across_mm")]
    pub runs_across: Vec<Length>,
    /// Running distances of cuts and scores from the lower edge.
    #[serde(rename = "runs_up_mm")]
    pub runs_up: Vec<Length>,
}

impl Blank {
    /// Makes a blank, its area being the sum of its panels.
    pub(super) fn new(
        panels: Vec<Panel>,
        hinges: Vec<Hinge>,
        runs_across: Vec<Length>,
        runs_up: Vec<Length>,
    ) -> Self {
        Self {
            width: *runs_across.last().expect("a blank has a right edge"),
            height: *runs_up.last().expect("a blank has an upper edge"),
            area: panels.iter().map(Panel::area).sum(),
            panels,
            hinges,
            runs_across,
            runs_up,
        }
    }
}
