//! Slotted boxes, by the side that they open on: cut, bought and saved ones alike.

use super::{
    BoxPlace, Container, Opening, SealStrip, Titles, Use,
    folding::{Net, Up},
    picture::{Body, Scene, Side},
    seal_after, sealing, those,
};
use crate::{
    act::{Act, Does, MovePicture, Pose, Thing},
    carton::{Blank, BoxSize, folds::ring as folds},
    house::CartonStyle,
    part::{PartId, StripId},
    quantity::{Length, Minutes},
    space::Opens,
    text::capital,
};

/// A slotted box as its acts need it.
pub(super) struct Slotted<'a> {
    /// What it is called.
    pub part: PartId,
    /// On which side it opens.
    pub opens: Opens,
    /// Inside, along the long side of the art's face, along the short one, and through.
    pub inside: [Length; 3],
    /// Every strip on it.
    pub strips: Vec<SealStrip>,
    /// What it is folded from; `None` of one that is bought or kept.
    pub net: Option<Net<'a>>,
    /// What is done before its floor is closed.
    pub made: Vec<Act>,
    /// Its other parts.
    pub more_parts: Vec<PartId>,
}

const FLOOR: [StripId; 2] = [StripId::OverTheFloor, StripId::OverTheFloorsEnds];
const OPENING: [StripId; 2] = [StripId::OverTheOpening, StripId::OverItsEnds];

impl Slotted<'_> {
    /// Returns how it stands on the bench while it is loaded: to the right, up, and away.
    fn stands(&self) -> [f64; 3] {
        let [long, short, through] = self.inside.map(Length::as_mm);
        match self.opens {
            Opens::Face => [long, through, short],
            Opens::EdgeLong => [long, short, through],
            Opens::EdgeShort => [short, long, through],
        }
    }

    /// How something is put in: the box with its opening up, and what goes in above it.
    fn loading(&self) -> MovePicture {
        let [x, y, z] = self.stands();
        let gap = y.min(x) * 0.04;
        let lifted = [gap, y * 0.45, gap.min(z * 0.1)];
        let goods = Body::goods(lifted, [x - gap, y * 1.4, z - gap.min(z * 0.1)]);
        Scene::of([Body::part([0.0; 3], [x, y, z], &Side::Top.all_but()), goods])
            .moving([x / 2.0, y * 1.75, z / 2.0], [x / 2.0, y * 1.45, z / 2.0])
            .drawn()
    }

    /// What is clear of its opening.
    const fn mouth(&self) -> [Length; 2] {
        let [long, short, through] = self.inside;
        match self.opens {
            Opens::Face => [long, short],
            Opens::EdgeLong => [long, through],
            Opens::EdgeShort => [short, through],
        }
    }

    fn floor(&self) -> &'static str {
        match self.opens {
            Opens::Face => {
                "Fold in the short flaps behind, then the long ones over them: the back is the floor."
            }
            Opens::EdgeLong => {
                "Fold in the short flaps of one long edge, then the long ones over them: this edge is the floor."
            }
            Opens::EdgeShort => {
                "Fold in the short flaps of one short edge, then the long ones over them: this edge is the floor."
            }
        }
    }

    /// How something gets in: over a wall, or pushed in level where that is too heavy and the wall too high.
    fn load(&self, of: &Use) -> Vec<Act> {
        let (part, Use { what, face, .. }) = (self.part, *of);
        let [long, short, deep] = self.inside;
        let wall = match self.opens {
            Opens::Face => {
                return vec![
                    Act::goods(
                        Does::Lay,
                        part,
                        format!("Lay {what} in, {face} up, with the same gap on all four sides."),
                    )
                    .lying(Pose::FaceUp)
                    .lifting(of.over(deep))
                    .seen(self.loading()),
                ];
            }
            Opens::EdgeLong => short,
            Opens::EdgeShort => long,
        };
        if !of.too_heavy_over(wall) {
            return vec![
                Act::on(
                    Does::Stand,
                    part,
                    format!("Stand the {part} on its floor, the opening up."),
                ),
                Act::goods(
                    Does::Slide,
                    part,
                    format!(
                        "Slide {what} in, {face} toward the wall without the joint, down to the floor."
                    ),
                )
                .lying(Pose::Standing).lifting(of.over(wall))
                .seen(self.loading()),
            ];
        }
        let (lies, pushed) = match (self.opens, of.pane) {
            (Opens::EdgeShort, _) => (
                format!("Lay the {part} on a long edge, its opening level with the bench."),
                format!(
                    "Push {what} in upright, on its long edge on a sheet of card, {face} toward the wall without the joint."
                ),
            ),
            (_, true) => (
                format!(
                    "Stand the {part} on a short edge, its opening toward you and level with the bench."
                ),
                format!(
                    "Push {what} in upright, on its short edge on a sheet of card, {face} toward the wall without the joint."
                ),
            ),
            (_, false) => (
                format!(
                    "Lay the {part} flat, the wall without the joint up and its opening level with the bench."
                ),
                format!("Push {what} in flat on a sheet of card, {face} up."),
            ),
        };
        vec![
            Act::on(Does::Stand, part, lies),
            Act::goods(Does::Slide, part, pushed)
                .lying(Pose::Standing)
                .lifting(of.over(Length::ZERO)),
            Act::on(
                Does::Stand,
                part,
                format!("Set the {part} up on its floor; the opening is up again."),
            ),
        ]
    }

    pub(super) fn container(self, of: &Use) -> Container {
        let part = self.part;
        let load = self.load(of);
        let mouth = self.mouth();
        let mut ready = self.made.clone();
        let seen = |step, up| self.net.map(|net| net.seen(step, up));
        ready.push(
            Act::on(Does::Fold, part, self.floor())
                .folding_to(folds::FLOOR)
                .seen_if(seen(folds::FLOOR, Up::LowerEdge)),
        );
        ready.push(Act::tape(
            part,
            &FLOOR,
            "Tape the floor in an H: along its seam, then over both its ends.",
        ));
        let mut seal = vec![Act::tape(
            part,
            &OPENING,
            "Tape the opening in an H: along its seam, then over both its ends.",
        )];
        seal.extend(seal_after(of, part, &self.strips));
        let titled = match self.opens {
            Opens::Face => format!("Lay {} in", of.what),
            Opens::EdgeLong | Opens::EdgeShort => format!("Slide {} in", of.what),
        };
        let out = match self.opens {
            Opens::Face => "Fold the flaps back, and lift out what is inside with both hands.",
            Opens::EdgeLong | Opens::EdgeShort => {
                "Fold the flaps back. Lay the box flat, and slide out what is inside: don't pull at a wrap."
            }
        };
        let opens_on = match self.opens {
            Opens::Face => "on the face side",
            Opens::EdgeLong => "on one long edge",
            Opens::EdgeShort => "on one short edge",
        };
        let joint = those(&self.strips, &[StripId::AlongTheJoint]);
        Container {
            parts: std::iter::once(part).chain(self.more_parts).collect(),
            openings: vec![
                Opening {
                    sealed_by: [FLOOR.to_vec(), joint].concat(),
                    loads: false,
                },
                Opening {
                    sealed_by: OPENING.to_vec(),
                    loads: true,
                },
            ],
            way_in: self.opens.way_in(),
            mouth: Some(mouth),
            stages: Vec::new(),
            all_at_once: false,
            follows: None,
            measured: false,
            lid: "the flaps",
            titles: Titles {
                ready: capital(of.part(PartId::Box).name()),
                load: titled,
                close: if of.place == BoxPlace::Outer {
                    "Close the outer box".to_owned()
                } else {
                    "Close it".to_owned()
                },
                seal: sealing(of.part(PartId::Box)),
                open: capital(of.part(PartId::Box).name()),
            },
            ready,
            load,
            close: vec![
                Act::on(
                    Does::Fold,
                    part,
                    "Fold the short flaps in, then the long ones over them; they close without force.",
                )
                .folding_to(folds::LID)
                .seen_if(seen(folds::LID, Up::UpperEdge)),
            ],
            seal,
            open: vec![
                Act::cut_open(
                    part,
                    &OPENING,
                    format!(
                        "Slit the tape along the seam {opens_on} and over both its ends, no deeper than the board."
                    ),
                ),
                Act::new(Does::Lift, Thing::Goods, out),
            ],
            strips: self.strips,
        }
    }
}

/// White glue holds after so long under weight. Source: packaging engineering practice.
pub(crate) const GLUE_HOLDS: Minutes = Minutes::min_of(30.0);

impl super::Carton {
    /// Returns the box as hands make, load, close and open it.
    #[must_use]
    pub fn container(&self, of: &Use) -> Container {
        match self.style {
            CartonStyle::SlottedEdge => self.slotted(of, Opens::EdgeLong),
            CartonStyle::SlottedFace => self.slotted(of, Opens::Face),
            CartonStyle::TrayAndLid | CartonStyle::TrayAndTray | CartonStyle::SlitTray => {
                self.tray(of)
            }
            CartonStyle::Folder | CartonStyle::FolderLapped => self.folder(of),
            CartonStyle::Telescope => self.telescope(of),
        }
    }

    /// One of its blanks as it is folded.
    pub(super) const fn net<'a>(&self, blank: &'a Blank) -> Net<'a> {
        Net {
            blank,
            caliper: self.caliper,
        }
    }

    /// What is done before anything is scored: parts of a blank joined, sheets glued inside; nothing for a plain box.
    pub(super) fn joined(&self, of: &Use, part: PartId) -> Vec<Act> {
        let mut acts = Vec::new();
        if self.is_joined() {
            acts.push(Act::tape(
                part,
                &[StripId::AlongEachLapOutside, StripId::AlongTheLapInside],
                "Join the parts: lay each lap outside the next part, the edge of that part just past the lap's score, and tape along the lap outside and inside.",
            ));
        }
        acts.extend(self.doubled(of, part));
        acts
    }

    /// Sheets that are glued inside.
    fn doubled(&self, of: &Use, part: PartId) -> Vec<Act> {
        if !self.doubled {
            return Vec::new();
        }
        let BoxSize { length, width, .. } = self.size();
        let sheet = of.telling.sides(&[length, width]);
        vec![
            Act::on(
                Does::Glue,
                PartId::SheetGluedInside,
                format!(
                    "Roll white glue thin over the whole of two sheets of {sheet}. Press one on the inside of the front, the other on the inside of the back."
                ),
            )
            .to(part),
            Act::on(
                Does::Look,
                part,
                format!(
                    "Weigh both down flat, and leave them for {} minutes.",
                    GLUE_HOLDS.as_min()
                ),
            )
            .waiting(GLUE_HOLDS),
        ]
    }

    fn slotted(&self, of: &Use, opens: Opens) -> Container {
        let part = of.part(PartId::Box);
        let net = self.net(&self.blank);
        let mut made = self.joined(of, part);
        made.extend([
            Act::on(
                Does::Score,
                part,
                "Score it along the dashed lines; never cut it through.",
            ),
            Act::on(Does::Fold, part, "Fold it to a ring, its tab outside.")
                .folding_to(folds::WALLS)
                .seen(net.seen(folds::WALLS, Up::Inside)),
            Act::tape(
                part,
                &[StripId::AlongTheJoint],
                "Tape the joint outside, along its whole length.",
            ),
        ]);
        let more_parts = Vec::from_iter(self.doubled.then_some(PartId::SheetGluedInside));
        Slotted {
            part,
            opens,
            inside: [self.inside_length, self.inside_width, self.inside_height],
            strips: self.seal.clone(),
            net: Some(net),
            made,
            more_parts,
        }
        .container(of)
    }
}
