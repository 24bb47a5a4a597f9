//! Two halves, closed at one end each, that slide over each other: cut from board, or bought.

use super::{
    Carton, Container, Opening, SealStrip, Titles, Use, WayIn,
    folding::{Net, Up},
    picture::{Body, Scene, Side},
    seal_after, sealing, those,
};
use crate::{
    act::{Act, Does, MovePicture, Pose, Thing, Until},
    carton::folds::ring as folds,
    part::{PartId, StripId},
    quantity::Length,
    text::capital,
};

const ENDS: [StripId; 2] = [StripId::OverEachClosedEnd, StripId::OverItsEnds];

/// A telescope as its acts need it.
pub(super) struct Halves<'a> {
    /// How long it is inside, across, and through.
    pub inside: [Length; 3],
    /// Each half.
    pub half: Length,
    /// Every strip on it.
    pub strips: Vec<SealStrip>,
    /// What each half is folded from, where it is cut from board; else its joints are closed already.
    pub net: Option<Net<'a>>,
    /// What is glued to it before it is scored.
    pub doubled: Vec<Act>,
}

impl Halves<'_> {
    /// One half that stands, and what slides into it; or the other half above it.
    fn drawn(&self, closing: bool) -> MovePicture {
        let [long, across, through] = self.inside.map(Length::as_mm);
        let half = self.half.as_mm();
        let lower = Body::part([0.0; 3], [across, half, through], &Side::Top.all_but());
        let gap = across * 0.04;
        let lifted = if closing { 0.0 } else { half * 0.6 };
        let goods = Body::goods(
            [gap, lifted + gap, through * 0.15],
            [across - gap, lifted + long - gap, through * 0.85],
        );
        let middle = [across / 2.0, 0.0, 0.0];
        let arrow = |from: f64, to: f64| [[middle[0], from, 0.0], [middle[0], to, 0.0]];
        if closing {
            let low = long - half + half * 0.5;
            let upper = Body::part(
                [0.0, low, 0.0],
                [across, low + half, through],
                &Side::Bottom.all_but(),
            );
            let [from, to] = arrow(low, low - half * 0.4);
            Scene::of([lower, goods, upper]).moving(from, to).drawn()
        } else {
            let [from, to] = arrow(lifted + gap, lifted * 0.3);
            Scene::of([lower, goods]).moving(from, to).drawn()
        }
    }

    pub(super) fn container(self, of: &Use) -> Container {
        let (inner, outer) = (of.part(PartId::InnerHalf), of.part(PartId::OuterHalf));
        let (what, face) = (of.what, of.face);
        let mut ready = self.doubled.clone();
        if let Some(net) = self.net {
            ready.extend([
                Act::on(
                    Does::Score,
                    inner,
                    "Score both halves along the dashed lines; never cut them through.",
                )
                .to(outer),
                Act::on(Does::Fold, inner, "Fold each to a ring, its tab outside.")
                    .to(outer)
                    .folding_to(folds::WALLS)
                    .seen(net.seen(folds::WALLS, Up::Inside)),
                Act::tape(
                    inner,
                    &[StripId::AlongTheJoints],
                    "Tape both joints outside, along their whole length.",
                )
                .to(outer),
            ]);
        } else {
            ready.push(Act::on(Does::Fold, inner, "Open both halves out to rings.").to(outer));
        }
        ready.extend([
            Act::on(
                Does::Fold,
                inner,
                "Close one end of each half: fold the short flaps in, then the long ones over them.",
            )
            .to(outer)
            .folding_to(folds::FLOOR)
            .seen_if(self.net.map(|net| net.seen(folds::FLOOR, Up::LowerEdge))),
            Act::tape(
                inner,
                &ENDS,
                "Tape each closed end in an H: along its seam, then over both its ends.",
            )
            .to(outer),
        ]);
        let wall = if self.net.is_some() {
            "the wall without the joint"
        } else {
            "the front wall"
        };
        let load = if of.too_heavy_over(self.half) {
            vec![
                Act::on(
                    Does::Stand,
                    inner,
                    format!("Lay the {inner} on its long edge, its opening level with the bench."),
                ),
                Act::goods(
                    Does::Slide,
                    inner,
                    format!(
                        "Push {what} in upright, on its long edge on a sheet of card, {face} toward {wall}."
                    ),
                )
                .lying(Pose::Standing).lifting(of.over(Length::ZERO)),
            ]
        } else {
            vec![
                Act::on(
                    Does::Stand,
                    inner,
                    format!("Stand the {inner} on its closed end."),
                ),
                Act::goods(
                    Does::Slide,
                    inner,
                    format!("Slide {what} in, {face} toward {wall}, down to the floor."),
                )
                .lying(Pose::Standing)
                .lifting(of.over(self.half))
                .seen(self.drawn(false)),
            ]
        };
        let joints = if self.net.is_some() {
            ", both joints on one side"
        } else {
            ""
        };
        let close = vec![
            Act::on(
                Does::Push,
                outer,
                format!(
                    "Set the {outer} over the {inner}{joints}, and push it on until it presses on the fill."
                ),
            )
            .to(inner)
            .until(Until::Presses)
            .seen(self.drawn(true)),
            Act::on(
                Does::Look,
                outer,
                format!(
                    "Measure how long it is outside now: {} is planned, and the prices follow what you find.",
                    of.length(of.outside_long)
                ),
            ),
        ];
        let mut seal = vec![
            Act::tape(
                outer,
                &[StripId::AroundWhereTheHalvesMeet],
                "Go twice round where the halves meet, half of each strip on either one.",
            )
            .to(inner),
        ];
        seal.extend(seal_after(of, outer, &self.strips));
        let joints = those(&self.strips, &[StripId::AlongTheJoints]);
        Container {
            parts: vec![inner, outer],
            openings: vec![
                Opening {
                    sealed_by: [ENDS.to_vec(), joints].concat(),
                    loads: false,
                },
                Opening {
                    sealed_by: vec![StripId::AroundWhereTheHalvesMeet],
                    loads: true,
                },
            ],
            way_in: WayIn::Halves,
            mouth: Some([self.inside[1], self.inside[2]]),
            stages: Vec::new(),
            all_at_once: false,
            follows: None,
            measured: true,
            lid: "the outer half",
            titles: Titles {
                ready: capital(of.part(PartId::Box).name()),
                load: format!("Slide {what} in"),
                close: "Push the halves together".to_owned(),
                seal: sealing(of.part(PartId::Box)),
                open: capital(of.part(PartId::Box).name()),
            },
            ready,
            load,
            close,
            seal,
            open: vec![
                Act::cut_open(
                    outer,
                    &[StripId::AroundWhereTheHalvesMeet],
                    "Lay it flat. Slit the tape all round where the halves meet, no deeper than the tape.",
                ),
                Act::on(Does::Slide, outer, "Pull the outer half off.").to(inner),
                Act::new(
                    Does::Slide,
                    Thing::Goods,
                    "Slide out what is inside: don't pull at a wrap.",
                ),
            ],
            strips: self.strips,
        }
    }
}

impl Carton {
    pub(super) fn telescope(&self, of: &Use) -> Container {
        let half = self.size().telescope().half();
        let inner = self
            .more_parts
            .first()
            .map_or(&self.blank, |part| &part.blank);
        let mut container = Halves {
            inside: [self.inside_length, self.inside_width, self.inside_height],
            half,
            strips: self.seal.clone(),
            net: Some(self.net(inner)),
            doubled: self.joined(of, of.part(PartId::InnerHalf)),
        }
        .container(of);
        if self.doubled {
            container.parts.push(PartId::SheetGluedInside);
        }
        container
    }
}
