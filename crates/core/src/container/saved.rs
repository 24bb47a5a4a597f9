//! A carton that the studio has kept: as it is, cut down, with a sleeve, made shorter in halves, joined to a second one, inside out.

use serde::Serialize;

use super::{
    Container, SealStrip, Use,
    picture::{Body, Scene, Side},
    slotted::Slotted,
};
use crate::{
    act::{Act, Does, MovePicture, Until},
    carton::{Blank, DepthCut, LengthCut, LengthJoin},
    house::SavedFace,
    part::{PartId, StripId},
    quantity::Length,
    space::Opens,
};

/// A carton that the studio has, made into a box for a piece.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SavedBox {
    /// On which side it opens.
    pub opens: Opens,
    /// Inside as it was, along its opening, across it, and deep.
    pub carton_mm: [Length; 3],
    /// Inside as it is now, along its opening, across it, and deep.
    pub inside_mm: [Length; 3],
    /// Of its board.
    #[serde(rename = "caliper_mm")]
    pub caliper: Length,
    /// Where it is scored anew, where it is cut down.
    pub cut: Option<DepthCut>,
    /// How it is cut round and pushed together again, where it is made shorter.
    pub shorter: Option<LengthCut>,
    /// Which of its faces is outside.
    pub face: SavedFace,
    /// The sleeve that makes it deeper.
    pub sleeve: Option<Blank>,
    /// Its blank as it is folded now.
    pub blank: Blank,
    /// The second carton that it is pushed into, or that is pushed into it, where it alone is too short.
    pub second: Option<Box<SecondCarton>>,
    /// How it is sealed, strip by strip, in the order in which they are laid; its own joint holds.
    pub seal: Vec<SealStrip>,
}

/// A second carton that the studio has, which the first is joined to.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SecondCarton {
    /// Inside as it was, along its opening, across it, and deep.
    pub carton_mm: [Length; 3],
    /// Where it is scored anew, where it is cut down.
    pub cut: Option<DepthCut>,
    /// How the two are joined.
    pub join: LengthJoin,
    /// Its blank as it is folded now, with the end that is cut off.
    pub blank: Blank,
}

impl SavedBox {
    /// Returns it as hands make, load, close and open it.
    #[must_use]
    pub fn container(&self, of: &Use) -> Container {
        let mut made = vec![Act::on(
            Does::Look,
            PartId::Carton,
            "Unfold the carton and look it over: no corner crushed, no wall torn, nothing damp.",
        )];
        made.extend(self.turned());
        let second = self.second.as_deref();
        let names = match second {
            Some(_) => ["first carton", "second carton"],
            None => ["carton", ""],
        };
        made.extend(cut_down(of, PartId::Carton, names[0], self.cut.as_ref()));
        if let Some(cut) = &self.shorter {
            made.extend(self.shortened(of, cut));
        }
        if self.sleeve.is_some() {
            made.extend(self.sleeved(of));
        }
        if let Some(second) = second {
            let its = second.cut.as_ref();
            made.extend(cut_down(of, PartId::SecondCarton, names[1], its));
            made.extend(self.joined(of, &second.join));
        }
        // Inside out, the old marks are read no more.
        if self.face == SavedFace::AsItWas {
            made.push(Act::on(
                Does::Write,
                PartId::Carton,
                "Cross out or cover every old mark, address and code.",
            ));
        }
        let mut more_parts = Vec::new();
        more_parts.extend(self.sleeve.is_some().then_some(PartId::Sleeve));
        let patched = self.shorter.as_ref().is_some_and(|cut| cut.patch.is_some());
        more_parts.extend(patched.then_some(PartId::Patch));
        more_parts.extend(second.map(|_| PartId::SecondCarton));
        Slotted {
            part: PartId::Carton,
            opens: self.opens,
            inside: self.opens.around_art(self.inside_mm),
            strips: self.seal.clone(),
            net: None,
            made,
            more_parts,
        }
        .container(of)
    }

    /// Its joint is opened, and it is folded the other way round.
    fn turned(&self) -> Vec<Act> {
        if self.face == SavedFace::AsItWas {
            return Vec::new();
        }
        let part = PartId::Carton;
        vec![
            Act::on(
                Does::Cut,
                part,
                "Slit its joint along the whole length, and lay it open with the printed side up.",
            ),
            Act::on(
                Does::Turn,
                part,
                "Fold every score the other way, so that the print is inside.",
            ),
            Act::tape(
                part,
                &[StripId::AlongTheNewJoint],
                "Bring the joint together and tape it along its whole length, outside and inside.",
            ),
        ]
    }

    fn shortened(&self, of: &Use, cut: &LengthCut) -> Vec<Act> {
        let part = PartId::Carton;
        let mut acts = vec![Act::on(
            Does::Cut,
            part,
            if cut.take_out > Length::ZERO {
                format!(
                    "Cut it round twice, across its length and {} apart, and take that ring out.",
                    of.length(cut.take_out)
                )
            } else {
                "Cut it round once, across its length.".to_owned()
            },
        )];
        if let (Some(tongue), Some(trim)) = (cut.tongue, cut.trim) {
            acts.extend([
                Act::on(
                    Does::Cut,
                    part,
                    format!(
                        "Slit the four edges of one half {} back from the cut, and trim each tongue by {} at both sides.",
                        of.length(tongue),
                        of.length(trim)
                    ),
                ),
                Act::on(
                    Does::Push,
                    part,
                    format!(
                        "Push the tongues into the other half until it is {} long inside.",
                        of.length(cut.inside[0])
                    ),
                )
                .until(Until::Measures {
                    inside_mm: cut.inside[0],
                })
                .seen(self.two_halves(tongue)),
                Act::tape(
                    part,
                    &[StripId::AroundWhatWasCutAndJoined],
                    "Tape all round the edge where they meet.",
                ),
            ]);
        } else {
            let wide = cut.patch.unwrap_or(Length::ZERO);
            acts.extend([
                Act::on(
                    Does::Push,
                    part,
                    "Push the two halves together, edge to edge.",
                ),
                Act::on(
                    Does::Fold,
                    PartId::Patch,
                    format!(
                        "Fold the patch, {} wide, around the joint outside.",
                        of.length(wide)
                    ),
                )
                .to(part),
                Act::tape(
                    PartId::Patch,
                    &[StripId::AroundWhatWasCutAndJoined],
                    "Tape it down all round.",
                )
                .to(part),
            ]);
        }
        acts
    }

    fn sleeved(&self, of: &Use) -> Vec<Act> {
        let (part, sleeve) = (PartId::Carton, PartId::Sleeve);
        let size = self
            .sleeve
            .as_ref()
            .map(|blank| of.telling.sides(&[blank.width, blank.height]))
            .unwrap_or_default();
        let deep = of.length(self.inside_mm[2]);
        vec![
            Act::on(
                Does::Cut,
                part,
                "Cut its four upper flaps off at their scores.",
            ),
            Act::on(
                Does::Fold,
                sleeve,
                format!(
                    "Score the {size} sleeve along the dashed lines, and fold it to a ring that fits inside."
                ),
            ),
            Act::on(
                Does::Push,
                sleeve,
                format!("Push it into the carton until it is {deep} deep inside under its flaps."),
            )
            .to(part)
            .until(Until::Measures {
                inside_mm: self.inside_mm[2],
            })
            .seen(self.with_sleeve()),
            Act::tape(
                sleeve,
                &[StripId::AroundWhatWasCutAndJoined],
                "Tape its upright joint, then all round the edge of the carton.",
            )
            .to(part),
        ]
    }

    fn joined(&self, of: &Use, join: &LengthJoin) -> Vec<Act> {
        let (first, second) = (PartId::Carton, PartId::SecondCarton);
        let ((inner, inner_name), (outer, outer_name)) = if join.second_outside {
            ((first, "first"), (second, "second"))
        } else {
            ((second, "second"), (first, "first"))
        };
        let mut acts = vec![
            Act::on(
                Does::Cut,
                first,
                "Cut one short end off each carton at its scores.",
            )
            .to(second),
        ];
        if join.take_off > Length::ZERO {
            acts.push(Act::on(
                Does::Cut,
                inner,
                format!(
                    "Cut {} more off the open end of the {inner_name}.",
                    of.length(join.take_off)
                ),
            ));
        }
        let long = of.length(join.inside[0]);
        let pushed = match (join.tongue, join.trim) {
            (Some(tongue), Some(trim)) => {
                acts.push(Act::on(
                    Does::Cut,
                    inner,
                    format!(
                        "Slit the four edges of the {inner_name} {} back from its open end, and trim each tongue by {} at both sides.",
                        of.length(tongue),
                        of.length(trim)
                    ),
                ));
                format!("Push the tongues into the {outer_name} until it is {long} long inside.")
            }
            _ => format!(
                "Push the {inner_name} into the {outer_name} until it is {long} long inside."
            ),
        };
        acts.extend([
            Act::on(Does::Push, inner, pushed)
                .to(outer)
                .until(Until::Laps { lap_mm: join.lap })
                .seen(self.two_halves(join.lap)),
            Act::tape(
                outer,
                &[StripId::AroundWhatWasCutAndJoined],
                "Tape all round the edge where they meet.",
            )
            .to(inner),
        ]);
        acts
    }

    /// Two open halves that lie on the bench, one on its way into the other.
    fn two_halves(&self, lap: Length) -> MovePicture {
        let [long, across, deep] = self.inside_mm.map(Length::as_mm);
        let lap = lap.as_mm();
        let off = long * 0.25;
        let half = f64::midpoint(long, lap);
        let thin = deep * 0.04;
        let left = Body::part(
            [0.0, thin, thin],
            [half, deep - thin, across - thin],
            &Side::Right.all_but(),
        );
        let right = Body::part(
            [long - half + off, 0.0, 0.0],
            [long + off, deep, across],
            &Side::Left.all_but(),
        );
        Scene::of([left, right])
            .moving(
                [long + off * 0.7, deep * 1.35, 0.0],
                [long + off * 0.1, deep * 1.35, 0.0],
            )
            .drawn()
    }

    /// The sleeve on its way into the carton, from above.
    fn with_sleeve(&self) -> MovePicture {
        let [long, across, _] = self.inside_mm.map(Length::as_mm);
        let own = self.carton_mm[2].as_mm();
        let deep = self.inside_mm[2].as_mm();
        let ring = [Side::Left, Side::Right, Side::Front, Side::Back];
        let tray = Side::Top.all_but();
        let thin = across * 0.02;
        let lifted = own * 1.15;
        let sleeve = Body::part(
            [thin, lifted, thin],
            [long - thin, lifted + deep - own + 80.0, across - thin],
            &ring,
        );
        Scene::of([Body::part([0.0; 3], [long, own, across], &tray), sleeve])
            .moving(
                [long / 2.0, lifted + (deep - own), 0.0],
                [long / 2.0, lifted * 0.95, 0.0],
            )
            .drawn()
    }
}

/// New scores below the old ones, slots down to them, and flaps trimmed.
fn cut_down(of: &Use, part: PartId, name: &str, cut: Option<&DepthCut>) -> Vec<Act> {
    let Some(cut) = cut else {
        return Vec::new();
    };
    vec![
        Act::on(
            Does::Score,
            part,
            format!(
                "Score all four walls of the {name} {} below the upper scores.",
                of.length(cut.below)
            ),
        ),
        Act::on(
            Does::Cut,
            part,
            format!(
                "Cut the slots at its corners, {} wide, down to the new scores.",
                of.length(cut.slot)
            ),
        ),
        Act::on(
            Does::Cut,
            part,
            if cut.inner_flap < cut.flap {
                format!(
                    "Trim its long flaps to {} and its short ones to {}.",
                    of.length(cut.flap),
                    of.length(cut.inner_flap)
                )
            } else {
                format!("Trim its four upper flaps to {}.", of.length(cut.flap))
            },
        ),
    ]
}
