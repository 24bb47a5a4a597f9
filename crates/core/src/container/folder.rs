//! A folder: one blank that is folded around what lies on it.

use super::{Carton, Container, Opening, Titles, Use, WayIn, folding::Up, seal_after, sealing};
use crate::{
    act::{Act, Does, Pose, Thing},
    carton::{
        Folder,
        folds::folder::{SIDES, TUCKS},
    },
    house::CartonStyle,
    part::{PartId, StripId},
    text::capital,
};

const LIDS: [StripId; 2] = [StripId::OverTheMiddle, StripId::OverBothEnds];

impl Carton {
    pub(super) fn folder(&self, of: &Use) -> Container {
        let folder = of.part(PartId::Folder);
        let (what, face) = (of.what, of.face);
        let mut ready = self.joined(of, folder);
        ready.extend([
            Act::on(
                Does::Score,
                folder,
                "Score it along the dashed lines; never cut it through. Fold each score once and back.",
            ),
            Act::on(Does::Lay, folder, "Lay it open on the bench, its inside up."),
        ]);
        let net = self.net(&self.blank);
        let sides = if self.style == CartonStyle::FolderLapped {
            Folder::lapped(self.size())
        } else {
            Folder::meeting(self.size())
        };
        let room = sides.room();
        let seen = |step| net.seen_around(step, Up::Inside, Some(&room));
        // Where fill goes along the edges, the walls were folded up against it.
        let mut close = Vec::new();
        if !of.filled {
            close.extend([
                Act::on(
                    Does::Fold,
                    folder,
                    "Fold both ends up and their tucks in against it.",
                )
                .folding_to(TUCKS)
                .seen(seen(TUCKS)),
                Act::on(
                    Does::Fold,
                    folder,
                    "Fold both long walls up against the ends.",
                )
                .folding_to(SIDES)
                .seen(seen(SIDES)),
            ]);
        }
        let shut = self.blank.steps();
        close.push(
            Act::on(
                Does::Fold,
                folder,
                "Fold the lids over: they meet or lap behind the piece, and close without force.",
            )
            .folding_to(shut)
            .seen(seen(shut)),
        );
        let mut seal = vec![
            Act::tape(
                folder,
                &LIDS,
                "Tape the lids along the middle, then over both ends.",
            ),
            Act::tape(
                folder,
                &[StripId::AtTheCorners],
                "Tape the four upright corners.",
            ),
        ];
        seal.extend(seal_after(of, folder, &self.seal));
        let doubled = self.doubled.then_some(PartId::SheetGluedInside);
        Container {
            parts: std::iter::once(folder).chain(doubled).collect(),
            strips: self.seal.clone(),
            openings: vec![Opening {
                sealed_by: [LIDS.to_vec(), vec![StripId::AtTheCorners]].concat(),
                loads: true,
            }],
            way_in: WayIn::Blank,
            mouth: None,
            stages: Vec::new(),
            all_at_once: false,
            follows: None,
            measured: false,
            lid: "the lids",
            titles: Titles {
                ready: "Crease the folder".to_owned(),
                load: format!("Lay {what} on the blank"),
                close: if of.filled {
                    "Fold the lids over"
                } else {
                    "Fold it around"
                }
                .to_owned(),
                seal: sealing(of.part(PartId::Box)),
                open: capital(of.part(PartId::Box).name()),
            },
            ready,
            load: vec![
                Act::goods(
                    Does::Lay,
                    folder,
                    format!(
                        "Lay {what} on the middle of the base, {face} down: the lids then close behind, and no seam lies over the face."
                    ),
                )
                .lying(Pose::FaceDown)
                .seen(seen(0)),
            ],
            close,
            seal,
            open: vec![
                Act::cut_open(
                    folder,
                    &[LIDS[0], LIDS[1], StripId::AtTheCorners],
                    "Lay it face down. Slit the tape along the middle, over both ends and at the corners, no deeper than the tape.",
                ),
                Act::on(
                    Does::Fold,
                    folder,
                    "Fold the lids, the long walls and the ends open in turn.",
                ),
                Act::new(
                    Does::Lift,
                    Thing::Goods,
                    "Lift out what is inside with both hands.",
                ),
            ],
        }
    }
}
