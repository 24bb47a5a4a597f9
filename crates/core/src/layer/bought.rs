//! A box that is bought: a picture carton of parts that slide into each other, a carton of one size, one that is scored
//! for several depths, or a mailer.

use super::kind::Around;
use super::mailer::Pushed;
use super::saved_box::SavedWay;
use super::{
    BoughtBox, Cushioning, Layer, Make, Making, SavedBox, SavedCartons, Sides, Supplies,
    boxed::sealed_by,
};
use crate::{
    Refusal,
    carton::SavedCarton,
    container::{KitParts, WayIn, short_flaps_lap},
    material::{Board, Kit, Mailer, PictureCarton},
    part::Need,
    quantity::Length,
    space::{Addition, Direction, Envelope, LayerSlot},
};

/// What was chosen in place of a box that is cut.
#[derive(Debug, Clone, Copy)]
pub(crate) enum Bought<'a> {
    Carton(&'a PictureCarton),
    Mailer(&'a Mailer),
    /// One or two cartons that the studio has, of a board.
    Saved(SavedCartons, &'a Board),
}

impl PictureCarton {
    /// Returns what it is set to inside for something of three sides, the longer one of the face first; `None` if it
    /// takes no such thing.
    ///
    /// A side that slides closes to what is in it, down to its least; one that does not is as it is; a carton scored for
    /// several depths is folded at the least that will do. Source: house rule.
    #[must_use]
    pub fn set_for(&self, [long, short, deep]: [Length; 3]) -> Option<[Length; 3]> {
        let along = |side: Length, least: Option<Length>, most: Length| {
            let side = side.snapped_to(most);
            (side <= most).then(|| least.map_or(most, |least| side.max(least)))
        };
        let scored = self.depths.iter().copied();
        Some([
            along(long, self.shortest, self.longest)?,
            along(short, self.narrowest, self.widest)?,
            if self.depths.is_empty() {
                along(deep, self.shallowest, self.deepest)?
            } else {
                scored
                    .filter(|&depth| depth >= deep.snapped_to(depth))
                    .min()?
            },
        ])
    }

    /// Returns how something gets in.
    pub(super) const fn way_in(&self) -> WayIn {
        // Which edge a set of corners stands on hangs on what slides, not on how far.
        let slides_short = self.parts > 3 || self.shortest.is_none() && self.narrowest.is_some();
        self.kit().way_in(self.opens, slides_short)
    }

    /// Returns what a carton that is set to a length, a width and a depth reaches beyond each end of each of them.
    fn beyond(&self) -> Length {
        self.outside_adds.map_or(self.wall, |adds| adds / 2.0)
    }
}

impl Bought<'_> {
    /// Returns what it is set to around something, along the axes of the parcel: its length follows the long side of the
    /// art, whichever side of what goes in is longer. Nothing where it takes no such thing; a mailer is set to nothing.
    fn set_around(&self, long_way: Direction, around: Envelope) -> Option<Envelope> {
        let (long, short) = match long_way {
            Direction::Up => (around.up, around.across),
            Direction::Across => (around.across, around.up),
        };
        let sides = [long, short, around.through];
        let [long, short, through] = match self {
            Self::Carton(carton) => carton.set_for(sides)?,
            Self::Saved(cartons, board) => {
                let opens = cartons.opens;
                let way = SavedWay::of(*cartons, board.caliper, opens.in_carton(sides))?;
                opens.around_art(way.inside())
            }
            Self::Mailer(_) => return None,
        };
        let (across, up) = match long_way {
            Direction::Up => (short, long),
            Direction::Across => (long, short),
        };
        Some(Envelope {
            across,
            up,
            through,
        })
    }

    /// How something gets into it.
    pub(super) const fn way_in(&self) -> WayIn {
        match self {
            Self::Carton(carton) => carton.way_in(),
            Self::Saved(cartons, _) => cartons.opens.way_in(),
            Self::Mailer(_) => WayIn::End,
        }
    }

    fn does_not_take(&self, supplies: &Supplies<'_>, held: Envelope) -> Refusal {
        let telling = supplies.rules.told_in;
        let told = |sides: [Length; 3]| telling.sides(&sides);
        let goes_in = told([held.long_side(), held.across.min(held.up), held.through]);
        match self {
            Self::Carton(carton) => Refusal::new(
                "choices.bought_box",
                format!(
                    "{} holds {} inside, but {goes_in} goes in: choose a larger one, or cut a box",
                    carton.name,
                    told([carton.longest, carton.widest, carton.most_depth()]),
                ),
            ),
            Self::Mailer(mailer) => no_room_in(mailer),
            Self::Saved(cartons, _) => {
                let sides = |carton: SavedCarton| {
                    let of = carton.0;
                    told([of.length, of.width, of.height])
                };
                let first = sides(cartons.first);
                let says = match cartons.second {
                    None => format!(
                        "a carton of {first} that opens {} can't hold {goes_in}, even cut down or with a sleeve: choose a larger one, or cut a box",
                        cartons.opens.name()
                    ),
                    Some(second) => format!(
                        "cartons of {first} and {} pushed together can't hold {goes_in}: choose others, or cut a box",
                        sides(second)
                    ),
                };
                Refusal::new("choices.saved_length", says)
            }
        }
    }
}

/// Returns what is left to fill in a bought carton around what is there: as much as it has, where it is of one size; the
/// house's clearance less what stands there already, where it slides. Nothing in a mailer.
///
/// # Errors
/// A [`Refusal`] when it does not go in.
pub(super) fn left_to_fill(
    around: &Around<'_, '_>,
    bought: Bought<'_>,
    taken: Addition,
) -> Result<Addition, Refusal> {
    if matches!(bought, Bought::Mailer(_)) {
        return Ok(Addition::default());
    }
    let (supplies, inside) = (around.supplies, around.inside());
    let allowances = supplies.allowances();
    let lining = if around.has(LayerSlot::Lining) {
        supplies.lining()
    } else {
        Addition::default()
    };
    let way = around.long_way();
    let least = inside.grown(lining);
    let left = |room: Length, taken: Length| (room - taken).max(Length::ZERO);
    let clear = left(allowances.clearance, taken.left);
    let behind = left(allowances.depth_clearance, taken.back);
    let wanted = least.grown(Addition::new(clear, clear, Length::ZERO, behind));
    let set = bought
        .set_around(way, wanted)
        .or_else(|| bought.set_around(way, least))
        .ok_or_else(|| bought.does_not_take(supplies, least))?;
    Ok(Addition::new(
        (set.across - least.across) / 2.0,
        (set.up - least.up) / 2.0,
        Length::ZERO,
        set.through - least.through,
    ))
}

impl PictureCarton {
    /// Returns the deepest that it is folded to.
    fn most_depth(&self) -> Length {
        let scored = self.depths.iter().copied();
        scored.max().unwrap_or(self.deepest)
    }

    /// Returns how far its corners are slit to fold it at a depth: nothing where it has one depth alone.
    fn slit_for(&self, depth: Length) -> Length {
        if self.depths.is_empty() {
            Length::ZERO
        } else {
            (self.most_depth() - depth).max(Length::ZERO)
        }
    }
}

impl BoughtBox {
    /// Returns the layer of what was chosen, around what goes in.
    ///
    /// # Errors
    /// A [`Refusal`] when it does not go in.
    pub(super) fn layer(
        supplies: &Supplies<'_>,
        bought: Bought<'_>,
        (long_way, inside): (Direction, Envelope),
    ) -> Result<Layer, Refusal> {
        let carton = match bought {
            Bought::Carton(carton) => carton,
            Bought::Saved(cartons, board) => {
                let made = SavedBox::layer(supplies, (cartons, board), (long_way, inside));
                return made.ok_or_else(|| bought.does_not_take(supplies, inside));
            }
            Bought::Mailer(mailer) => {
                let pushed =
                    Pushed::over(supplies, mailer, inside).ok_or_else(|| no_room_in(mailer))?;
                return Ok(super::MailerBox::layer(supplies, pushed, inside));
            }
        };
        let set = bought
            .set_around(long_way, inside)
            .ok_or_else(|| bought.does_not_take(supplies, inside))?;
        let (long, short) = match long_way {
            Direction::Up => (set.up, set.across),
            Direction::Across => (set.across, set.up),
        };
        let allowances = supplies.allowances();
        let beyond = carton.beyond();
        let half = |set: Length, inside: Length| (set - inside) / 2.0 + beyond;
        let inside_it = [long, short, set.through];
        let seal = carton.seal(
            inside_it,
            allowances.seal_return,
            supplies.rules.schools.seal,
        );
        let sealed: Length = seal.iter().map(|strip| strip.length).sum();
        let slit = carton.slit_for(set.through);
        let kit = carton.kit();
        let front = beyond;
        let back = set.through - inside.through + beyond + allowances.box_bulge;
        let adds = Addition::new(
            half(set.across, inside.across),
            half(set.up, inside.up),
            front,
            back,
        );
        Ok(supplies.layer(Making {
            slot: LayerSlot::Box,
            needs: std::iter::once(Need::carton(carton))
                .chain(sealed_by(supplies, &seal))
                .collect(),
            adds,
            inside,
            minutes: allowances.mailer_minutes * f64::from(carton.parts)
                + allowances.cut_minutes_per_m * cut_for(slit, [long, short]).as_m()
                + allowances.seal_minutes
                + allowances.seal_minutes_per_m * sealed.as_m(),
            why: "A bought carton that fits is set up in minutes, without cutting.",
            make: Make::BoughtBox(Self {
                inside_length: long,
                inside_width: short,
                inside_height: set.through,
                wall: carton.wall,
                parts: carton.parts,
                kit,
                set: (kit == Kit::Corners).then(|| KitParts::of(carton, [long, short])),
                slit,
                opens: carton.opens,
                stiffness: carton.stiffness,
                seal,
            }),
            cushioning: Some(Cushioning::of_board(Sides::all(carton.wall))),
        }))
    }
}

/// Corners of a carton that are slit, and flaps of either kind that are cut shorter.
const SLIT_CORNERS: f64 = 4.0;
const FLAPS: f64 = 2.0;

/// What is cut to fold a carton at another depth: four slits, both long flaps, and both short ones where they lap too.
fn cut_for(slit: Length, [long, short]: [Length; 2]) -> Length {
    if slit <= Length::ZERO {
        return Length::ZERO;
    }
    let short_too = short_flaps_lap([long, short], slit) > Length::ZERO;
    let flaps = if short_too { long + short } else { long };
    slit * SLIT_CORNERS + flaps * FLAPS
}

fn no_room_in(mailer: &Mailer) -> Refusal {
    Refusal::new(
        "choices.bought_box",
        format!(
            "{} does not close over the wrapped piece, even two of them pushed over it: choose a larger one, or cut a box",
            mailer.name
        ),
    )
}

#[cfg(test)]
mod tests {
    use rust_decimal_macros::dec;

    use super::*;
    use crate::{
        material::{MaterialId, Shelf},
        quantity::Mass,
        space::Opens,
    };

    fn carton() -> PictureCarton {
        PictureCarton {
            id: MaterialId::new("corner-four"),
            name: "Corner carton".into(),
            longest: Length::mm(1200.0),
            widest: Length::mm(900.0),
            deepest: Length::mm(110.0),
            shortest: Some(Length::mm(700.0)),
            narrowest: Some(Length::mm(500.0)),
            shallowest: None,
            depths: Vec::new(),
            parts: 4,
            kit_said: None,
            lap: Length::mm(60.0),
            opens: Opens::Face,
            outside_adds: None,
            stiffness: None,
            wall: Length::mm(4.0),
            mass: Mass::g(2400.0),
            price: dec!(12),
            shelf: Shelf::default(),
        }
    }

    fn set(carton: &PictureCarton, sides: [f64; 3]) -> Option<[f64; 3]> {
        let set = carton.set_for(sides.map(Length::mm))?;
        Some(set.map(Length::as_mm))
    }

    #[test]
    fn a_carton_slides_to_what_is_in_it_within_its_range() {
        // 700 to 1200 × 500 to 900, always 110 deep.
        let slides = carton();
        assert_eq!(
            set(&slides, [1000.0, 800.0, 90.0]),
            Some([1000.0, 800.0, 110.0])
        );
        assert_eq!(
            set(&slides, [600.0, 400.0, 50.0]),
            Some([700.0, 500.0, 110.0])
        );
        assert_eq!(set(&slides, [1201.0, 800.0, 90.0]), None);
        assert_eq!(set(&slides, [1000.0, 800.0, 111.0]), None);
    }

    #[test]
    fn a_carton_of_one_size_is_what_it_is_and_one_of_several_depths_is_folded_at_the_least() {
        let fixed = PictureCarton {
            shortest: None,
            narrowest: None,
            ..carton()
        };
        assert_eq!(
            set(&fixed, [600.0, 400.0, 50.0]),
            Some([1200.0, 900.0, 110.0])
        );
        let scored = PictureCarton {
            depths: [150.0, 60.0, 100.0].map(Length::mm).to_vec(),
            ..fixed
        };
        for (deep, wanted) in [
            (50.0, Some(60.0)),
            (60.0, Some(60.0)),
            (101.0, Some(150.0)),
            (151.0, None),
        ] {
            let depth = set(&scored, [600.0, 400.0, deep]).map(|[_, _, depth]| depth);
            assert_eq!(depth, wanted, "{deep}");
        }
    }
}
