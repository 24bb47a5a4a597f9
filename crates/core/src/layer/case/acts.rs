//! The travel case: a frame of battens between two faces, built joint by joint, loaded lying, screwed shut, and used again.

use super::{BUTT_EVERY, Joins, Joint, PLATE_EVERY, TravelCase};
use crate::{
    act::{Act, Does, Pose, Thing},
    container::{Container, GLUE_HOLDS, Opening, ReadyStage, Titles, Use, WayIn},
    part::PartId,
    text::number,
};

/// How many, as a person counts.
fn counted(count: u32) -> String {
    if count == 1 {
        "one".to_owned()
    } else {
        number(count)
    }
}

impl TravelCase {
    /// The act of driving the screws of a joint, with how one of them sits.
    fn driven(&self, joins: Joins, part: PartId, says: String) -> Act {
        let joint = self.joint(joins);
        Act::on(Does::Screw, part, says)
            .driving(joint.map(Joint::driven))
            .seen_if(joint.map(Joint::picture))
    }

    /// The screws of a joint, how they are shared out, and the hole for each; empty where it has none.
    fn screws(&self, joins: Joins, shared: &str, of: &Use) -> String {
        self.joint(joins).map_or_else(String::new, |joint| {
            let side = if joint.from_inside {
                "inside"
            } else {
                "outside"
            };
            format!(
                "{} screws of {}{shared}, from {side}; holes of {}, the drill's stop at {}",
                joint.count,
                of.length(joint.screw),
                of.telling.tool(joint.drill),
                of.length(joint.stop)
            )
        })
    }

    /// Gluing two battens to one, and what else makes the sides as long and as high as they are.
    fn sides(&self, of: &Use) -> Vec<Act> {
        let (long, short) = (PartId::LongSideOfTheFrame, PartId::ShortSideOfTheFrame);
        let mut acts = Vec::new();
        if let [high, low] = self.heights_mm.as_slice() {
            acts.push(
                Act::on(
                    Does::Glue,
                    long,
                    format!(
                        "Glue each batten of {} edge to edge on one of {}: white glue thin on both edges, faces flush. Clamp them, and leave them for {} minutes.",
                        of.length(*low),
                        of.length(*high),
                        GLUE_HOLDS.as_min()
                    ),
                )
                .to(short)
                .waiting(GLUE_HOLDS),
            );
            acts.push(
                self.driven(
                    Joins::Plate,
                    PartId::FlatPlate,
                    format!(
                        "Screw plates across the glued joint, on the inside, evenly and no more than {} apart: {}.",
                        of.length(PLATE_EVERY),
                        self.screws(Joins::Plate, "", of)
                    ),
                )
                .to(long),
            );
        }
        if self.joint(Joins::Cleat).is_some() {
            acts.push(
                self.driven(
                    Joins::Cleat,
                    PartId::Cleat,
                    format!(
                        "Butt the lengths of each side that is joined, and screw a cleat over the joint, on the inside: {}.",
                        self.screws(Joins::Cleat, "", of)
                    ),
                )
                .to(long),
            );
        }
        acts
    }

    /// The frame, square, with what is screwed to it from inside.
    fn frame(&self, of: &Use) -> Vec<Act> {
        let (long, short) = (PartId::LongSideOfTheFrame, PartId::ShortSideOfTheFrame);
        let mut acts = vec![
            Act::on(
                Does::Stand,
                long,
                "Set the frame up on edge, its short sides between the long ones.",
            )
            .to(short),
            self.driven(
                Joins::Corner,
                long,
                format!(
                    "Screw each corner through the long side: {}.",
                    self.screws(Joins::Corner, ", two each", of)
                ),
            )
            .to(short),
            Act::on(
                Does::Look,
                long,
                "Measure both diagonals, and push the frame square until they are one length.",
            ),
            self.driven(
                Joins::Brace,
                PartId::CornerBrace,
                format!(
                    "Screw a brace into each corner: {}.",
                    self.screws(Joins::Brace, "", of)
                ),
            )
            .to(long),
        ];
        if self.joint(Joins::Foot).is_some() {
            acts.push(
                self.driven(
                    Joins::Foot,
                    PartId::Foot,
                    format!(
                        "Screw {} feet below one long side, a hand from its ends: {}. The case stands on it.",
                        counted(self.feet),
                        self.screws(Joins::Foot, ", two each", of)
                    ),
                )
                .to(long),
            );
        }
        if self.joint(Joins::Handle).is_some() {
            acts.push(
                self.driven(
                    Joins::Handle,
                    PartId::Handle,
                    format!(
                        "Screw a handle on each short side, above its middle: {}.",
                        self.screws(Joins::Handle, ", four each", of)
                    ),
                )
                .to(short),
            );
        }
        acts
    }

    /// Both faces with the battens that lie flat across them, and the floor.
    fn faces(&self, of: &Use) -> Vec<Act> {
        let (face, batten) = (PartId::CaseFace, PartId::AcrossAFace);
        let mut acts = Vec::new();
        let butted = self.parts_of_a_face > 1;
        if self.middle > 0 {
            acts.push(
                Act::on(
                    Does::Lay,
                    batten,
                    if self.middle == 1 {
                        "For each face lay one batten flat on the bench, and the face across it, its inside up and its middle on the batten.".to_owned()
                    } else {
                        format!(
                            "For each face lay {} battens flat on the bench, {} from middle to middle, and the face on them, its inside up.",
                            number(self.middle),
                            of.length(self.face_mm[0] / f64::from(self.middle + 1))
                        )
                    },
                )
                .to(face),
            );
        }
        if butted {
            acts.push(
                self.driven(
                    Joins::Butt,
                    face,
                    format!(
                        "Butt the {} parts of each face over the middle of a batten, and screw both edges to it, no more than {} apart: {}.",
                        number(self.parts_of_a_face),
                        of.length(BUTT_EVERY),
                        self.screws(Joins::Butt, " for both faces", of)
                    ),
                )
                .to(batten),
            );
        }
        if self.joint(Joins::Batten).is_some() {
            let which = match (butted, self.middle) {
                (true, _) => "every other batten",
                (false, 1) => "its batten",
                (false, _) => "its battens",
            };
            acts.push(
                self.driven(
                    Joins::Batten,
                    face,
                    format!(
                        "Screw each face to {which}, from its middle outward: {}.",
                        self.screws(Joins::Batten, " for both faces", of)
                    ),
                )
                .to(batten),
            );
        }
        acts.extend([
            self.driven(
                Joins::Floor,
                face,
                format!(
                    "Lay one face on the frame, edges in line, and screw it down all round: {}. This is the floor.",
                    self.screws(Joins::Floor, "", of)
                ),
            )
            .to(PartId::LongSideOfTheFrame),
            Act::on(
                Does::Turn,
                face,
                "Turn it over. Lay the other face on, drill the holes of its screws likewise, and mark one corner of it and of the frame. Lift it off: this is the lid.",
            ),
        ]);
        acts
    }

    /// The lining, and what lies behind the piece within it.
    fn lined(&self, of: &Use) -> Vec<Act> {
        let mut acts = vec![
            Act::on(
                Does::Lay,
                PartId::LiningOfAFace,
                format!(
                    "Lay one sheet of the {} lining on the floor, then press in the strips of its four sides.",
                    of.length(self.lining)
                ),
            )
            .to(PartId::CaseFace),
        ];
        acts.extend(self.sheets(of, "frame"));
        acts.push(Act::on(
            Does::Write,
            PartId::CaseFace,
            "Write the studio's address inside the lid, by its marked corner: the case comes back to it, and a label for its way back goes beside it.",
        ));
        acts.push(Act::on(
            Does::Look,
            PartId::CaseFace,
            format!(
                "Weigh the case empty, with its lid, lining and every screw, and write down what it reads: about {} is expected.",
                of.telling.mass(self.empty)
            ),
        ));
        acts
    }

    /// The sheets that fill what is deeper, and what is wider, than what it holds.
    fn sheets(&self, of: &Use, deeper: &str) -> Vec<Act> {
        let mut acts = Vec::new();
        if self.sheets_beside {
            acts.push(
                Act::on(
                    Does::Lay,
                    PartId::SheetBeside,
                    "Stand the sheets for the sides up along the lining: those across both ends first, then the others between them.",
                )
                .to(PartId::LiningOfAFace),
            );
        }
        if self.sheets_behind {
            acts.push(
                Act::on(
                    Does::Lay,
                    PartId::SheetBehind,
                    format!(
                        "Lay the sheets of {} on it, within the side lining: the {deeper} is {} deeper than what it holds.",
                        of.telling.sides(&self.sheet_mm),
                        of.length(self.deeper)
                    ),
                )
                .to(PartId::LiningOfAFace),
            );
        }
        acts
    }

    /// Making a case ready that was built before.
    fn looked_over(&self, of: &Use) -> Vec<Act> {
        let look = Act::on(
            Does::Look,
            PartId::TravelCase,
            format!(
                "Lay the case on its floor, and take its lid off. The lining is whole and dry, no hole is torn out, and all {} screws are there.",
                self.lid_screws
            ),
        );
        let turned = Act::on(
            Does::Write,
            PartId::TravelCase,
            "Take the labels of its last journey off, or cover them.",
        );
        [vec![look, turned], self.sheets(of, "case")].concat()
    }

    /// Building it, parted into the steps that a bench takes.
    fn staged(&self, of: &Use) -> (Vec<Act>, Vec<ReadyStage>) {
        let stages = [
            ("sides", "Join the sides of the frame", self.sides(of)),
            ("frame", "Screw the frame together", self.frame(of)),
            ("faces", "Screw the faces on", self.faces(of)),
        ];
        let parted = stages.iter().filter(|(.., acts)| !acts.is_empty());
        let parted = parted.map(|(key, title, acts)| ReadyStage {
            key,
            title,
            acts: acts.len(),
        });
        let parted = parted.collect();
        let acts = stages.into_iter().flat_map(|(.., acts)| acts);
        (acts.chain(self.lined(of)).collect(), parted)
    }

    /// Returns it as hands build, load, close and open it.
    #[must_use]
    pub fn container(&self, of: &Use) -> Container {
        let face = PartId::CaseFace;
        let (ready, stages) = if self.kept {
            (self.looked_over(of), Vec::new())
        } else {
            self.staged(of)
        };
        let mut parts = if self.kept {
            vec![PartId::TravelCase]
        } else {
            vec![
                face,
                PartId::LongSideOfTheFrame,
                PartId::ShortSideOfTheFrame,
                PartId::LiningOfAFace,
            ]
        };
        parts.extend((self.middle > 0).then_some(PartId::AcrossAFace));
        parts.extend(self.sheets_beside.then_some(PartId::SheetBeside));
        parts.extend(self.sheets_behind.then_some(PartId::SheetBehind));
        let lid = match self.joint(Joins::Lid) {
            Some(joint) => format!("{} screws of {}", joint.count, of.length(joint.screw)),
            None => format!("{} screws", self.lid_screws),
        };
        Container {
            parts,
            strips: Vec::new(),
            openings: vec![Opening {
                sealed_by: Vec::new(),
                loads: true,
            }],
            way_in: WayIn::Face,
            mouth: Some(
                [self.inside_mm[0], self.inside_mm[1]].map(|side| side - self.lining * 2.0),
            ),
            stages,
            all_at_once: false,
            follows: None,
            measured: false,
            lid: "the lid",
            titles: Titles {
                ready: if self.kept {
                    "Make the case ready"
                } else {
                    "Line the case, and weigh it"
                }
                .to_owned(),
                load: format!("Lay {} in", of.what),
                close: "Screw the lid on".to_owned(),
                seal: String::new(),
                open: "Travel case".to_owned(),
            },
            ready,
            load: vec![Act::goods(
                Does::Lay,
                face,
                format!(
                    "With the case lying on its floor, lay {} in from above, {} up, with the same gap on all four sides.",
                    of.what, of.face
                ),
            )
            .lying(Pose::FaceUp).lifting(of.over(self.inside_mm[2]))],
            close: vec![
                Act::on(
                    Does::Lay,
                    PartId::LiningOfAFace,
                    "Lay the last sheet of the lining over it, out to the frame.",
                ),
                Act::on(
                    Does::Lay,
                    face,
                    "Set the lid on by its marked corner, its edges in line with the frame.",
                ),
                self.driven(
                    Joins::Lid,
                    face,
                    format!(
                        "Drive a screw into every hole, from one corner round, without forcing any: {lid}. None is left out."
                    ),
                ),
                Act::on(
                    Does::Write,
                    face,
                    "Write by the lid's edge: screws here, keep the screws, it comes back.",
                ),
            ],
            seal: Vec::new(),
            open: vec![
                Act::on(
                    Does::Lift,
                    face,
                    "Lay it on its back. Undo the screws of the lid, and only those, and keep them in the case: it comes back.",
                ),
                Act::on(Does::Lift, face, "Lift the lid straight up."),
                Act::new(
                    Does::Lift,
                    Thing::Goods,
                    "Take the sheet of lining off, and lift out what is inside with both hands.",
                ),
            ],
        }
    }
}
