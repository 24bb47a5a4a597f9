//! The box around what it holds, or a second one around the first.

use super::{
    Cushioning, Layer, MailerBox, Make, Making, Pack, PackOf, Sandwich, Sides, Supplies,
    TravelCase, TubeBox,
    bought::Bought,
    kind::{Kind, Nature, Offer, Offering, Standing, box_boards, carried},
    mailer_for,
};
use crate::{
    Refusal,
    carton::{Beyond, BoxSize, SheetNeed},
    container::{Carton, SealStrip, alike},
    house::{Carriage, CartonStyle, Choices, TubeShape},
    layer::BoughtBox,
    material::{Board, Use},
    part::{Cut, Grain, Need, PartId, StripId},
    quantity::{Length, Minutes, ceil_count},
    space::{Addition, Direction, Envelope, LayerSlot},
};

/// Returns the box that leaves no more room around an envelope than it has.
///
/// Its length follows the long side of the art, whichever side of the envelope is longer: a box that turned over when
/// a layer grew would shrink on one side.
const fn holding(inside: Envelope, long_way: Direction, caliper: Length) -> BoxSize {
    let (length, width) = match long_way {
        Direction::Up => (inside.up, inside.across),
        Direction::Across => (inside.across, inside.up),
    };
    BoxSize {
        length,
        width,
        height: inside.through,
        caliper,
    }
}

/// What a box adds to an envelope, with the bulge of its back once it is filled.
fn adds(beyond: Beyond, long_way: Direction, bulge: Length) -> Addition {
    let (across, up) = match long_way {
        Direction::Up => (beyond.width, beyond.length),
        Direction::Across => (beyond.length, beyond.width),
    };
    Addition {
        left: across[0],
        right: across[1],
        top: up[0],
        bottom: up[1],
        front: beyond.front,
        back: beyond.back + bulge,
    }
}

/// Returns the layer of a box around what it holds: the box, or a second one around it.
pub(crate) fn boxed(
    supplies: &Supplies<'_>,
    pack: &Pack<'_>,
    (long_way, inside): (Direction, Envelope),
) -> Layer {
    let board = pack.board;
    let allowances = supplies.allowances();
    let inner = if pack.doubled {
        board.caliper
    } else {
        Length::ZERO
    };
    let room = Envelope {
        through: inside.through + inner * 2.0,
        ..inside
    };
    let size = holding(room, long_way, board.caliper);
    let cut_through = match pack.of {
        PackOf::Piece => supplies.rules.shipment.cut_through,
        PackOf::Pack => 0,
    };
    let carton = Carton {
        cut_through,
        doubled: pack.doubled,
        ..carton_of(supplies, pack, size)
    };
    let style = carton.style;
    let around: Length = carton
        .parts()
        .map(|(blank, _)| blank.width + blank.height)
        .sum();
    let over_score = size.length.max(size.width) + allowances.seal_return * 2.0;
    let sealed = carton.sealed().into_iter().sum::<Length>() + over_score * f64::from(cut_through);
    let glued = if pack.doubled {
        (allowances.board_minutes
            + allowances.board_minutes_per_m * (size.length + size.width).as_m())
            * 2.0
    } else {
        Minutes::ZERO
    };
    let needs = carton
        .parts()
        .flat_map(|(blank, sheet)| {
            let name = named(supplies, pack.of, blank.part);
            let piece = move |cut: Cut| Need::board(name, board, cut.along(Grain::Up));
            let cut = carton.cut_blanks().filter(|cut| cut.part == blank.part);
            // Whatever one is cut from that no sheet takes, it will have laps.
            let laps =
                (*sheet == SheetNeed::NoSheet).then(|| SheetNeed::most_laps(allowances.sheet_lap));
            let with_laps = laps.map(|laps| {
                Cut::of([blank.width + laps, blank.height])
                    .staying(blank.area + laps * blank.height)
            });
            cut.map(move |cut| piece(with_laps.unwrap_or_else(|| cut.cut())))
        })
        .chain(pack.doubled.then(|| {
            let sheet = Cut::of([size.width, size.length]).along(Grain::Up);
            Need::board(PartId::SheetGluedInside, board, sheet).times(2)
        }))
        .chain(pack.doubled.then(|| glue_on(supplies, size)).flatten())
        .chain(sealed_by(supplies, &carton.seal))
        .chain([Need::tape(
            supplies.seal_tape,
            StripId::OverEachScoreThatWasCut,
            over_score,
        )
        .times(cut_through)])
        .collect();
    supplies.layer(Making {
        slot: pack.of.box_slot(),
        needs,
        adds: {
            let walls = adds(style.beyond(size), long_way, allowances.box_bulge);
            Addition {
                front: walls.front + inner,
                back: walls.back + inner,
                ..walls
            }
        },
        inside,
        minutes: allowances.box_minutes
            + allowances.box_minutes_per_m * around.as_m()
            + allowances.seal_minutes
            + allowances.seal_minutes_per_m * sealed.as_m()
            + glued,
        why: style.why(),
        make: match style {
            CartonStyle::SlottedEdge | CartonStyle::SlottedFace => Make::SlottedBox(carton),
            _ => Make::CutBox(carton),
        },
        cushioning: Some(Cushioning::of_board(Sides {
            front: board.caliper + inner,
            back: board.caliper + inner,
            ..Sides::all(board.caliper)
        })),
    })
}

/// White glue, rolled thin over the whole of a sheet, in grams a square metre. Source: packaging engineering practice.
pub(super) const GLUE_G_M2: f64 = 150.0;

/// The glue for a sheet on both faces inside; nothing where the shelf has none.
fn glue_on<'a>(supplies: &Supplies<'a>, size: BoxSize) -> Option<Need<'a>> {
    let glue = supplies.catalogue.sundry_for(Use::Glue)?;
    let both = size.length * size.width * 2.0;
    let grams = ceil_count(both.as_m2() * GLUE_G_M2);
    Some(Need::sundry(PartId::Glue, glue).times(grams))
}

/// Returns the strips that seal a box, like ones together.
pub(super) fn sealed_by<'a>(supplies: &Supplies<'a>, seal: &[SealStrip]) -> Vec<Need<'a>> {
    alike(seal)
        .into_iter()
        .map(|(strip, count)| {
            let one = if strip.filament {
                Need::filament(supplies.filament_tape, strip.on, strip.length)
            } else {
                Need::tape(supplies.seal_tape, strip.on, strip.length)
            };
            one.times(count)
        })
        .collect()
}

/// Returns which part of a box it is where there are two boxes.
fn named(supplies: &Supplies<'_>, of: PackOf, part: PartId) -> PartId {
    if supplies.rules.layers.get(&LayerSlot::SecondBox) != Some(&true) {
        return part;
    }
    let [inner, outer] = part.of_two_boxes();
    match of {
        PackOf::Piece => inner,
        PackOf::Pack => outer,
    }
}

fn carton_of(supplies: &Supplies<'_>, pack: &Pack<'_>, size: BoxSize) -> Carton {
    let (allowances, rule) = (supplies.allowances(), supplies.rules.schools.seal);
    match pack.style.filter(|style| style.takes(pack.board)) {
        Some(style) => Carton::of(style, size, pack.board, allowances, rule),
        None => Carton::usual(size, pack.board, allowances, rule),
    }
}

/// Returns the style of the box that a pack has around an envelope.
pub(super) fn style_of(
    supplies: &Supplies<'_>,
    pack: &Pack<'_>,
    (long_way, inside): (Direction, Envelope),
) -> CartonStyle {
    match pack.style.filter(|style| style.takes(pack.board)) {
        Some(style) => style,
        None => Carton::usual_style(
            holding(inside, long_way, pack.board.caliper),
            pack.board,
            supplies.allowances(),
            supplies.rules.schools.seal,
        ),
    }
}

/// The box, the tube or the mailer.
pub(super) const KIND: Kind = Kind::new(
    Nature::PLAIN.tried(11),
    |_| Standing::Must("a parcel needs a box, a mailer or a tube"),
    |around| {
        let (supplies, inside) = (around.supplies, around.inside());
        if let Some(fit) = around.tube_fit() {
            if fit.is_folded() && !supplies.first.board.folds {
                return Err(no_tube_of(supplies.first.board));
            }
            return Ok(Some(TubeBox::layer(supplies, &fit, inside)));
        }
        if around.carriage == Carriage::Mailed {
            return match mailer_for(supplies, true, inside) {
                Some(mailer) => Ok(Some(MailerBox::layer(supplies, mailer, inside))),
                None => Sandwich::layer(supplies, (around.piece, inside)).map(Some),
            };
        }
        if supplies.rules.shipment.travel_case && around.carriage != Carriage::Padded {
            return TravelCase::layer(around).map(Some);
        }
        let bought = supplies.bought()?;
        if around.carriage == Carriage::Padded {
            return match bought {
                Some(Bought::Mailer(_)) | None => padded(supplies, bought, around).map(Some),
                Some(Bought::Carton(_) | Bought::Saved(..)) => Err(Refusal::new(
                    "choices.bought_box",
                    "a carton isn't a mailer: send it in a box, or choose a mailer",
                )),
            };
        }
        if let Some(bought) = bought {
            return BoughtBox::layer(supplies, bought, (around.long_way(), inside)).map(Some);
        }
        let held = (around.long_way(), inside);
        Ok(Some(boxed(supplies, &supplies.first, held)))
    },
)
.or(swaps);

/// A second box around the first.
pub(super) const SECOND: Kind = Kind::new(
    Nature::PLAIN
        .tried(12)
        .left_out(super::kind::Family::SecondBox, "One box only"),
    |asked| asked.boxed(|| Standing::Off),
    |around| {
        let held = (around.long_way(), around.inside());
        Ok(Some(boxed(around.supplies, &around.supplies.second, held)))
    },
)
.or(|offering| {
    box_boards(offering, |id| Choices {
        second_board: Some(id.clone()),
        ..Choices::default()
    })
});

/// A padded mailer: the one that was chosen, else the cheapest that takes it.
fn padded(
    supplies: &Supplies<'_>,
    bought: Option<Bought<'_>>,
    around: &super::kind::Around<'_, '_>,
) -> Result<Layer, Refusal> {
    let inside = around.inside();
    match bought {
        Some(mailer) => BoughtBox::layer(supplies, mailer, (around.long_way(), inside)),
        None => {
            let mailer = mailer_for(supplies, false, inside).ok_or_else(no_mailer)?;
            Ok(MailerBox::layer(supplies, mailer, inside))
        }
    }
}

fn swaps(offering: &Offering<'_>) -> Vec<Offer> {
    match offering.carriage {
        Carriage::Mailed => {
            let mut offers = vec![carried("A box of its own", ways_back(offering))];
            offers.extend(box_boards(offering, |id| Choices {
                box_board: Some(id.clone()),
                ..Choices::default()
            }));
            return offers;
        }
        Carriage::Padded => return vec![carried("A box of its own", Carriage::Flat)],
        Carriage::Rolled => return tubes(offering),
        Carriage::Flat | Carriage::Folio => {}
    }
    box_boards(offering, |id| Choices {
        box_board: Some(id.clone()),
        ..Choices::default()
    })
}

/// A round tube off the shelf, or a triangular one of every board that folds.
fn tubes(offering: &Offering<'_>) -> Vec<Offer> {
    let round = Choices {
        tube: Some(TubeShape::Round),
        ..Choices::default()
    };
    let boards = offering.catalogue.boards.iter();
    let folded = boards
        .filter(|board| board.makes_boxes() && board.folds && !board.shelf.retired)
        .map(|board| {
            let choices = Choices {
                tube: Some(TubeShape::Triangular),
                box_board: Some(board.id.clone()),
                ..Choices::default()
            };
            (format!("Triangular tube of {}", board.name), choices)
        });
    std::iter::once(("A round tube off the shelf".to_owned(), round))
        .chain(folded)
        .collect()
}

/// How what goes in a mailer between boards goes in a box.
const fn ways_back(offering: &Offering<'_>) -> Carriage {
    if offering.piece.construction.is_loose() {
        Carriage::Folio
    } else {
        Carriage::Flat
    }
}

/// Returns why a tube is not folded from a board.
fn no_tube_of(board: &Board) -> Refusal {
    Refusal::new(
        "choices.box_board",
        format!(
            "no round tube on the shelf fits, and {} can't be folded into one: choose a board that folds",
            board.name
        ),
    )
}

/// Returns why a piece does not go in a mailer.
pub(super) fn no_mailer() -> Refusal {
    Refusal::new(
        "choices.carriage",
        "no mailer in Materials fits the piece with its boards: add a larger one, or send it in a box",
    )
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_box_lies_as_the_long_side_of_the_art_does() {
        let inside = Envelope {
            across: Length::mm(560.0),
            up: Length::mm(740.0),
            through: Length::mm(90.0),
        };
        let [one, two] = [4.0, 8.0].map(Length::mm);
        // Opening on the ends across: two flaps there, a wall above and below; a wall in front; a wall, the tab and
        // the bulge behind.
        let size = holding(inside, Direction::Up, one);
        assert_eq!((size.length, size.width), (inside.up, inside.across));
        let found = adds(
            CartonStyle::SlottedEdge.beyond(size),
            Direction::Up,
            Length::mm(3.0),
        );
        assert_eq!((found.left, found.top), (two, one));
        assert_eq!((found.front, found.back), (one, Length::mm(11.0)));
        // Turned, its flaps lie above and below.
        let size = holding(inside, Direction::Across, one);
        assert_eq!((size.length, size.width), (inside.across, inside.up));
        let found = adds(
            CartonStyle::SlottedEdge.beyond(size),
            Direction::Across,
            Length::ZERO,
        );
        assert_eq!((found.left, found.top), (one, two));
    }
}
