//! The odds of a plan: its hazards against the Standard pack of the same piece, and what follows for the way.

use serde::{Deserialize, Serialize};

use super::reference::{Packed, Reference};
use crate::{
    house::{Carriage, HouseRules},
    layer::Make,
    odds::{
        Harmed, Hazard, OddsTables, PieceClass, Travels, WayRisk, alike, compared, harm_of,
        together,
    },
    piece::{Condition, Construction, Fragility, Medium, PaintBody, Pane, Piece},
    place::Route,
    quantity::Money,
};

/// How likely a plan is to arrive damaged, and by what.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Odds {
    /// That it arrives damaged, as a fraction.
    pub probability: f64,
    /// The lower end of the range.
    pub low: f64,
    /// The upper end.
    pub high: f64,
    /// The same as people say it: about one in so many.
    pub one_in: OneIn,
    /// The plan against the Standard pack of the same piece.
    pub factor: f64,
    /// What the studio's own record makes of it.
    pub k: f64,
    /// How many of a hundred such pieces arrive damaged in their Standard pack, on a national way.
    pub base_percent: f64,
    /// How rough the way is against a national one.
    pub route: f64,
    /// Which way that is.
    pub by: Route,
    /// What going that way is called, as it ends a sentence.
    pub on_the_way: &'static str,
    /// Whether it is wet.
    pub wet: bool,
    /// Whether it is hot.
    pub hot: bool,
    /// How many pieces are in the parcel.
    pub pieces: u32,
    /// How many times as often as that piece alone the parcel arrives damaged: 1 for one piece, pieces^0.3 for alike ones. Factor, base,
    /// class and hazards are those of the piece that is likeliest to be harmed.
    pub pieces_times: f64,
    /// Which row of the table it goes by.
    pub class: PieceClass,
    /// What that is called.
    pub class_name: &'static str,
    /// How many parcels the studio has written down; nothing but trade judgement where there are none.
    pub recorded: u32,
    /// That it is lost, as a fraction.
    pub lost: f64,
    /// What the house accepts, as a fraction.
    pub accepted: f64,
    /// What it costs on average once it arrives damaged, before any cover; `None` without a value.
    pub harm: Option<Money>,
    /// What a journey costs on average in damage, loss and the hours of both; `None` without a value.
    pub expected_loss: Option<Money>,
    /// Each hazard against the Standard pack.
    pub hazards: Vec<HazardOdds>,
    /// Each kind of piece in the parcel, in their order.
    #[serde(skip)]
    pub(crate) each: Vec<PieceOdds>,
}

/// One kind of piece in a parcel, as far as the odds of all go.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct PieceOdds {
    /// How many there are, all alike.
    pub count: u32,
    /// What all of them are worth.
    pub value: Option<f64>,
    /// Whether each lies under a pane in a frame.
    pub glazed: bool,
    /// Whether tape or a film holds the splinters of that pane.
    pub guarded: bool,
    /// Which part of what harms it is falls.
    pub fall_part: f64,
    /// Whether money makes up for it.
    pub replaceable: bool,
}

/// A chance as people say it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct OneIn {
    /// About one in so many.
    pub about: u32,
    /// At worst one in so many.
    pub from: u32,
    /// At best one in so many.
    pub to: u32,
}

/// One hazard of a plan.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct HazardOdds {
    /// The hazard.
    pub kind: Hazard,
    /// Its share in what harms such a piece in its Standard pack, as a fraction.
    pub share: f64,
    /// How dangerous the plan leaves it; only its ratio to the reference means anything.
    pub measure: Option<f64>,
    /// How dangerous the Standard pack leaves it.
    pub reference: Option<f64>,
    /// The root of the two, of what is pierced the two themselves, from a quarter to twelve: how often it harms, against Standard.
    /// Nothing where such a parcel has nothing to measure it by.
    pub ratio: Option<f64>,
    /// The same in words.
    pub says: &'static str,
}

const TWO_DIGITS_FROM: f64 = 100.0;
const FEWEST: f64 = 1e-9;

impl OneIn {
    /// Returns a chance and its range as one in so many: whole below a hundred, to two digits above.
    fn of(probability: f64, low: f64, high: f64) -> Self {
        Self {
            about: one_in(probability),
            from: one_in(high),
            to: one_in(low),
        }
    }
}

fn one_in(probability: f64) -> u32 {
    let many = probability.max(FEWEST).recip();
    let step = if many < TWO_DIGITS_FROM {
        1.0
    } else {
        10_f64.powi(digits(many) - 2)
    };
    crate::quantity::ceil_count(((many / step).round() * step).max(1.0) - 0.5)
}

/// How many digits the whole part of a number has.
fn digits(number: f64) -> i32 {
    let mut digits = 1;
    let mut rest = number.round();
    while rest >= 10.0 {
        rest = (rest / 10.0).floor();
        digits += 1;
    }
    digits
}

/// Returns how often a hazard harms against Standard, in words.
fn in_words(ratio: Option<f64>) -> &'static str {
    const WORDS: [(f64, &str); 9] = [
        (0.3, "hardly at all"),
        (0.45, "a third as often"),
        (0.6, "half as often"),
        (0.85, "a quarter less"),
        (0.97, "a little less"),
        (1.03, "as Standard"),
        (1.2, "a little more"),
        (1.6, "1.5 times as often"),
        (2.5, "twice as often"),
    ];
    match ratio {
        None => "not measured",
        Some(ratio) => WORDS
            .iter()
            .find(|(up_to, _)| ratio <= *up_to)
            .map_or("many times as often", |(_, words)| words),
    }
}

/// What the odds of a plan are asked of.
pub(super) struct Asking<'a> {
    pub piece: &'a Piece,
    pub rules: &'a HouseRules,
    pub carriage: Carriage,
    pub reference: &'a Reference,
    pub packed: Packed<'a>,
}

/// Returns how a carriage counts in the table of odds.
pub(crate) const fn travels(carriage: Carriage) -> Travels {
    match carriage {
        Carriage::Flat | Carriage::Folio | Carriage::Padded => Travels::Boxed,
        Carriage::Mailed => Travels::Mailed,
        Carriage::Rolled => Travels::Rolled,
    }
}

impl Odds {
    pub(super) fn of(asking: &Asking<'_>) -> Self {
        let Asking {
            piece,
            rules,
            carriage,
            reference,
            packed,
        } = asking;
        let tables = &rules.odds;
        let class = PieceClass::of(piece, travels(*carriage));
        let frail = i32::from(frailties(piece));
        let base_percent =
            tables.base(class, class.size_of(piece)) * tables.frail_times.powi(frail);
        let way = rules.way();
        let sturdy = Fragility::own(piece, *carriage == Carriage::Rolled);
        let (measures, standard) = (reference.measured(packed, sturdy), reference.measures());
        let shares = tables.class(class).shares();
        let (factor, ratios) = compared(shares, measures, standard);
        let count = piece.count.max(1);
        let pieces_times = alike(count);
        let lambda = base_percent / PERCENT * factor * pieces_times;
        let chance = tables.known().chance(lambda * way.roughness);
        let falls = [Hazard::Flat, Hazard::Edges];
        let of_falls: f64 = falls
            .into_iter()
            .map(|hazard| shares.of(hazard) * ratios.of(hazard).unwrap_or(1.0))
            .sum();
        let taped = || {
            let mut layers = packed.layers.iter();
            layers.any(|layer| matches!(layer.make, Make::GlassTape(_)))
        };
        let each = vec![PieceOdds {
            count,
            value: piece.value,
            glazed: piece.construction == Construction::FramedUnderGlass,
            guarded: piece.pane == Pane::Laminated || taped(),
            fall_part: of_falls / factor,
            replaceable: !piece.irreplaceable,
        }];
        let hazards = Hazard::ALL
            .into_iter()
            .filter(|&kind| shares.of(kind) > 0.0)
            .map(|kind| HazardOdds {
                kind,
                share: shares.of(kind),
                measure: measures.of(kind).number(),
                reference: standard.of(kind).number(),
                ratio: ratios.of(kind),
                says: in_words(ratios.of(kind)),
            })
            .collect();
        let allowances = &rules.allowances;
        let accepted = if class.is_glass() {
            allowances.accept_glass_one_in
        } else {
            allowances.accept_one_in
        };
        Self {
            probability: chance.probability,
            low: chance.low,
            high: chance.high,
            one_in: OneIn::of(chance.probability, chance.low, chance.high),
            factor,
            k: chance.k,
            base_percent,
            route: way.roughness,
            by: way.route,
            on_the_way: way.route.on_the_way(),
            wet: way.wet,
            hot: way.hot,
            pieces: count,
            pieces_times,
            class,
            class_name: class.name(),
            recorded: tables.record.iter().map(|row| row.sent).sum::<u32>()
                + tables.counted.parcels,
            lost: tables.lost_on(way),
            accepted: accepted.recip(),
            harm: None,
            expected_loss: None,
            hazards,
            each,
        }
    }

    /// Returns the odds of all pieces in one parcel: λ = (Σ λᵢ^(10/3))^0.3, told of the piece with the highest λᵢ.
    ///
    /// Source: trade judgement. A parcel is never safer than any piece in it, and one more never makes it safer.
    pub(super) fn of_all(each: Vec<Self>, rules: &HouseRules) -> Option<Self> {
        let lambda = together(each.iter().map(Self::lambda));
        let pieces = each.iter().map(|odds| odds.pieces).sum();
        let kinds: Vec<PieceOdds> = each
            .iter()
            .flat_map(|odds| odds.each.iter().copied())
            .collect();
        let leads = each
            .into_iter()
            .max_by(|one, other| one.lambda().total_cmp(&other.lambda()))?;
        if kinds.len() == 1 {
            return Some(leads);
        }
        let chance = rules.odds.known().chance(lambda * leads.route);
        Some(Self {
            probability: chance.probability,
            low: chance.low,
            high: chance.high,
            one_in: OneIn::of(chance.probability, chance.low, chance.high),
            pieces,
            pieces_times: leads.pieces_times * lambda / leads.lambda(),
            each: kinds,
            ..leads
        })
    }

    /// How often the parcel arrives damaged on a national way, before the studio's record.
    fn lambda(&self) -> f64 {
        self.base_percent / PERCENT * self.factor * self.pieces_times
    }

    /// Returns how often the parcel arrives damaged on its way, before the studio's record.
    #[must_use]
    pub fn intensity(&self) -> f64 {
        self.lambda() * self.route
    }

    /// Returns how likely the same parcel is to arrive damaged on another way.
    pub(crate) fn on(&self, tables: &OddsTables, way: WayRisk) -> (f64, OneIn) {
        let chance = tables.known().chance(self.lambda() * way.roughness);
        (
            chance.probability,
            OneIn::of(chance.probability, chance.low, chance.high),
        )
    }

    /// Returns what it costs on average once it arrives damaged, in the studio's money: √Σ of what each piece costs, squared.
    pub(crate) fn harmed(&self, rules: &HouseRules) -> f64 {
        let allowances = &rules.allowances;
        let hours = allowances.pane_repair_minutes.as_min() / MINUTES_AN_HOUR;
        let repair = allowances.pane_repair.number() + hours * allowances.labour_per_hour.number();
        let pieces: Vec<Harmed> = self
            .each
            .iter()
            .flat_map(|kind| {
                let one = Harmed {
                    value: kind.value.unwrap_or(0.0) / f64::from(kind.count),
                    glazed: kind.glazed,
                    guarded: kind.guarded,
                    fall_part: kind.fall_part,
                    repair,
                };
                (0..kind.count).map(move |_| one)
            })
            .collect();
        harm_of(&pieces)
    }

    /// Tells whether money makes up for every piece in it.
    pub(crate) fn is_replaceable(&self) -> bool {
        self.each.iter().all(|kind| kind.replaceable)
    }

    /// Tells whether it is likelier to arrive damaged than the house accepts.
    #[must_use]
    pub fn is_past_accepted(&self) -> bool {
        self.probability > self.accepted
    }
}

const PERCENT: f64 = 100.0;
const MINUTES_AN_HOUR: f64 = 60.0;

/// How many of the frailties hold that each raise the base: flaking paint, loose pigment, heavy impasto.
fn frailties(piece: &Piece) -> u8 {
    let held = [
        piece.condition == Condition::Flaking,
        piece.medium == Some(Medium::PastelOrCharcoal),
        piece.paint == PaintBody::Impasto,
    ];
    held.into_iter().map(u8::from).sum()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn chances_are_said_as_people_say_them() {
        for (probability, said) in [
            (0.5, 2),
            (0.015_674_1, 64),
            (0.002_995_5, 330),
            (0.001_876_27, 530),
            (0.000_1, 10_000),
            (1.0, 1),
            (0.0, 1_000_000_000),
        ] {
            assert_eq!(one_in(probability), said, "{probability}");
        }
    }

    #[test]
    fn ratios_are_put_in_words() {
        for (ratio, words) in [
            (None, "not measured"),
            (Some(1.0), "as Standard"),
            (Some(0.5), "half as often"),
            (Some(12.0), "many times as often"),
        ] {
            assert_eq!(in_words(ratio), words);
        }
    }
}
