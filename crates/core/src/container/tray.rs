//! A tray with a lid on it: a flat one, or a shallow tray.

use super::{
    BoxPlace, Carton, Container, Opening, Titles, Use, WayIn,
    folding::Up,
    picture::{Body, Scene, Side},
    seal_after, sealing,
};
use crate::{
    act::{Act, Does, MovePicture, Pose, Thing, Until},
    carton::{LID_PLAY, folds::tray::WALLS},
    house::CartonStyle,
    part::{PartId, StripId},
    quantity::Length,
    text::capital,
};

/// A tray that lies, and what is laid into it.
pub(super) fn lying([long, short, through]: [Length; 3]) -> MovePicture {
    let [x, y, z] = [long, through, short].map(Length::as_mm);
    let gap = x * 0.03;
    let goods = Body::goods([gap, y * 1.6, gap], [x - gap, y * 2.3, z - gap]);
    Scene::of([Body::part([0.0; 3], [x, y, z], &Side::Top.all_but()), goods])
        .moving([x / 2.0, y * 1.6, z / 2.0], [x / 2.0, y * 1.05, z / 2.0])
        .drawn()
}

/// A lid, or a second tray, over a tray.
pub(super) fn covered([long, short, through]: [Length; 3], lid: Length) -> MovePicture {
    let [x, y, z] = [long, through, short].map(Length::as_mm);
    let deep = lid.as_mm().max(y * 0.05);
    let lid = Body::part(
        [0.0, y * 1.6, 0.0],
        [x, y * 1.6 + deep, z],
        &Side::Bottom.all_but(),
    );
    Scene::of([Body::part([0.0; 3], [x, y, z], &Side::Top.all_but()), lid])
        .moving([x / 2.0, y * 1.6, 0.0], [x / 2.0, y * 1.05, 0.0])
        .drawn()
}

impl Carton {
    /// How a lid is cut to its tray.
    fn measured_lid(&self, of: &Use) -> String {
        let meets = if self.style == CartonStyle::TrayAndTray {
            format!("inside, the lid is {} larger each way", of.length(LID_PLAY))
        } else {
            "the lid ends with its walls".to_owned()
        };
        format!(
            "Measure the folded tray outside, both ways: {meets}. What is listed here is by the sums; where the tray came out otherwise, follow the tray."
        )
    }

    pub(super) fn tray(&self, of: &Use) -> Container {
        let (tray, lid) = (of.part(PartId::Tray), of.part(PartId::Lid));
        let (what, face) = (of.what, of.face);
        let walled = self.style == CartonStyle::TrayAndTray;
        let (corners, around) = if walled {
            (StripId::AtTheTraysCorners, StripId::AroundTheLidsEdge)
        } else {
            (StripId::AtTheCorners, StripId::AroundTheLid)
        };
        let sides = [self.inside_length, self.inside_width, self.inside_height];
        let net = self.net(&self.blank);
        let mut ready = self.joined(of, tray);
        if self.style == CartonStyle::SlitTray {
            ready.push(Act::on(
                Does::Cut,
                tray,
                "Slit the tray half through along the dashed lines, from outside.",
            ));
            ready.push(
                Act::on(
                    Does::Fold,
                    tray,
                    "Fold its four walls up at the inner skin.",
                )
                .folding_to(WALLS)
                .seen(net.seen(WALLS, Up::Inside)),
            );
        } else {
            ready.push(Act::on(
                Does::Score,
                tray,
                "Score the tray along the dashed lines; never cut it through.",
            ));
            ready.push(
                Act::on(Does::Fold, tray, "Fold its four walls up.")
                    .folding_to(WALLS)
                    .seen(net.seen(WALLS, Up::Inside)),
            );
        }
        ready.push(Act::tape(tray, &[corners], "Tape its four corners."));
        let close = if walled {
            vec![
                Act::on(
                    Does::Fold,
                    lid,
                    "Score the lid along the dashed lines, and fold its four walls up.",
                )
                .folding_to(WALLS),
                Act::tape(
                    lid,
                    &[StripId::AtTheLidsCorners],
                    "Tape the lid's four corners.",
                ),
                Act::on(
                    Does::Lay,
                    lid,
                    "Set the lid over the tray, down to its stop.",
                )
                .to(tray)
                .until(Until::Stop)
                .seen(covered(sides, self.inside_height / 2.0)),
            ]
        } else {
            vec![
                Act::on(
                    Does::Lay,
                    lid,
                    "Lay the lid on all four walls, its edges in line with theirs.",
                )
                .to(tray)
                .seen(covered(sides, Length::ZERO)),
            ]
        };
        let mut seal = vec![Act::tape(
            lid,
            &[around],
            "Tape the lid to the tray along all four of its edges.",
        )];
        seal.extend(seal_after(of, tray, &self.seal));
        let doubled = self.doubled.then_some(PartId::SheetGluedInside);
        Container {
            parts: [tray, lid].into_iter().chain(doubled).collect(),
            strips: self.seal.clone(),
            openings: vec![
                Opening {
                    sealed_by: vec![corners],
                    loads: false,
                },
                Opening {
                    sealed_by: vec![around],
                    loads: true,
                },
            ],
            way_in: WayIn::Face,
            mouth: Some([self.inside_length, self.inside_width]),
            stages: Vec::new(),
            all_at_once: false,
            follows: Some(self.measured_lid(of)),
            measured: false,
            lid: "the lid",
            titles: Titles {
                ready: capital(tray.name()),
                load: format!("Lay {what} in"),
                close: "Put the lid on".to_owned(),
                seal: sealing(of.part(PartId::Box)),
                open: match of.place {
                    BoxPlace::Only => "Box".to_owned(),
                    BoxPlace::Inner | BoxPlace::Outer => capital(of.part(PartId::Box).name()),
                },
            },
            ready,
            load: vec![
                Act::goods(
                    Does::Lay,
                    tray,
                    format!("Lay {what} in, {face} up, with the same gap on all four sides."),
                )
                .lying(Pose::FaceUp)
                .lifting(of.over(sides[2]))
                .seen(lying(sides)),
            ],
            close,
            seal,
            open: vec![
                Act::cut_open(
                    lid,
                    &[around],
                    "Slit the tape around the lid's edge on all four sides, no deeper than the tape.",
                ),
                Act::on(Does::Lift, lid, "Lift the lid straight up."),
                Act::new(
                    Does::Lift,
                    Thing::Goods,
                    "Lift out what is inside with both hands.",
                ),
            ],
        }
    }
}
