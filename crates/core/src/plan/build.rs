//! Building the layers of a plan, each around those inside it.

use super::recipe::{Recipe, has_back_board};
use crate::{
    Refusal,
    carton::CartonStyle,
    house::{Carriage, CornerStyle},
    layer::{
        BackFill, Bundle, CardPocket, ContactSheet, CornerBlocks, EdgeFill, EdgePads, FaceBoards,
        FacePads, Folio, GlassTape, Interleaves, Layer, MailerBox, Make, NameTag, Roll, SealedBag,
        SlipOns, StretchFilm, Supplies, TubeBox, TubeFit, WindowSpacer, WrapStrip, boxed,
        mailer_for,
    },
    piece::{Piece, PieceSize},
    quantity::{Length, Volume},
    space::{Direction, Envelope, LayerSlot},
};

/// A plan while it grows from the art outward.
pub(super) struct Building<'a> {
    piece: &'a Piece,
    supplies: &'a Supplies<'a>,
    recipe: &'a Recipe,
    /// What boards and pockets go around: the piece, or the bundle of pieces.
    body: PieceSize,
    /// Of the pieces themselves, without what lies between them: what a corner block bears on.
    bearing_depth: Length,
    bare: Envelope,
    layers: Vec<Layer>,
}

/// Returns the layers of a plan, from the art outward.
///
/// # Errors
/// A [`Refusal`] for a material that a layer needs and the shelf does not hold.
pub(super) fn layers_of(
    piece: &Piece,
    supplies: &Supplies<'_>,
    recipe: &Recipe,
) -> Result<Vec<Layer>, Refusal> {
    let PieceSize {
        width,
        height,
        depth,
    } = piece.size;
    let mut building = Building {
        piece,
        supplies,
        recipe,
        body: piece.size,
        bearing_depth: piece.size.depth,
        bare: Envelope {
            across: width,
            up: height,
            through: depth,
        },
        layers: Vec::with_capacity(LayerSlot::ALL.len()),
    };
    match recipe.carriage {
        Carriage::Flat => building.flat()?,
        Carriage::Folio => building.folio()?,
        Carriage::Mailed => building.mailed()?,
        Carriage::Rolled => building.rolled()?,
    }
    Ok(building.layers)
}

impl Building<'_> {
    fn inside(&self) -> Envelope {
        self.layers.last().map_or(self.bare, |layer| layer.envelope)
    }

    fn has(&self, slot: LayerSlot) -> bool {
        self.recipe.has(slot)
    }

    fn flat(&mut self) -> Result<(), Refusal> {
        let (supplies, size) = (self.supplies, self.piece.size);
        if self.has(LayerSlot::GlassTape) {
            self.layers.push(GlassTape::layer(
                supplies,
                size,
                self.piece.count,
                self.inside(),
            ));
        }
        if self.has(LayerSlot::WindowSpacer) {
            let count = self.piece.count;
            self.layers
                .push(WindowSpacer::layer(supplies, size, count, self.inside())?);
        }
        if self.has(LayerSlot::Contact) {
            let count = self.piece.count;
            self.layers
                .push(ContactSheet::layer(supplies, size, count, self.inside()));
        }
        if self.has(LayerSlot::Bundle) {
            self.bundle()?;
        }
        self.corners()?;
        if self.has(LayerSlot::BackFill) {
            self.layers
                .extend(BackFill::layer(supplies, size, self.inside())?);
        }
        if self.has(LayerSlot::FaceBoards) {
            let behind = has_back_board(self.piece, supplies.rules);
            let bound = !self.has(LayerSlot::Binding);
            self.layers.push(FaceBoards::layer(
                supplies,
                self.body,
                behind,
                bound,
                self.inside(),
            ));
        }
        self.named_and_sealed()?;
        self.cushioned_and_boxed()
    }

    fn folio(&mut self) -> Result<(), Refusal> {
        self.between_boards(false)?;
        self.named_and_sealed()?;
        self.cushioned_and_boxed()
    }

    fn mailed(&mut self) -> Result<(), Refusal> {
        self.between_boards(true)?;
        self.named_and_sealed()?;
        let mailer = mailer_for(self.supplies, self.inside()).ok_or_else(no_mailer)?;
        let layer = MailerBox::layer(self.supplies, mailer, self.inside());
        self.layers.push(layer);
        Ok(())
    }

    fn between_boards(&mut self, mailed: bool) -> Result<(), Refusal> {
        let (supplies, piece) = (self.supplies, self.piece);
        if self.has(LayerSlot::WindowSpacer) {
            // One window over all of them: the sheets lie on each other with interleaves between.
            self.layers
                .push(WindowSpacer::layer(supplies, piece.size, 1, self.inside())?);
        }
        if self.has(LayerSlot::Contact) {
            self.layers.push(Interleaves::layer(
                supplies,
                piece.size,
                piece.count,
                self.inside(),
            ));
        }
        self.layers
            .push(Folio::layer(supplies, piece.size, mailed, self.inside())?);
        Ok(())
    }

    fn rolled(&mut self) -> Result<(), Refusal> {
        let (supplies, piece) = (self.supplies, self.piece);
        if self.has(LayerSlot::Contact) {
            self.layers.push(Interleaves::layer(
                supplies,
                piece.size,
                piece.count,
                self.inside(),
            ));
        }
        let layer = Roll::layer(supplies, piece, self.inside());
        let Make::Roll(roll) = layer.make else {
            unreachable!("a roll makes a roll")
        };
        self.layers.push(layer);
        self.named_and_sealed()?;
        let turns = if self.has(LayerSlot::FirstWrap) {
            supplies.allowances().roll_turns
        } else {
            0
        };
        let fit = TubeFit::of(supplies, roll, turns, supplies.rules.shipment.turns_asked);
        let layer = WrapStrip::around_roll(supplies, fit.turns, self.inside());
        self.layers.extend(layer);
        if self.has(LayerSlot::Fill) {
            let layer = EdgeFill::around_roll(supplies, fit.gap(), self.inside());
            self.layers.extend(layer);
        }
        self.layers
            .push(TubeBox::layer(supplies, &fit, self.inside()));
        Ok(())
    }

    fn bundle(&mut self) -> Result<(), Refusal> {
        let layer = self.bundled()?;
        let Envelope {
            across,
            up,
            through,
        } = layer.envelope;
        self.body = PieceSize {
            width: across,
            height: up,
            depth: through,
        };
        if let Make::Bundle(bundle) = &layer.make {
            self.bearing_depth = self.piece.size.depth * f64::from(bundle.deep);
        }
        self.layers.push(layer);
        Ok(())
    }

    fn bundled(&self) -> Result<Layer, Refusal> {
        Bundle::layer(
            self.supplies,
            (self.piece.size, self.piece.count),
            self.inside(),
        )
    }

    fn corners(&mut self) -> Result<(), Refusal> {
        if !self.has(LayerSlot::Corners) {
            return Ok(());
        }
        let (supplies, inside) = (self.supplies, self.inside());
        let count = self.piece.bearing_points();
        let layer = match supplies.corner_style_for(inside.through)? {
            CornerStyle::CardPockets => CardPocket::layer(supplies, self.body, count, inside)?,
            CornerStyle::SlipOn => SlipOns::layer(supplies, count, inside)?,
        };
        self.layers.push(layer);
        Ok(())
    }

    fn named_and_sealed(&mut self) -> Result<(), Refusal> {
        let supplies = self.supplies;
        if self.has(LayerSlot::Binding) {
            self.layers
                .push(StretchFilm::layer(supplies, self.inside())?);
        }
        if self.has(LayerSlot::NameTag) {
            self.layers.push(NameTag::layer(supplies, self.inside())?);
        }
        if self.has(LayerSlot::Bag) {
            self.layers.push(SealedBag::layer(supplies, self.inside())?);
        }
        Ok(())
    }

    fn cushioned_and_boxed(&mut self) -> Result<(), Refusal> {
        let supplies = self.supplies;
        let long_way = if self.body.height >= self.body.width {
            Direction::Up
        } else {
            Direction::Across
        };
        self.wraps(long_way);
        if self.has(LayerSlot::FacePads) {
            self.layers
                .push(FacePads::layer(supplies, self.body, self.inside())?);
        }
        if self.has(LayerSlot::EdgePads) {
            self.layers.push(EdgePads::layer(supplies, self.inside())?);
        }
        let mut hollow = Volume::ZERO;
        if self.has(LayerSlot::CornerBlocks) {
            let inside = self.inside();
            let layer =
                CornerBlocks::layer(supplies, (self.body, self.bearing_depth), CORNERS, inside)?;
            if let Make::CornerBlocks(blocks) = &layer.make {
                hollow = blocks.hollow(inside);
            }
            self.layers.push(layer);
        }
        if self.has(LayerSlot::OuterBoards) {
            self.layers
                .push(FaceBoards::outer_layer(supplies, self.inside())?);
        }
        if self.has(LayerSlot::Fill) {
            self.layers
                .extend(EdgeFill::layer(supplies, hollow, self.inside()));
        }
        let held = (long_way, self.inside());
        let style = supplies.rules.shipment.box_style.unwrap_or_default();
        self.layers
            .push(boxed(supplies, LayerSlot::Box, style, held));
        if self.has(LayerSlot::SecondBox) {
            self.layers
                .push(EdgeFill::between_boxes(supplies, self.inside()));
            let held = (long_way, self.inside());
            let style = CartonStyle::default();
            self.layers
                .push(boxed(supplies, LayerSlot::SecondBox, style, held));
        }
        Ok(())
    }

    fn wraps(&mut self, long_way: Direction) {
        let allowances = self.supplies.allowances();
        let across = long_way.turned();
        for (slot, direction, turns) in [
            (LayerSlot::FirstWrap, long_way, allowances.first_turns),
            (LayerSlot::SecondWrap, across, allowances.second_turns),
        ] {
            if self.has(slot) {
                // A wrap that somebody asked for has a turn, even where the school has none.
                let asked = self.supplies.rules.layers.get(&slot) == Some(&true);
                let winding = (direction, turns.max(u32::from(asked)));
                let layer = WrapStrip::layer(self.supplies, slot, winding, self.inside());
                self.layers.extend(layer);
            }
        }
    }
}

/// Returns why a piece does not go in a mailer.
fn no_mailer() -> Refusal {
    Refusal::new(
        "choices.carriage",
        "no mailer on the shelf takes it with its boards: put a larger one in the stores, or send it in a box",
    )
}

/// A wrapped piece is a block with four corners, whatever its outline.
const CORNERS: u32 = 4;
