//! What a layer needs, and what it weighs and costs.

use rust_decimal::Decimal;

use super::{Grain, Part, PartId, StripId, Strips, TAB_FOLD, Take, Torn};
use crate::{
    material::{
        Batten, Board, BoardBuild, ContactPaper, CushionWrap, Fill, Film, Foam, Mailer, MaterialId,
        PictureCarton, RollCore, Shelf, SlipOnCorner, Sundry, Tape, Tube,
    },
    quantity::{Area, Currency, Length, Mass, Minutes, Money, Volume, decimal_of},
};

/// How many like parts of one material.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Need<'a> {
    id: PartId,
    count: u32,
    /// Over how many journeys its cost is spread.
    journeys: u32,
    of: Of<'a>,
}

/// A material, in its own measure.
#[derive(Debug, Clone, Copy)]
enum Of<'a> {
    Board(&'a Board, Cut),
    /// Out of a carton that the studio has; new, it would cost what it would be cut from.
    Saved(&'a Board, Cut),
    Foam(&'a Foam, Cut, Length),
    Paper(&'a ContactPaper, Run),
    Wrap(&'a CushionWrap, Run),
    Film(&'a Film, Run),
    Tape(&'a Tape, Torn),
    Fill(&'a Fill, Volume),
    Tube(&'a Tube, Length),
    Core(&'a RollCore, Length),
    Batten(&'a Batten, Length),
    Mailer(&'a Mailer),
    Carton(&'a PictureCarton),
    /// A case that was built before, by the board of its faces: what it weighs, and what a journey bears of it.
    KeptCase(&'a Board, Mass, Decimal),
    SlipOn(&'a SlipOnCorner),
    Sundry(&'a Sundry),
}

/// A piece cut from a sheet: a rectangle, of which what lies within its outline stays.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Cut {
    width: Length,
    height: Length,
    outline: Area,
    grain: Grain,
}

/// A length off a roll, of which what does not lap stays.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Run {
    length: Length,
    width: Length,
    stays: Area,
}

/// What every material has, whatever it is measured in.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Stuff<'a> {
    pub(crate) id: &'a MaterialId,
    pub name: &'a str,
    pub reused: bool,
    pub plastic: bool,
    /// Whether nobody of the studio has looked at its price yet.
    to_check: bool,
}

/// How far the mass of something is off: sheet goods keep theirs, what is poured does not.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Doubt {
    Sheet,
    Fill,
    /// It was on a scale.
    Weighed,
}

/// Sawing through a tube takes as long as a metre of cut.
const SAWN: Length = Length::mm(1000.0);
const THROUGH_WOOD: f64 = 4.0;
const THROUGH_TWO_WALLS: f64 = 1.6;
/// Corrugated board of this caliper has two walls.
const DOUBLE_WALL: Length = Length::mm(6.0);

impl<'a> Need<'a> {
    const fn one(id: PartId, of: Of<'a>) -> Self {
        Self {
            id,
            count: 1,
            journeys: 1,
            of,
        }
    }

    /// A piece of board.
    pub(crate) const fn board(id: PartId, board: &'a Board, cut: Cut) -> Self {
        Self::one(id, Of::Board(board, cut))
    }

    /// A carton that the studio has, by what it would be cut from.
    pub(crate) const fn saved(id: PartId, board: &'a Board, cut: Cut) -> Self {
        Self::one(id, Of::Saved(board, cut))
    }

    /// A piece of foam of a thickness.
    pub(crate) const fn foam(id: PartId, foam: &'a Foam, cut: Cut, thickness: Length) -> Self {
        Self::one(id, Of::Foam(foam, cut, thickness))
    }

    /// A length of paper.
    pub(crate) const fn paper(id: PartId, paper: &'a ContactPaper, run: Run) -> Self {
        Self::one(id, Of::Paper(paper, run))
    }

    /// A length of a cushion.
    pub(crate) const fn wrap(id: PartId, wrap: &'a CushionWrap, run: Run) -> Self {
        Self::one(id, Of::Wrap(wrap, run))
    }

    /// A length of film.
    pub(crate) const fn film(id: PartId, film: &'a Film, run: Run) -> Self {
        Self::one(id, Of::Film(film, run))
    }

    /// A strip of tape that stays where it is.
    pub(crate) const fn tape(tape: &'a Tape, on: StripId, length: Length) -> Self {
        Self::one(PartId::Tape, Of::Tape(tape, Torn::plain(on, length)))
    }

    /// A strip of tape that is peeled off by a tab.
    pub(crate) const fn tab(tape: &'a Tape, on: StripId, length: Length) -> Self {
        let torn = Torn {
            fold: TAB_FOLD,
            ..Torn::plain(on, length)
        };
        Self::one(PartId::Tape, Of::Tape(tape, torn))
    }

    /// A strip of filament.
    pub(crate) const fn filament(tape: &'a Tape, on: StripId, length: Length) -> Self {
        let torn = Torn {
            filament: true,
            ..Torn::plain(on, length)
        };
        Self::one(PartId::Tape, Of::Tape(tape, torn))
    }

    /// Loose fill.
    pub(crate) const fn fill(fill: &'a Fill, volume: Volume) -> Self {
        Self::one(PartId::Fill, Of::Fill(fill, volume))
    }

    /// A length of tube.
    pub(crate) const fn tube(tube: &'a Tube, length: Length) -> Self {
        Self::one(PartId::Tube, Of::Tube(tube, length))
    }

    /// A length of core.
    pub(crate) const fn core(core: &'a RollCore, length: Length) -> Self {
        Self::one(PartId::Core, Of::Core(core, length))
    }

    /// A length of batten.
    pub(crate) const fn batten(id: PartId, batten: &'a Batten, length: Length) -> Self {
        Self::one(id, Of::Batten(batten, length))
    }

    /// A mailer.
    pub(crate) const fn mailer(mailer: &'a Mailer) -> Self {
        Self::one(PartId::Mailer, Of::Mailer(mailer))
    }

    /// A bought carton.
    pub(crate) const fn carton(carton: &'a PictureCarton) -> Self {
        Self::one(PartId::Carton, Of::Carton(carton))
    }

    /// A case that was built before, of a board: what it weighs, and what a journey bears of it.
    pub(crate) const fn kept_case(board: &'a Board, mass: Mass, cost: Decimal) -> Self {
        Self::one(PartId::TravelCase, Of::KeptCase(board, mass, cost))
    }

    /// A bought corner.
    pub(crate) const fn slip_on(corner: &'a SlipOnCorner) -> Self {
        Self::one(PartId::Corner, Of::SlipOn(corner))
    }

    /// A small thing.
    pub(crate) const fn sundry(id: PartId, sundry: &'a Sundry) -> Self {
        Self::one(id, Of::Sundry(sundry))
    }

    /// The same under another name among the parts of its layer.
    pub(crate) const fn called(mut self, id: PartId) -> Self {
        self.id = id;
        self
    }

    /// How many of it.
    pub(crate) const fn times(mut self, count: u32) -> Self {
        self.count = count;
        self
    }

    /// The same, whose cost is spread over so many journeys.
    pub(crate) const fn over(mut self, journeys: u32) -> Self {
        self.journeys = journeys;
        self
    }

    /// Returns what all of it weighs.
    pub(crate) fn mass(&self) -> Mass {
        let (_, one, _) = self.reckoned();
        one * f64::from(self.count)
    }

    /// As much of it for each of so many.
    pub(crate) const fn each(mut self, count: u32) -> Self {
        self.count *= count;
        self
    }

    /// Returns its strips, where it is tape.
    pub(crate) const fn strips(&self) -> Option<Strips> {
        match self.of {
            Of::Tape(_, torn) => Some(torn.times(self.count)),
            _ => None,
        }
    }

    /// The same as one length, where it is tape: that is what goes off the roll.
    pub(crate) fn in_one_length(mut self) -> Self {
        if let Of::Tape(_, torn) = &mut self.of {
            torn.length = torn.length * f64::from(self.count);
            self.count = 1;
        }
        self
    }

    /// Adds the strips of another need, where both are of one tape and have one name: on the shelf they are one length.
    pub(crate) fn takes_in(&mut self, other: &Self) -> bool {
        let (Of::Tape(tape, torn), Of::Tape(more, _)) = (&mut self.of, other.of) else {
            return false;
        };
        if tape.id != more.id || self.id != other.id {
            return false;
        }
        torn.length = torn.length * f64::from(self.count) + other.tape_length();
        self.count = 1;
        true
    }

    /// Tells whether there is none of it.
    pub(crate) fn is_nothing(&self) -> bool {
        self.count == 0
    }

    /// Returns how long its tape is in all.
    pub(crate) fn tape_length(&self) -> Length {
        match self.of {
            Of::Tape(_, torn) => torn.length * f64::from(self.count),
            _ => Length::ZERO,
        }
    }

    /// Returns how far its mass may be off.
    pub(crate) const fn doubt(&self) -> Doubt {
        match self.of {
            Of::Fill(..) => Doubt::Fill,
            Of::KeptCase(..) => Doubt::Weighed,
            _ => Doubt::Sheet,
        }
    }

    /// Tells whether it is foam that crumbs.
    pub(crate) const fn sheds(&self) -> bool {
        match self.of {
            Of::Foam(foam, ..) => foam.sheds,
            Of::Board(..)
            | Of::Saved(..)
            | Of::Paper(..)
            | Of::Wrap(..)
            | Of::Film(..)
            | Of::Tape(..)
            | Of::Fill(..)
            | Of::Tube(..)
            | Of::Core(..)
            | Of::Batten(..)
            | Of::Mailer(_)
            | Of::Carton(_)
            | Of::KeptCase(..)
            | Of::SlipOn(_)
            | Of::Sundry(_) => false,
        }
    }

    /// Returns the sheet of paper that keeps the crumbs of foam that sheds in: around its narrow side and its thickness with a lap, and
    /// folded over both ends; `None` for anything else. Source: house rule.
    pub(crate) fn case(&self, paper: &'a ContactPaper) -> Option<Self> {
        let Of::Foam(foam, cut, thickness) = self.of else {
            return None;
        };
        foam.sheds.then(|| {
            let [long, short] = [cut.width.max(cut.height), cut.width.min(cut.height)];
            let run = Run::of([(short + thickness) * 2.0 + CASE_LAP, long + thickness]);
            Self::paper(CASE, paper, run)
                .times(self.count)
                .over(self.journeys)
        })
    }

    /// Returns the board that it is cut from, where it is one.
    pub(crate) const fn of_board(&self) -> Option<&'a Board> {
        match self.of {
            Of::Board(board, _) | Of::Saved(board, _) | Of::KeptCase(board, ..) => Some(board),
            _ => None,
        }
    }

    /// Returns how far a knife or scissors go for all of it: a cut each way for a part, since its other two sides are those of the
    /// sheet, the strip or the part before it. Nothing for tape, and for what is poured or taken by the piece. Source: bench practice.
    pub(crate) fn cut_length(&self) -> Length {
        let one = match self.of {
            Of::Board(_, cut) | Of::Foam(_, cut, _) => cut.width + cut.height,
            Of::Paper(_, run) | Of::Wrap(_, run) | Of::Film(_, run) => run.width,
            Of::Tube(..) | Of::Core(..) | Of::Batten(..) => SAWN,
            Of::Saved(..)
            | Of::Tape(..)
            | Of::Fill(..)
            | Of::Mailer(_)
            | Of::Carton(_)
            | Of::KeptCase(..)
            | Of::SlipOn(_)
            | Of::Sundry(_) => Length::ZERO,
        };
        one * f64::from(self.count)
    }

    /// Returns how many times longer its cuts take than those in a single wall: 1.6 in a double one, 4 in wood and fibreboard.
    /// Source: house rule.
    pub(crate) fn cut_factor(&self) -> f64 {
        match self.of_board() {
            Some(board) if board.build == BoardBuild::Solid => THROUGH_WOOD,
            Some(board) if board.caliper >= DOUBLE_WALL => THROUGH_TWO_WALLS,
            _ => 1.0,
        }
    }

    /// Returns what it is made of.
    pub(crate) fn stuff(&self) -> Stuff<'a> {
        match self.of {
            Of::Board(board, _) => Stuff::board(board),
            // It was priced when it was built.
            Of::KeptCase(board, ..) => Stuff {
                reused: false,
                to_check: false,
                ..Stuff::board(board)
            },
            Of::Saved(board, _) => Stuff {
                reused: true,
                ..Stuff::board(board)
            },
            Of::Foam(foam, ..) => Stuff::new(&foam.id, &foam.name, &foam.shelf, foam.plastic),
            Of::Paper(paper, _) => Stuff::new(&paper.id, &paper.name, &paper.shelf, paper.plastic),
            Of::Wrap(wrap, _) => Stuff::new(&wrap.id, &wrap.name, &wrap.shelf, wrap.plastic),
            Of::Film(film, _) => Stuff::new(&film.id, &film.name, &film.shelf, film.plastic),
            Of::Tape(tape, _) => Stuff::new(&tape.id, &tape.name, &tape.shelf, tape.plastic),
            Of::Fill(fill, _) => Stuff::new(&fill.id, &fill.name, &fill.shelf, fill.plastic),
            Of::Tube(tube, _) => Stuff::new(&tube.id, &tube.name, &tube.shelf, false),
            Of::Core(core, _) => Stuff::new(&core.id, &core.name, &core.shelf, false),
            Of::Batten(batten, _) => Stuff::new(&batten.id, &batten.name, &batten.shelf, false),
            Of::Mailer(mailer) => {
                Stuff::new(&mailer.id, &mailer.name, &mailer.shelf, mailer.plastic)
            }
            Of::Carton(carton) => Stuff::new(&carton.id, &carton.name, &carton.shelf, false),
            Of::SlipOn(corner) => {
                Stuff::new(&corner.id, &corner.name, &corner.shelf, corner.plastic)
            }
            Of::Sundry(sundry) => Stuff::new(&sundry.id, &sundry.name, &sundry.shelf, false),
        }
    }

    /// Returns what one of it takes, weighs and costs.
    ///
    /// A piece weighs by its outline and costs by the rectangle that it is cut from; a run weighs by what stays and
    /// costs by its length; fill costs by its mass. Source: house rule.
    fn reckoned(&self) -> (Take, Mass, Decimal) {
        let line = |length| Take::Run {
            length_mm: length,
            width_mm: None,
            area_m2: None,
        };
        let metres = |length: Length| decimal_of(length.as_m());
        match self.of {
            Of::Board(board, cut) => (
                cut.take(board.caliper),
                board.areal_density * cut.outline,
                board.price_per_m2() * decimal_of((cut.width * cut.height).as_m2()),
            ),
            Of::Saved(board, cut) => (
                Take::Each,
                board.areal_density * cut.outline,
                board.price_per_m2() * decimal_of((cut.width * cut.height).as_m2()),
            ),
            Of::Foam(foam, cut, thickness) => (
                cut.take(thickness),
                foam.density * (cut.outline * thickness),
                foam.price_per_m3() * decimal_of((cut.width * cut.height * thickness).as_m3()),
            ),
            Of::Paper(paper, run) => (
                run.take(),
                paper.areal_density * run.stays,
                paper.price_per_m * metres(run.length),
            ),
            Of::Wrap(wrap, run) => (
                run.take(),
                wrap.areal_density * run.stays,
                wrap.price_per_m * metres(run.length),
            ),
            Of::Film(film, run) => (
                run.take(),
                film.areal_density * run.stays,
                film.price_per_m2 * decimal_of((run.length * run.width).as_m2()),
            ),
            Of::Tape(tape, Torn { length, .. }) => (
                line(length),
                tape.linear_density * length,
                tape.price_per_m * metres(length),
            ),
            Of::Fill(fill, volume) => {
                let mass = fill.density * volume;
                let take = Take::Loose { volume_m3: volume };
                (take, mass, fill.price_per_kg * decimal_of(mass.as_kg()))
            }
            Of::Tube(tube, length) => (
                line(length),
                tube.linear_density * length,
                tube.price_per_m * metres(length),
            ),
            Of::Core(core, length) => (
                line(length),
                core.linear_density * length,
                core.price_per_m * metres(length),
            ),
            Of::Batten(batten, length) => (
                line(length),
                batten.linear_density * length,
                batten.price_per_m * metres(length),
            ),
            Of::Mailer(mailer) => (Take::Each, mailer.mass, mailer.price),
            Of::Carton(carton) => (Take::Each, carton.mass, carton.price),
            Of::KeptCase(_, mass, cost) => (Take::Each, mass, cost),
            Of::SlipOn(corner) => (Take::Each, corner.mass, corner.price),
            Of::Sundry(sundry) => (Take::Each, sundry.mass, sundry.price),
        }
    }

    /// Returns what all of it costs, not rounded; what was used before may be free.
    pub(crate) fn cost(&self, reused_is_free: bool) -> Decimal {
        let (_, _, one) = self.reckoned();
        if self.stuff().reused && reused_is_free {
            Decimal::ZERO
        } else {
            one * Decimal::from(self.count) / Decimal::from(self.journeys.max(1))
        }
    }

    /// Returns how much of it was used before: what stays of it, and the room that it would have taken in the bin, lying flat. Board and
    /// foam count as thick as they are, a wrap as thick as it lies under light load, fill as it is poured; what is no thicker than paper,
    /// and what goes by the piece, counts by its mass alone. Source: house rule.
    pub(crate) fn used_again(&self) -> UsedAgain {
        if !self.stuff().reused {
            return UsedAgain::default();
        }
        let (_, mass, _) = self.reckoned();
        let room = match self.of {
            Of::Board(board, cut) | Of::Saved(board, cut) => cut.outline * board.caliper,
            Of::Foam(_, cut, thickness) => cut.outline * thickness,
            Of::Wrap(wrap, run) => run.stays * wrap.loaded_thickness,
            Of::Fill(_, volume) => volume,
            Of::Paper(..)
            | Of::Film(..)
            | Of::Tape(..)
            | Of::Tube(..)
            | Of::Core(..)
            | Of::Batten(..)
            | Of::Mailer(_)
            | Of::Carton(_)
            | Of::KeptCase(..)
            | Of::SlipOn(_)
            | Of::Sundry(_) => Volume::ZERO,
        };
        let count = f64::from(self.count);
        UsedAgain {
            mass: mass * count,
            room: room * count,
        }
    }

    /// Returns the part, weighed and priced.
    pub(crate) fn part(&self, reused_is_free: bool, currency: &Currency) -> Part {
        let stuff = self.stuff();
        let (take, mass, price) = self.reckoned();
        Part {
            id: self.id,
            material: stuff.id.clone(),
            material_name: stuff.name.to_owned(),
            count: self.count,
            take,
            mass: mass * f64::from(self.count),
            cost: Money::new(self.cost(reused_is_free), currency),
            unpriced: stuff.to_check && !stuff.reused && price.is_zero(),
            cutting: Minutes::ZERO,
        }
    }
}

/// What the paper around a piece of foam is called.
pub(crate) const CASE: PartId = PartId::CaseOfPaper;
const CASE_LAP: Length = Length::mm(60.0);

/// How much of something was used before.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub(crate) struct UsedAgain {
    pub(crate) mass: Mass,
    pub(crate) room: Volume,
}

impl UsedAgain {
    pub(crate) fn litres(self) -> f64 {
        self.room.as_m3() * 1000.0
    }
}

impl std::ops::Add for UsedAgain {
    type Output = Self;

    fn add(self, other: Self) -> Self {
        Self {
            mass: self.mass + other.mass,
            room: self.room + other.room,
        }
    }
}

impl std::iter::Sum for UsedAgain {
    fn sum<I: Iterator<Item = Self>>(all: I) -> Self {
        all.fold(Self::default(), std::ops::Add::add)
    }
}

impl<'a> Stuff<'a> {
    fn board(board: &'a Board) -> Self {
        let plastic = board.build.is_plastic();
        Self::new(&board.id, &board.name, &board.shelf, plastic)
    }

    fn new(id: &'a MaterialId, name: &'a str, shelf: &Shelf, plastic: bool) -> Self {
        Self {
            id,
            name,
            reused: shelf.reused,
            plastic,
            to_check: shelf.to_check,
        }
    }
}

impl Cut {
    /// A whole rectangle, width before height.
    pub(crate) fn of([width, height]: [Length; 2]) -> Self {
        Self {
            width,
            height,
            outline: width * height,
            grain: Grain::Free,
        }
    }

    /// Of which only what lies within an outline stays.
    pub(crate) const fn staying(self, outline: Area) -> Self {
        Self { outline, ..self }
    }

    /// Whose flutes lie as they must.
    pub(crate) const fn along(self, grain: Grain) -> Self {
        Self { grain, ..self }
    }

    const fn take(self, thickness: Length) -> Take {
        Take::Piece {
            width_mm: self.width,
            height_mm: self.height,
            thickness_mm: thickness,
            area_m2: self.outline,
            grain: self.grain,
        }
    }
}

impl Run {
    /// A whole run, its length along the roll before its width across it.
    pub(crate) fn of([length, width]: [Length; 2]) -> Self {
        Self {
            length,
            width,
            stays: length * width,
        }
    }

    /// Of which only so much stays.
    pub(crate) const fn staying(self, stays: Area) -> Self {
        Self { stays, ..self }
    }

    const fn take(self) -> Take {
        Take::Run {
            length_mm: self.length,
            width_mm: Some(self.width),
            area_m2: Some(self.stays),
        }
    }
}

#[cfg(test)]
mod tests {
    use rust_decimal_macros::dec;

    use super::*;
    use crate::material::Catalogue;

    fn shelf() -> Catalogue {
        serde_json::from_str(include_str!("../../../../demo/catalogue.json"))
            .expect("the demo catalogue is one")
    }

    #[test]
    fn a_piece_weighs_by_its_outline_and_costs_by_its_rectangle() {
        // A square metre of which half a square metre stays, twice: once its own grams, twice its price.
        let catalogue = shelf();
        let board = &catalogue.boards[0];
        let cut = Cut::of([Length::mm(1000.0); 2]).staying(Area::m2(0.5));
        let part = Need::board(PartId::Board, board, cut)
            .times(2)
            .part(false, &catalogue.currency);
        assert_eq!(part.mass, board.areal_density * Area::m2(1.0));
        assert_eq!(
            part.cost,
            Money::new(board.price_per_m2() * dec!(2), &catalogue.currency)
        );
        assert_eq!(part.take.area(), Some(Area::m2(0.5)));
    }

    #[test]
    fn what_was_used_before_has_grams_and_litres() {
        // Corrugated C is 4 mm thick and weighs 224 g/m2 here: two saved cartons of which half a square metre stays each come to
        // 1 m2 x 4 mm = 4 litres and 224 g; 0.1 m3 of fill that came with a delivery is 100 litres; what is bought new is nothing.
        let catalogue = shelf();
        let board = catalogue
            .boards
            .iter()
            .find(|board| board.caliper == Length::mm(4.0))
            .expect("corrugated C");
        let cut = Cut::of([Length::mm(1000.0); 2]).staying(Area::m2(0.5));
        let again = Need::saved(PartId::Carton, board, cut)
            .times(2)
            .used_again();
        assert!(
            (again.mass.as_g() - board.areal_density.as_g_m2()).abs() < 1e-9,
            "{again:?}"
        );
        assert!((again.litres() - 4.0).abs() < 1e-9, "{again:?}");
        assert_eq!(
            Need::board(PartId::Board, board, cut).used_again(),
            UsedAgain::default()
        );
        let mut fill = catalogue.fills[0].clone();
        fill.shelf.reused = true;
        let again = Need::fill(&fill, Volume::m3(0.1)).used_again();
        assert!((again.litres() - 100.0).abs() < 1e-9, "{again:?}");
        // As new, a saved carton costs what the board would that it is cut from.
        let price = |free| Need::saved(PartId::Carton, board, cut).cost(free);
        assert_eq!(
            [price(true), price(false)],
            [Decimal::ZERO, board.price_per_m2()]
        );
    }

    #[test]
    fn fill_costs_by_its_mass_and_what_was_used_before_may_cost_nothing() {
        let catalogue = shelf();
        let mut fill = catalogue.fills[0].clone();
        let volume = Volume::m3(0.1);
        let grams = (fill.density * volume).as_kg();
        let part = |fill: &Fill, free| Need::fill(fill, volume).part(free, &catalogue.currency);
        let price = fill.price_per_kg * decimal_of(grams);
        assert_eq!(
            part(&fill, true).cost,
            Money::new(price, &catalogue.currency)
        );
        fill.shelf.reused = true;
        assert_eq!(part(&fill, true).cost.amount, Decimal::ZERO);
        assert_eq!(
            part(&fill, false).cost,
            Money::new(price, &catalogue.currency)
        );
        assert!((part(&fill, true).mass.as_kg() - grams).abs() < 1e-12);
    }
}
