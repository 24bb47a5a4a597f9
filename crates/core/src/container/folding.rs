//! A net while hands fold it: how it looks, and what is done to it act by act.

use glam::DVec3;

use super::{Container, picture::laid_out};
use crate::{
    act::{Does, FaceOf, MovePicture, Thing},
    carton::{Blank, FoldStep, Solid},
    quantity::Length,
};

/// What of a net is up while it is drawn.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Up {
    /// The inside of the panel that lies still.
    Inside,
    /// The upper edge of the blank.
    UpperEdge,
    /// Its lower edge.
    LowerEdge,
}

impl Up {
    /// Returns a place on the folded net as three lengths: to the right, up, and away from the person at the bench.
    const fn turned(self, at: DVec3) -> DVec3 {
        match self {
            Self::Inside => DVec3::new(at.x, at.z, at.y),
            Self::UpperEdge => DVec3::new(at.x, at.y, -at.z),
            Self::LowerEdge => DVec3::new(at.x, -at.y, at.z),
        }
    }
}

/// A fold is drawn this much of a step before its end, so that one sees which way it goes.
const BEFORE_ITS_END: f64 = 0.5;

/// A face in space, to be drawn.
struct Leaf {
    of: FaceOf,
    corners: Vec<DVec3>,
    /// Across the face, toward the person who looks at the picture.
    normal: DVec3,
}

impl Leaf {
    /// Takes it from its corners and the way to its outer side; `None` if it is seen edge-on.
    fn seen(
        corners: Vec<DVec3>,
        outward: DVec3,
        [outside, inside]: [Option<FaceOf>; 2],
    ) -> Option<Self> {
        let facing = outward.dot(super::picture::LOOKING);
        let (of, normal) = if facing < -EDGE_ON {
            (outside, outward)
        } else if facing > EDGE_ON {
            (inside, -outward)
        } else {
            (None, outward)
        };
        of.map(|of| Self {
            of,
            corners,
            normal,
        })
    }

    /// How far its corners lie before another's plane: the least, and the most.
    fn before(&self, other: &Self) -> [f64; 2] {
        let far = self
            .corners
            .iter()
            .map(|at| (*at - other.corners[0]).dot(other.normal));
        far.fold([f64::INFINITY, f64::NEG_INFINITY], |[least, most], at| {
            [least.min(at), most.max(at)]
        })
    }

    /// Tells whether it can be drawn before another: it lies wholly behind that one's plane, or that one wholly before its own.
    fn goes_first(&self, other: &Self, give: f64) -> bool {
        self.before(other)[1] <= give || other.before(self)[0] >= -give
    }

    /// How far away its middle is.
    fn away(&self) -> f64 {
        let count = f64::from(u32::try_from(self.corners.len()).unwrap_or(1));
        let middle = self.corners.iter().sum::<DVec3>() / count;
        middle.dot(super::picture::LOOKING)
    }
}

/// A face that is turned to the person who looks by less than this is seen edge-on, and not drawn.
const EDGE_ON: f64 = 1e-3;

/// Puts what lies behind first.
fn from_behind(mut leaves: Vec<Leaf>, give: f64) -> Vec<Leaf> {
    let mut sorted = Vec::with_capacity(leaves.len());
    while !leaves.is_empty() {
        let free = (0..leaves.len()).find(|at| {
            let mut others = (0..leaves.len()).filter(|other| other != at);
            others.all(|other| leaves[*at].goes_first(&leaves[other], give))
        });
        let furthest = || {
            let all = 0..leaves.len();
            all.max_by(|one, other| leaves[*one].away().total_cmp(&leaves[*other].away()))
        };
        let next = free.or_else(furthest).unwrap_or(0);
        sorted.push(leaves.remove(next));
    }
    sorted
}

/// A net as hands fold it.
#[derive(Debug, Clone, Copy)]
pub(super) struct Net<'a> {
    pub blank: &'a Blank,
    /// How thick its board is.
    pub caliper: Length,
}

impl Net<'_> {
    /// Draws it folded almost as far as a step.
    pub(super) fn seen(self, step: u32, up: Up) -> MovePicture {
        self.seen_around(step, up, None)
    }

    /// Draws it folded almost as far as a step, with what lies in it.
    pub(super) fn seen_around(self, step: u32, up: Up, goods: Option<&Solid>) -> MovePicture {
        let Self { blank, caliper } = self;
        let step = (f64::from(step) - BEFORE_ITS_END).max(0.0);
        let folded = blank.folded(step);
        let panels = (0..blank.panels.len()).filter_map(|panel| {
            let corners = folded.outline(panel).map(|at| up.turned(at)).collect();
            let outward = up.turned(-folded.inward(panel));
            Leaf::seen(corners, outward, [Some(FaceOf::Card), Some(FaceOf::Inside)])
        });
        let mut leaves: Vec<Leaf> = panels.collect();
        leaves.extend(
            goods
                .into_iter()
                .flat_map(Solid::faces)
                .filter_map(|(corners, outward)| {
                    let corners = corners.into_iter().map(|at| up.turned(at)).collect();
                    Leaf::seen(corners, up.turned(outward), [Some(FaceOf::Goods), None])
                }),
        );
        let faces = from_behind(leaves, caliper.as_mm() * 0.6)
            .into_iter()
            .map(|leaf| (leaf.of, leaf.corners.iter().map(DVec3::to_array).collect()))
            .collect();
        laid_out(faces, None)
    }
}

impl Container {
    /// Returns what hands do to one of its parts, act by act, with how far its net is folded after each. A net that is folded stays so.
    #[must_use]
    pub fn folding_of(&self, blank: &Blank) -> Vec<FoldStep> {
        let is_it =
            |thing: Thing| matches!(thing, Thing::Part(part) if part.of_one_box() == blank.part);
        let phases = [&self.ready, &self.load, &self.close, &self.seal];
        let acts = phases.into_iter().flatten().filter(|act| {
            let named = is_it(act.thing) || act.to.is_some_and(is_it);
            named && !matches!(act.does, Does::Look | Does::Write)
        });
        let mut done = 0;
        acts.map(|act| {
            // What is folded stays so, where an act folds another part beside it.
            let to = act
                .folds_to
                .map_or(done, |to| to.clamp(done, blank.steps().max(done)));
            let turned = blank.turned_between(done, to);
            done = to;
            FoldStep {
                panels: turned,
                says: act.says.clone(),
                folded_to: to,
            }
        })
        .collect()
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::carton::{BoxSize, Folder};

    /// Where a piece lies on the flat blank it is seen whole; where the lids are almost closed over it, they are drawn last. It kills: faces
    /// in the order of the net, a piece that is always drawn last.
    #[test]
    fn what_lies_in_front_is_drawn_last() {
        let [length, width, height, caliper] = [740.0, 560.0, 90.0, 4.0].map(Length::mm);
        let folder = Folder::meeting(BoxSize {
            length,
            width,
            height,
            caliper,
        });
        let (blank, room) = (folder.blank(), folder.room());
        let net = Net {
            blank: &blank,
            caliper,
        };
        let drawn = |step| {
            let picture = net.seen_around(step, Up::Inside, Some(&room));
            picture.faces.iter().map(|face| face.of).collect::<Vec<_>>()
        };
        // Nine panels, all from inside, and three sides of the piece.
        let flat = drawn(0);
        assert_eq!(flat.len(), 12);
        assert!(flat[..9].iter().all(|of| *of == FaceOf::Inside));
        assert!(flat[9..].iter().all(|of| *of == FaceOf::Goods));
        let shut = drawn(blank.steps());
        assert_ne!(shut.last(), Some(&FaceOf::Goods));
        let card = shut.iter().filter(|of| **of == FaceOf::Card).count();
        assert!(card >= 3, "{shut:?}");
    }

    /// A closed box that stands shows its top, its front and its right side: a wall is seen from outside or not at all.
    #[test]
    fn a_closed_tray_shows_the_outside_of_two_walls() {
        let [length, width, height, caliper] = [400.0, 300.0, 60.0, 5.0].map(Length::mm);
        let tray = crate::carton::Tray(BoxSize {
            length,
            width,
            height,
            caliper,
        });
        let blank = tray.blank();
        let net = Net {
            blank: &blank,
            caliper,
        };
        let faces = net.seen(1, Up::Inside).faces;
        let count = |of| faces.iter().filter(|face| face.of == of).count();
        // The base and the walls behind and to the left from inside, the one in front and the one to the right from outside.
        assert_eq!([FaceOf::Inside, FaceOf::Card].map(count), [3, 2]);
        assert_eq!(faces.last().map(|face| face.of), Some(FaceOf::Card));
    }
}
