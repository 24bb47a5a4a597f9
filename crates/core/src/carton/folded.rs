//! A blank folded: where each panel comes to lie, and whether anything passes through anything.

use glam::{DAffine3, DVec3};
use serde::Serialize;

use super::{Blank, Hinge, Panel, PanelRole, Point};
use crate::quantity::Length;

/// A blank with each panel where it lies when it is folded so far.
///
/// The root lies still in the plane of the sheet, its inner face up. Each score turns what hangs on it about its own
/// line, toward the inner face, in the order of the steps.
#[derive(Debug, Clone)]
pub struct FoldedBlank<'a> {
    blank: &'a Blank,
    poses: Vec<DAffine3>,
}

/// Something convex in space: a panel as thick as its board, or the room inside a box.
#[derive(Debug, Clone, PartialEq)]
pub struct Solid {
    corners: Vec<DVec3>,
    /// Across its faces.
    normals: Vec<DVec3>,
    /// Along its edges.
    edges: Vec<DVec3>,
}

/// Directions closer to parallel than this have no direction across both.
const LEAST_CROSS: f64 = 1e-9;

impl Blank {
    /// Returns it folded as far as a step: 0 is flat, 1 has all of the first step done, half of it at 0.5.
    ///
    /// Source: a tree of rigid panels, each turned about its score by its angle.
    ///
    /// ```
    /// use hummock_core::{carton::{BoxSize, Tray}, quantity::Length};
    ///
    /// let [length, width, height, caliper] = [740.0, 560.0, 90.0, 5.0].map(Length::mm);
    /// let tray = Tray(BoxSize { length, width, height, caliper });
    /// let blank = tray.blank();
    /// let folded = blank.folded(blank.steps().into());
    /// assert!(folded.reach_into(&tray.room(), caliper) < 1e-6);
    /// ```
    #[must_use]
    pub fn folded(&self, step: f64) -> FoldedBlank<'_> {
        let mut poses = vec![DAffine3::IDENTITY; self.panels.len()];
        let mut lifts = vec![0.0; self.panels.len()];
        lifts[self.root] = self.panels[self.root].lift.as_mm();
        for hinge in &self.hinges {
            let [on, panel] = hinge.between;
            let share = (step - f64::from(hinge.step) + 1.0).clamp(0.0, 1.0);
            poses[panel] = poses[on] * turn(hinge, &self.panels[panel], share);
            lifts[panel] = self.panels[panel].lift.as_mm() * share;
        }
        for (pose, lift) in poses.iter_mut().zip(lifts) {
            *pose *= DAffine3::from_translation(DVec3::Z * lift);
        }
        FoldedBlank { blank: self, poses }
    }

    /// Returns how many steps it is folded in.
    #[must_use]
    pub fn steps(&self) -> u32 {
        let steps = self.hinges.iter().map(|hinge| hinge.step);
        steps.max().unwrap_or(0)
    }
}

/// Turns a panel about its score by a share of its angle, to the side on which it lies.
fn turn(hinge: &Hinge, panel: &Panel, share: f64) -> DAffine3 {
    let (from, to) = (flat(hinge.from), flat(hinge.to));
    let along = (to - from).normalize_or_zero();
    let count = f64::from(u32::try_from(panel.outline.len()).expect("a panel has few corners"));
    let middle = panel
        .outline
        .iter()
        .map(|point| flat(*point))
        .sum::<DVec3>()
        / count;
    let side = along.cross(middle - from).z.signum();
    let angle = hinge.angle_deg.to_radians() * share * side;
    DAffine3::from_translation(from)
        * DAffine3::from_axis_angle(along, angle)
        * DAffine3::from_translation(-from)
}

fn flat(point: Point) -> DVec3 {
    DVec3::new(point.x.as_mm(), point.y.as_mm(), 0.0)
}

/// One step of folding, as it is told at the bench.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FoldStep {
    /// The panels that are turned in it, by their names; none while it is scored, filled or taped.
    pub panels: Vec<&'static str>,
    /// What to do.
    pub says: String,
    /// The last of the scores that are folded when it is done, by their order in the net; 0 while it is flat.
    pub folded_to: u32,
}

impl Blank {
    /// Returns the panels that are turned after one step of folding, up to another.
    #[must_use]
    pub fn turned_between(&self, done: u32, to: u32) -> Vec<&'static str> {
        let hinges = self.hinges.iter();
        hinges
            .filter(|hinge| hinge.step > done && hinge.step <= to)
            .map(|hinge| self.panels[hinge.between[1]].name)
            .collect()
    }

    /// Returns what to do with a blank that is no container, step by step: cut and score it, then fold it.
    #[must_use]
    pub fn told(&self) -> Vec<FoldStep> {
        let scored = FoldStep {
            panels: Vec::new(),
            says: "Cut it out, score the dashed lines, and lay it down with the inside up."
                .to_owned(),
            folded_to: 0,
        };
        let folds = (1..=self.steps()).map(|step| self.told_at(step));
        std::iter::once(scored).chain(folds).collect()
    }

    fn told_at(&self, step: u32) -> FoldStep {
        let panels = self.turned_between(step - 1, step);
        let mut says = format!("Fold toward you: {}.", listed(&panels));
        let mut turned = self
            .panels
            .iter()
            .filter(|panel| panels.contains(&panel.name));
        let tab = turned.find(|panel| panel.role == PanelRole::Tab);
        if let Some((tab, over)) = tab.zip(self.laps_over) {
            says.push_str(&format!(" Tape the {} outside {over}.", tab.name));
        }
        FoldStep {
            panels,
            says,
            folded_to: step,
        }
    }
}

fn listed(names: &[&str]) -> String {
    match names {
        [] => String::new(),
        [one] => (*one).to_owned(),
        [first @ .., last] => format!("{} and {last}", first.join(", ")),
    }
}

impl FoldedBlank<'_> {
    /// Returns the corners of a panel, in the middle of its board.
    pub fn outline(&self, panel: usize) -> impl Iterator<Item = DVec3> {
        let pose = self.poses[panel];
        let outline = &self.blank.panels[panel].outline;
        outline
            .iter()
            .map(move |point| pose.transform_point3(flat(*point)))
    }

    /// Returns which way the inner face of a panel looks.
    #[must_use]
    pub fn inward(&self, panel: usize) -> DVec3 {
        self.poses[panel].transform_vector3(DVec3::Z)
    }

    /// Returns where each panel lies: the rows of a matrix of three by four, for a place on the flat blank.
    #[must_use]
    pub fn matrices(&self) -> Vec<[[f64; 4]; 3]> {
        let rows = |pose: &DAffine3| {
            let [x, y, z] = [
                pose.matrix3.x_axis,
                pose.matrix3.y_axis,
                pose.matrix3.z_axis,
            ];
            let by = pose.translation;
            [0, 1, 2].map(|row| [x[row], y[row], z[row], by[row]])
        };
        self.poses.iter().map(rows).collect()
    }

    /// Returns a panel as thick as a board, half of it to either side of its plane.
    #[must_use]
    pub fn slab(&self, panel: usize, caliper: Length) -> Solid {
        let pose = self.poses[panel];
        let half = DVec3::Z * (caliper.as_mm() / 2.0);
        let outline = &self.blank.panels[panel].outline;
        let low = outline
            .iter()
            .map(|point| pose.transform_point3(flat(*point) - half));
        Solid::prism(low.collect(), pose.transform_vector3(half * 2.0))
    }

    /// Returns the furthest that one panel passes through another that it does not hang on, and which two; `None`
    /// if none does.
    #[must_use]
    pub fn furthest_through(&self, caliper: Length) -> Option<(f64, [&'static str; 2])> {
        let slabs: Vec<Solid> = (0..self.poses.len())
            .map(|panel| self.slab(panel, caliper))
            .collect();
        let hang = |one: usize, other: usize| {
            let mut hinges = self.blank.hinges.iter();
            hinges.any(|hinge| hinge.between == [one, other] || hinge.between == [other, one])
        };
        let pairs = (0..slabs.len()).flat_map(|one| (0..one).map(move |other| (one, other)));
        pairs
            .filter(|&(one, other)| !hang(one, other))
            .map(|(one, other)| {
                let names = [one, other].map(|panel| self.blank.panels[panel].name);
                (slabs[one].through(&slabs[other]), names)
            })
            .filter(|(far, _)| *far > 0.0)
            .max_by(|(one, _), (other, _)| one.total_cmp(other))
    }

    /// Returns how far the furthest panel reaches into a room that is to be free, in mm.
    #[must_use]
    pub fn reach_into(&self, room: &Solid, caliper: Length) -> f64 {
        (0..self.poses.len())
            .map(|panel| self.slab(panel, caliper).through(room))
            .fold(0.0, f64::max)
    }
}

impl Solid {
    /// Makes it from a flat, convex base, and how far and which way it reaches from there.
    #[must_use]
    pub fn prism(base: Vec<DVec3>, along: DVec3) -> Self {
        let next = base.iter().cycle().skip(1);
        let around: Vec<DVec3> = base
            .iter()
            .zip(next)
            .map(|(from, to)| (*to - *from).normalize_or_zero())
            .collect();
        let up = along.normalize_or_zero();
        let mut normals: Vec<DVec3> = around
            .iter()
            .map(|edge| edge.cross(up).normalize_or_zero())
            .collect();
        let across = around.iter().skip(1).map(|edge| around[0].cross(*edge));
        normals.extend(across.max_by(|one, other| one.length().total_cmp(&other.length())));
        let top: Vec<DVec3> = base.iter().map(|corner| *corner + along).collect();
        let mut edges = around;
        edges.push(up);
        Self {
            corners: base.into_iter().chain(top).collect(),
            normals: normals.into_iter().map(DVec3::normalize_or_zero).collect(),
            edges,
        }
    }

    /// Makes a cuboid from its lowest corner and its sides along x, y and z.
    #[must_use]
    pub fn cuboid(at: [Length; 3], sides: [Length; 3]) -> Self {
        let [at, sides] = [at, sides].map(|lengths| DVec3::from(lengths.map(Length::as_mm)));
        let base = [(0.0, 0.0), (1.0, 0.0), (1.0, 1.0), (0.0, 1.0)]
            .map(|(x, y)| at + DVec3::new(x * sides.x, y * sides.y, 0.0));
        Self::prism(base.to_vec(), DVec3::Z * sides.z)
    }

    /// Returns the six faces of a cuboid, each with the way out of it.
    pub fn faces(&self) -> impl Iterator<Item = (Vec<DVec3>, DVec3)> + use<> {
        let [low, high] = [DVec3::min as fn(DVec3, DVec3) -> DVec3, DVec3::max].map(|pick| {
            self.corners
                .iter()
                .copied()
                .reduce(pick)
                .unwrap_or_default()
        });
        let side = |axis: usize, upper: bool| {
            let [one, other] = [(axis + 1) % 3, (axis + 2) % 3];
            let corner = |first: bool, second: bool| {
                let mut at = DVec3::ZERO;
                for (axis, is_high) in [(axis, upper), (one, first), (other, second)] {
                    at[axis] = if is_high { high[axis] } else { low[axis] };
                }
                at
            };
            let corners = [(false, false), (true, false), (true, true), (false, true)];
            let outward = DVec3::AXES[axis] * if upper { 1.0 } else { -1.0 };
            (
                corners.map(|(one, other)| corner(one, other)).to_vec(),
                outward,
            )
        };
        let faces: Vec<(Vec<DVec3>, DVec3)> = (0..3)
            .flat_map(|axis| [side(axis, false), side(axis, true)])
            .collect();
        faces.into_iter()
    }

    /// Returns how far two pass through each other, in mm: the least way that would part them, nothing where they
    /// are apart.
    ///
    /// Source: of two convex solids one plane across a face, or along an edge of each, parts them if any does.
    #[must_use]
    pub fn through(&self, other: &Self) -> f64 {
        let faces = self.normals.iter().chain(&other.normals).copied();
        let crossed = self.edges.iter().flat_map(|one| {
            let both = other.edges.iter().map(move |other| one.cross(*other));
            both.filter(|across| across.length() > LEAST_CROSS)
                .map(DVec3::normalize)
        });
        let mut least = f64::INFINITY;
        for way in faces.chain(crossed).filter(|way| *way != DVec3::ZERO) {
            let ([low, high], [other_low, other_high]) = (self.span(way), other.span(way));
            let overlap = (high - other_low).min(other_high - low);
            if overlap <= 0.0 {
                return 0.0;
            }
            least = least.min(overlap);
        }
        least
    }

    /// How far it reaches each way along a direction.
    fn span(&self, way: DVec3) -> [f64; 2] {
        let reach = self.corners.iter().map(|corner| corner.dot(way));
        reach.fold([f64::INFINITY, f64::NEG_INFINITY], |[low, high], at| {
            [low.min(at), high.max(at)]
        })
    }

    /// Returns it moved.
    #[must_use]
    pub fn moved(&self, by: &DAffine3) -> Self {
        let turned = |ways: &[DVec3]| ways.iter().map(|way| by.transform_vector3(*way)).collect();
        Self {
            corners: self
                .corners
                .iter()
                .map(|corner| by.transform_point3(*corner))
                .collect(),
            normals: turned(&self.normals),
            edges: turned(&self.edges),
        }
    }
}
