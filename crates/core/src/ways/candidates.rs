//! What could be tried: choices that add protection, and choices that take some away.

use rust_decimal::prelude::ToPrimitive;

use crate::{
    cushion::drop_by,
    house::{BackBoard, Carriage, Choices, HouseRules, SchoolChoices, SealRule},
    layer::{FaceBoards, Family, LeftOut, Make, kind_of},
    material::{Board, Catalogue, Foam, MaterialId},
    piece::{Construction, Piece},
    plan::Plan,
    quantity::{ArealDensity, Length},
    shipment::{Commission, ShipmentInputs},
    space::LayerSlot,
};

/// One change that could be made. Of a family only the best is offered.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Candidate {
    pub family: Family,
    pub label: String,
    pub choices: Choices,
}

fn candidate(family: Family, label: impl Into<String>, choices: Choices) -> Candidate {
    Candidate {
        family,
        label: label.into(),
        choices,
    }
}

/// Nobody puts a heavier board in front of a picture to protect it.
const HEAVIEST_BOARD: ArealDensity = ArealDensity::g_m2(3000.0);

/// What the candidates are made from.
pub(super) struct Now<'a> {
    pub plan: &'a Plan,
    pub rules: &'a HouseRules,
    pub catalogue: &'a Catalogue,
    /// Whether it can't be replaced, or is worth so much that no board or box is taken from it.
    pub precious: bool,
    /// Whether glass, a mirror or bare paint lies behind the boards.
    pub bare: bool,
}

/// Of what is worth more than this no board and no box is taken away.
const PRECIOUS: f64 = 2000.0;

impl<'a> Now<'a> {
    pub(super) fn of(
        inputs: &ShipmentInputs,
        (commission, catalogue): (&'a Commission<'_>, &'a Catalogue),
        plan: &'a Plan,
    ) -> Self {
        let worth = inputs.worth().ok().flatten();
        let worth = worth.and_then(|worth| worth.to_f64());
        Self {
            plan,
            rules: &commission.rules,
            catalogue,
            precious: !plan.odds.is_replaceable() || worth.is_some_and(|worth| worth > PRECIOUS),
            bare: commission.pieces().into_iter().any(is_bare),
        }
    }
}

/// Tells whether glass, a mirror or paint lies bare behind the boards; sheets lie between the boards of their folio.
const fn is_bare(piece: &Piece) -> bool {
    match piece.construction {
        Construction::StretchedCanvas
        | Construction::CradledPanel
        | Construction::RigidBoard
        | Construction::PanelSet
        | Construction::FramedUnglazed
        | Construction::FramedUnderGlass
        | Construction::Mirror => true,
        Construction::FramedUnderAcrylic | Construction::LoosePaper | Construction::LooseCanvas => {
            false
        }
    }
}

impl Now<'_> {
    /// Tells whether a layer is there, around all or around any of several pieces.
    fn has(&self, slot: LayerSlot) -> bool {
        let pieces = self.plan.stack.iter().flat_map(|stack| &stack.pieces);
        let own = pieces.flat_map(|piece| &piece.layers);
        self.plan
            .layers
            .iter()
            .chain(own)
            .any(|layer| layer.slot == slot)
    }

    /// Tells whether a layer may be added, or left out where it is there.
    fn free(&self, slot: LayerSlot) -> bool {
        self.plan
            .slots
            .iter()
            .any(|state| state.slot == slot && state.free)
    }

    fn may_add(&self, slot: LayerSlot) -> bool {
        self.free(slot) && !self.has(slot)
    }

    fn may_drop(&self, slot: LayerSlot) -> bool {
        self.free(slot) && self.has(slot)
    }

    /// Returns what would protect more.
    pub(super) fn more(&self) -> Vec<Candidate> {
        let mut found = Vec::new();
        if self.may_add(LayerSlot::GlassTape) {
            let choices = Choices::layer(LayerSlot::GlassTape, true);
            found.push(candidate(
                Family::GlassTape,
                "Tape on the glass against splinters",
                choices,
            ));
        }
        self.more_wrap(&mut found);
        self.foam(&mut found);
        self.boards(&mut found);
        if self.may_add(LayerSlot::SecondBox) {
            let choices = Choices::layer(LayerSlot::SecondBox, true);
            found.push(candidate(Family::SecondBox, "A second box", choices));
        }
        if self.may_add(LayerSlot::WindowSpacer) {
            let choices = Choices::layer(LayerSlot::WindowSpacer, true);
            found.push(candidate(
                Family::Spacer,
                "A window spacer over the face",
                choices,
            ));
        }
        self.drier(&mut found);
        if self.plan.carriage == Carriage::Mailed {
            let choices = Choices {
                carriage: Some(Carriage::Folio),
                ..Choices::default()
            };
            found.push(candidate(
                Family::Box,
                "A box in place of the mailer",
                choices,
            ));
        }
        if self.plan.carriage == Carriage::Padded {
            let choices = Choices {
                carriage: Some(Carriage::Flat),
                bought_box: Some(MaterialId::new("")),
                ..Choices::default()
            };
            found.push(candidate(
                Family::Box,
                "A box in place of the mailer",
                choices,
            ));
        }
        found
    }

    /// Returns what would be less of it.
    pub(super) fn less(&self) -> Vec<Candidate> {
        let mut found = Vec::new();
        self.less_wrap(&mut found);
        for slot in LayerSlot::ALL.into_iter().rev() {
            if let Some(LeftOut { family, label }) = kind_of(slot).nature.left_out
                && self.may_drop(slot)
                && !self.keeps(family)
            {
                found.push(candidate(family, label, Choices::layer(slot, false)));
            }
        }
        self.thinner_boards(&mut found);
        self.closer(&mut found);
        found
    }

    /// Tells whether a plan keeps what leaving out such a layer would take away: a board or a box of what is precious, and the last
    /// board before glass, a mirror or bare paint.
    fn keeps(&self, family: Family) -> bool {
        match family {
            Family::SecondBox | Family::Box => self.precious,
            Family::OuterBoards => self.precious || self.bare && !self.has(LayerSlot::FaceBoards),
            Family::GlassTape
            | Family::Wrap
            | Family::Drier
            | Family::Corners
            | Family::EdgeFoam
            | Family::Boards
            | Family::Spacer
            | Family::FaceFoam
            | Family::Fit
            | Family::LighterBox
            | Family::HeavierBox => false,
        }
    }

    fn turns(&self) -> (u32, u32) {
        let allowances = &self.rules.allowances;
        (
            allowances.first_turns,
            if self.has(LayerSlot::SecondWrap) {
                allowances.second_turns
            } else {
                0
            },
        )
    }

    fn more_wrap(&self, found: &mut Vec<Candidate>) {
        if self.plan.carriage == Carriage::Rolled {
            let turns = if self.has(LayerSlot::FirstWrap) {
                self.rules.allowances.roll_turns
            } else {
                0
            };
            let choices = Choices {
                first_turns: Some(turns + 1),
                ..Choices::layer(LayerSlot::FirstWrap, true)
            };
            found.push(candidate(
                Family::Wrap,
                "Another turn of wrap around the roll",
                choices,
            ));
            return;
        }
        if self.may_add(LayerSlot::FirstWrap) {
            let choices = Choices::layer(LayerSlot::FirstWrap, true);
            found.push(candidate(Family::Wrap, "A wrap", choices));
            return;
        }
        if !self.has(LayerSlot::FirstWrap) {
            return;
        }
        let (first, second) = self.turns();
        if second == 0 && self.free(LayerSlot::SecondWrap) {
            let choices = Choices {
                second_turns: Some(1),
                ..Choices::layer(LayerSlot::SecondWrap, true)
            };
            found.push(candidate(
                Family::Wrap,
                "A second wrap, the other way",
                choices,
            ));
        }
        let turned = |first_turns: Option<u32>, second_turns: Option<u32>| Choices {
            first_turns,
            second_turns,
            ..Choices::default()
        };
        let label = "Another turn of the first wrap";
        found.push(candidate(
            Family::Wrap,
            label,
            turned(Some(first + 1), None),
        ));
        if second > 0 {
            let label = "Another turn of the second wrap";
            found.push(candidate(
                Family::Wrap,
                label,
                turned(None, Some(second + 1)),
            ));
            let label = "Another turn of wrap each way";
            let each = turned(Some(first + 1), Some(second + 1));
            found.push(candidate(Family::Wrap, label, each));
        }
    }

    fn foam(&self, found: &mut Vec<Candidate>) {
        let house = &self.rules.materials.pad_foam;
        let Ok(foam) = self.catalogue.foam(house) else {
            return;
        };
        let mut sheets: Vec<Length> = foam.sheets.iter().map(|sheet| sheet.thickness).collect();
        sheets.sort_unstable();
        sheets.dedup();
        for thickness in sheets {
            let mm = format!("{:.0} mm", thickness.as_mm());
            let told = self.rules.told_in.length(thickness);
            // What stands at the edges takes the place of the fill there.
            let clearance = self.has(LayerSlot::Fill).then(|| "0 mm".to_owned());
            if self.may_add(LayerSlot::CornerBlocks) && !self.has(LayerSlot::EdgePads) {
                let choices = Choices {
                    block_thickness: Some(mm.clone()),
                    block_leg: Some(format!("{:.0} mm", thickness.as_mm() * LEG_THICKNESSES)),
                    clearance: clearance.clone(),
                    ..Choices::layer(LayerSlot::CornerBlocks, true)
                };
                let label = format!("Foam blocks at the corners, {told}");
                found.push(candidate(Family::EdgeFoam, label, choices));
            }
            if self.may_add(LayerSlot::EdgePads) && !self.has(LayerSlot::CornerBlocks) {
                let choices = Choices {
                    edge_pad_thickness: Some(mm.clone()),
                    clearance,
                    ..Choices::layer(LayerSlot::EdgePads, true)
                };
                let label = format!("Foam along the edges, {told}");
                found.push(candidate(Family::EdgeFoam, label, choices));
            }
            if self.may_add(LayerSlot::FacePads) {
                let pads = Choices {
                    pad_thickness: Some(mm.clone()),
                    ..Choices::layer(LayerSlot::FacePads, true)
                };
                // Four pads are tried before full ones: those load a foam with a tenth of what it wants.
                if let Some(area) = self.best_area(foam) {
                    let choices = Choices {
                        pad_area_cm2: Some(area),
                        ..pads.clone()
                    };
                    let label = format!("Four pads on face and back, {told}");
                    found.push(candidate(Family::FaceFoam, label, choices));
                }
                let label = format!("Foam over face and back, {told}");
                found.push(candidate(Family::FaceFoam, label, pads));
            }
        }
    }

    /// The area at which a foam does best under what lies within the cushion, in whole square centimetres.
    fn best_area(&self, foam: &Foam) -> Option<f64> {
        let limit = self.plan.survival.fragility.limit?;
        let inside = self
            .plan
            .survival
            .cushioned
            .max(self.plan.piece_weight.mass);
        let heights = self.rules.allowances.drop_heights();
        let drop = drop_by(heights, self.plan.tally.weight.mass)?;
        let best = foam.curve.best_within(inside, drop, limit)?;
        Some((best.pad.area.as_m2() * CM2_PER_M2).round())
    }

    fn face_boards(&self) -> Option<&FaceBoards> {
        let mut layers = self.plan.layers.iter();
        layers.find_map(|layer| match &layer.make {
            Make::FaceBoards(boards) if layer.slot == LayerSlot::FaceBoards => Some(boards),
            _ => None,
        })
    }

    /// Tells whether less protection may be a board or a box less: not of what can't be replaced, nor of what is worth a lot.
    fn may_lose_a_board(&self) -> bool {
        !self.precious
    }

    fn board(&self, slot: LayerSlot) -> Option<&Board> {
        let layer = self.plan.layers.iter().find(|layer| layer.slot == slot)?;
        self.catalogue.board(&layer.material).ok()
    }

    /// Boards on the shelf that are stiffer than one, and not too heavy.
    fn stiffer_than(&self, board: &Board) -> impl Iterator<Item = &Board> {
        let (than, id) = (board.stiffness, board.id.clone());
        self.catalogue.boards.iter().filter(move |other| {
            !other.shelf.retired
                && other.id != id
                && other.areal_density <= HEAVIEST_BOARD
                && other.stiffness > than
        })
    }

    fn boards(&self, found: &mut Vec<Candidate>) {
        for slot in [LayerSlot::FaceBoards, LayerSlot::Folio] {
            let Some(board) = self.board(slot) else {
                continue;
            };
            for other in self.stiffer_than(board) {
                let id = Some(other.id.clone());
                let choices = match (slot, self.plan.carriage) {
                    (LayerSlot::FaceBoards, _) => Choices {
                        face_board: id,
                        ..Choices::default()
                    },
                    (_, Carriage::Mailed) => Choices {
                        mailer_board: id.clone(),
                        folio_board: id,
                        ..Choices::default()
                    },
                    _ => Choices {
                        folio_board: id,
                        ..Choices::default()
                    },
                };
                let label = format!("Stiffer boards: {}", other.name);
                found.push(candidate(Family::Boards, label, choices));
            }
        }
        // One before and one behind are one change.
        let behind = SchoolChoices {
            back_board: Some(BackBoard::Always),
            ..SchoolChoices::default()
        };
        if self.may_add(LayerSlot::FaceBoards) {
            let choices = Choices {
                schools: behind,
                ..Choices::layer(LayerSlot::FaceBoards, true)
            };
            let label = "Boards in front and behind";
            found.push(candidate(Family::Boards, label, choices));
        } else if self.face_boards().is_some_and(|boards| !boards.behind) {
            let label = "A board behind as well";
            found.push(candidate(Family::Boards, label, schools(behind)));
        }
        if self.may_add(LayerSlot::OuterBoards) {
            let choices = Choices::layer(LayerSlot::OuterBoards, true);
            found.push(candidate(
                Family::OuterBoards,
                "Boards outside the wrap as well",
                choices,
            ));
        }
        if let Some(board) = self.board(LayerSlot::Box) {
            for other in self.stiffer_than(board).filter(|other| other.folds) {
                let choices = Choices {
                    box_board: Some(other.id.clone()),
                    ..Choices::default()
                };
                let label = format!("A box of {}", other.name);
                found.push(candidate(Family::HeavierBox, label, choices));
            }
        }
    }

    fn drier(&self, found: &mut Vec<Candidate>) {
        if self.may_add(LayerSlot::Bag) && self.plan.cure.is_none() {
            let choices = Choices::layer(LayerSlot::Bag, true);
            found.push(candidate(Family::Drier, "A sealed bag", choices));
        }
        let boxed = self.board(LayerSlot::Box).is_some();
        if boxed && self.rules.schools.seal == SealRule::H {
            let choices = schools(SchoolChoices {
                seal: Some(SealRule::EverySeam),
                ..SchoolChoices::default()
            });
            found.push(candidate(
                Family::Drier,
                "Every seam and edge taped",
                choices,
            ));
        }
    }

    fn less_wrap(&self, found: &mut Vec<Candidate>) {
        if self.plan.carriage == Carriage::Rolled || !self.has(LayerSlot::FirstWrap) {
            return;
        }
        let (first, second) = self.turns();
        if second > 0 && self.free(LayerSlot::SecondWrap) {
            let choices = Choices::layer(LayerSlot::SecondWrap, false);
            found.push(candidate(Family::Wrap, "One wrap only", choices));
        }
        if first > 1 {
            let choices = Choices {
                first_turns: Some(first - 1),
                second_turns: (second > 1).then_some(second - 1),
                ..Choices::default()
            };
            found.push(candidate(Family::Wrap, "A turn less of wrap", choices));
        }
    }

    fn thinner_boards(&self, found: &mut Vec<Candidate>) {
        if self.may_lose_a_board() && self.face_boards().is_some_and(|boards| boards.behind) {
            let choices = schools(SchoolChoices {
                back_board: Some(BackBoard::Never),
                ..SchoolChoices::default()
            });
            found.push(candidate(Family::Boards, "No board behind", choices));
        }
        let Some(board) = self.board(LayerSlot::Box).filter(|board| board.folds) else {
            return;
        };
        for other in &self.catalogue.boards {
            let lighter = other.folds
                && other.build == board.build
                && other.areal_density < board.areal_density
                && !other.shelf.retired;
            if lighter {
                let choices = Choices {
                    box_board: Some(other.id.clone()),
                    ..Choices::default()
                };
                let label = format!("A box of {}", other.name);
                found.push(candidate(Family::LighterBox, label, choices));
            }
        }
    }

    fn closer(&self, found: &mut Vec<Candidate>) {
        let allowances = &self.rules.allowances;
        if self.has(LayerSlot::Fill) && allowances.clearance > allowances.snug_clearance {
            let mm = |length: Length| Some(format!("{:.0} mm", length.as_mm()));
            let choices = Choices {
                clearance: mm(allowances.snug_clearance),
                depth_clearance: mm(allowances.depth_clearance.min(allowances.snug_clearance)),
                ..Choices::default()
            };
            found.push(candidate(Family::Fit, "A snug box", choices));
        }
        // A thin board goes between two others, what is thicker wrapped as it is.
        let mailed: &[Carriage] = match self.plan.carriage {
            Carriage::Folio => &[Carriage::Mailed],
            Carriage::Flat => &[Carriage::Mailed, Carriage::Padded],
            Carriage::Mailed | Carriage::Padded | Carriage::Rolled => &[],
        };
        for carriage in mailed.iter().filter(|_| self.may_lose_a_board()) {
            let choices = Choices {
                carriage: Some(*carriage),
                ..Choices::default()
            };
            found.push(candidate(
                Family::Box,
                "A mailer in place of the box",
                choices,
            ));
        }
    }
}

const CM2_PER_M2: f64 = 1e4;
/// A corner block's leg, in thicknesses: a little more than it takes to stand firm.
const LEG_THICKNESSES: f64 = 3.0;

fn schools(schools: SchoolChoices) -> Choices {
    Choices {
        schools,
        ..Choices::default()
    }
}
