//! The travel case: a box of plywood on a frame of battens, screwed shut, that comes back and goes out again.

use serde::Serialize;

use super::kind::Around;
use super::{Cushioning, Layer, Make, Making, Sides};
use crate::{
    Refusal,
    container::{self, Act, Container, Does, Opening, Titles, WayIn},
    house::Allowances,
    material::{Batten, Catalogue, Use},
    part::{Cut, Need, PartId},
    quantity::{Area, Length, Mass, Minutes, ceil_count},
    space::{Addition, Direction, LayerSlot},
    text::number,
};

/// A case around a wrapped piece.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TravelCase {
    /// Inside the frame, lining included: along the long side of the art, along the short one, and through, as high as its battens.
    pub inside_mm: [Length; 3],
    /// Each of the two faces: along the long side of the art, and along the short one.
    pub face_mm: [Length; 2],
    /// Of the board of the faces.
    #[serde(rename = "caliper_mm")]
    pub caliper: Length,
    /// How thick the battens of the frame are.
    #[serde(rename = "batten_mm")]
    pub batten: Length,
    /// Of the lining, on all six sides.
    #[serde(rename = "lining_mm")]
    pub lining: Length,
    /// How much deeper the frame is than what lies in it, because battens come in steps: that is filled behind.
    #[serde(rename = "deeper_mm")]
    pub deeper: Length,
    /// Battens flat across the outside of each face.
    pub middle: u32,
    /// How wide each of them lies on its face.
    #[serde(rename = "flat_mm")]
    pub flat: Length,
    /// Every batten as it is sawn: the long and the short sides of the frame, then those across the faces.
    pub battens: Vec<SawnBatten>,
    /// The stock lengths that they are sawn from, each with the cuts in order.
    pub stock: Vec<StockLength>,
    /// No fewer stock lengths would do.
    pub least_lengths: u32,
    /// Screws in all.
    pub screws: u32,
    /// Those of them that hold the lid.
    pub lid_screws: u32,
    /// Corner braces.
    pub braces: u32,
    /// Handles.
    pub handles: u32,
    /// Feet below the long side that it stands on.
    pub feet: u32,
    /// What it weighs empty: it is weighed once, and comes back.
    #[serde(rename = "empty_g")]
    pub empty: Mass,
    /// Over how many journeys its cost is spread.
    pub journeys: u32,
}

/// Battens of one length.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SawnBatten {
    /// What they are in the frame.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub name: PartId,
    /// Which batten of the shelf.
    pub of: String,
    /// How long each is.
    #[serde(rename = "length_mm")]
    pub length: Length,
    /// How many.
    pub count: u32,
}

/// A stock length, and what is sawn from it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StockLength {
    /// Which batten of the shelf.
    pub of: String,
    /// How long it is.
    #[serde(rename = "length_mm")]
    pub length: Length,
    /// How high it is.
    #[serde(rename = "height_mm")]
    pub height: Length,
    /// Where it is sawn, as running distances from one end.
    pub cuts_mm: Vec<Length>,
    /// What is left of it.
    #[serde(rename = "left_mm")]
    pub left: Length,
}

/// What a saw takes away at each cut.
const KERF: Length = Length::mm(3.0);
/// Up to this long side thin battens are stiff enough. Source: house rule.
const THIN_TO: Length = Length::mm(1200.0);
/// A batten of this thickness or more is a thick one.
const THICK: Length = Length::mm(22.0);
const CORNERS: u32 = 4;
const SCREWS_A_BRACE: u32 = 4;

/// The sides of a case, before it is known what it is made of.
#[derive(Debug, Clone, Copy, PartialEq)]
struct CaseSides {
    long: Length,
    short: Length,
    /// Of a batten of the frame: how thick it is, and how high.
    batten: [Length; 2],
}

impl CaseSides {
    /// Each face covers the frame.
    fn face(self) -> [Length; 2] {
        let [thick, _] = self.batten;
        [self.long + thick * 2.0, self.short + thick * 2.0]
    }

    /// Of both faces.
    fn faces(self) -> Area {
        let [long, short] = self.face();
        long * short * 2.0
    }

    /// How many battens lie flat across each face: one for each further span.
    fn middle(self, span: Length) -> u32 {
        ceil_count(self.long / span).max(1) - 1
    }

    /// Screws of one face: around its edge at a distance, and along each batten across it.
    fn screws(self, every: Length, middle: u32) -> u32 {
        let [long, short] = self.face();
        let around = ceil_count((long + short) * 2.0 / every);
        around + middle * (ceil_count(short / every) + 1)
    }
}

/// Returns the stock lengths that parts are sawn from, the longest first into the first that still takes it; `None` where one is longer
/// than a stock length. Source: public engineering practice (first fit, decreasing).
#[must_use]
pub fn sawn(parts: &[Length], stock: Length) -> Option<Vec<Vec<Length>>> {
    let mut parts = parts.to_vec();
    parts.sort_unstable_by(|one, other| other.cmp(one));
    let mut lengths: Vec<(Length, Vec<Length>)> = Vec::new();
    for part in parts {
        if part > stock {
            return None;
        }
        // The last part of a length may end where the length does.
        let takes = |used: Length| used + part <= stock;
        match lengths.iter_mut().find(|(used, _)| takes(*used)) {
            Some((used, cuts)) => {
                *used += part + KERF;
                cuts.push(part);
            }
            None => lengths.push((part + KERF, vec![part])),
        }
    }
    Some(lengths.into_iter().map(|(_, cuts)| cuts).collect())
}

/// Returns how many stock lengths parts take at least: each part and its cut, in all, against a length and one cut; and those longer than
/// half a length never share one. Source: public engineering practice (the one-dimensional bound).
#[must_use]
pub fn least_lengths(parts: &[Length], stock: Length) -> u32 {
    let all: Length = parts.iter().map(|part| *part + KERF).sum();
    let long = parts.iter().filter(|part| (**part * 2.0 + KERF) > stock);
    ceil_count(all / (stock + KERF)).max(u32::try_from(long.count()).unwrap_or(u32::MAX))
}

/// The batten for a depth: the lowest that is high enough, of them a thick one past a long side, and a thin one up to it.
fn batten_for(catalogue: &Catalogue, through: Length, long: Length) -> Option<&Batten> {
    let high = |batten: &&Batten| !batten.shelf.retired && batten.height >= through;
    let wants_thick = long > THIN_TO;
    catalogue.battens.iter().filter(high).min_by_key(|batten| {
        let other = (batten.thickness >= THICK) != wants_thick;
        (batten.height, other, batten.thickness)
    })
}

/// What lies flat across a face: the lowest batten as thick as the frame's.
fn flat_batten(catalogue: &Catalogue, thickness: Length) -> Option<&Batten> {
    let alike = |batten: &&Batten| !batten.shelf.retired && batten.thickness == thickness;
    let battens = catalogue.battens.iter().filter(alike);
    battens.min_by_key(|batten| batten.height)
}

/// What a small thing is among the parts of a case.
const fn in_case(of: Use) -> PartId {
    match of {
        Use::NameTag => PartId::NameTag,
        Use::Desiccant => PartId::Sachet,
        Use::Label => PartId::Label,
        Use::StudioMark => PartId::StudiosMark,
        Use::EdgeProfile => PartId::EdgeProfile,
        Use::Screw => PartId::Screw,
        Use::CornerBrace => PartId::CornerBrace,
        Use::Handle => PartId::Handle,
        Use::Foot => PartId::Foot,
        Use::Glue => PartId::Glue,
    }
}

impl TravelCase {
    /// Returns the layer of a case around what is there.
    ///
    /// # Errors
    /// A [`Refusal`] where no batten on the shelf is as high as it has to be, or as long.
    pub(super) fn layer(around: &Around<'_, '_>) -> Result<Layer, Refusal> {
        let (supplies, inside) = (around.supplies, around.inside());
        let (catalogue, allowances) = (supplies.catalogue, supplies.allowances());
        let told = |length| supplies.rules.told_in.length(length);
        let panel = supplies.board("choices.case_board", &supplies.rules.materials.case_board)?;
        let foam = supplies.foam("choices.lining_foam", &supplies.rules.materials.lining_foam)?;
        let lining = allowances.case_lining;
        let long_way = around.long_way();
        let (long, short) = match long_way {
            Direction::Up => (inside.up, inside.across),
            Direction::Across => (inside.across, inside.up),
        };
        let [long, short, through] = [long, short, inside.through].map(|side| side + lining * 2.0);
        let frame = batten_for(catalogue, through, long).ok_or_else(|| {
            let says = format!(
                "the frame must be {} high, and no batten in Materials is: add one, or remove layers",
                told(through)
            );
            Refusal::new("choices.travel_case", says)
        })?;
        let sides = CaseSides {
            long,
            short,
            batten: [frame.thickness, frame.height],
        };
        let middle = sides.middle(allowances.case_span);
        let flat = flat_batten(catalogue, frame.thickness).unwrap_or(frame);
        let face = sides.face();
        let battens = [
            (PartId::LongSideOfTheFrame, frame, face[0], 2),
            (PartId::ShortSideOfTheFrame, frame, short, 2),
            (PartId::AcrossAFace, flat, face[1], middle * 2),
        ];
        let too_long = || {
            let says = format!(
                "a batten of {} is longer than any in Materials: have the case built",
                told(face[0])
            );
            Refusal::new("choices.travel_case", says)
        };
        let mut stock = Vec::new();
        let mut least = 0;
        for kind in [frame, flat] {
            let parts: Vec<Length> = battens
                .iter()
                .filter(|(_, of, ..)| of.id == kind.id)
                .flat_map(|(_, _, length, count)| (0..*count).map(|_| *length))
                .collect();
            if stock.iter().any(|one: &StockLength| one.of == kind.name) || parts.is_empty() {
                continue;
            }
            let lengths = sawn(&parts, kind.length).ok_or_else(too_long)?;
            least += least_lengths(&parts, kind.length);
            stock.extend(lengths.into_iter().map(|cuts| StockLength::of(kind, &cuts)));
        }
        let screws = sides.screws(allowances.case_screw_every, middle);
        let deeper = frame.height - through;
        let cut_foam =
            |name, of: [Length; 2], count| Need::foam(name, foam, Cut::of(of), lining).times(count);
        let between = frame.height - lining * 2.0;
        let mut needs = vec![
            Need::board(PartId::CaseFace, panel, Cut::of(face)).times(2),
            cut_foam(PartId::LiningOfAFace, [long, short], 2),
            cut_foam(PartId::LiningAlong, [long, between], 2),
            cut_foam(PartId::LiningAcross, [short - lining * 2.0, between], 2),
            Need::fill(
                supplies.first.fill,
                long * short * deeper / allowances.fill_settling,
            ),
        ];
        needs.extend(
            battens
                .iter()
                .map(|(name, of, length, count)| Need::batten(*name, of, *length).times(*count)),
        );
        let hardware = |of: Use, count: u32| {
            let thing = catalogue.sundry_for(of);
            thing.map(|thing| Need::sundry(in_case(of), thing).times(count))
        };
        let all_screws = screws * 2 + CORNERS * SCREWS_A_BRACE;
        needs.extend(hardware(Use::Screw, all_screws));
        needs.extend(hardware(Use::CornerBrace, CORNERS));
        needs.extend(hardware(Use::Foot, FEET));
        let journeys = allowances.case_journeys;
        let weighed = |needs: &[Need<'_>]| -> Mass { needs.iter().map(Need::mass).sum() };
        let held: Mass = around.layers.iter().map(|layer| layer.weight.mass).sum();
        let piece = around.piece.weight(allowances.piece_doubt).mass;
        let handles = if held + piece + weighed(&needs) > allowances.case_handles_from {
            HANDLES
        } else {
            0
        };
        needs.extend(hardware(Use::Handle, handles));
        let empty = weighed(&needs);
        let minutes = minutes_of(sides, allowances);
        let beyond = frame.thickness + lining;
        let standing = if catalogue.sundry_for(Use::Foot).is_some() {
            allowances.case_foot
        } else {
            Length::ZERO
        };
        // It stands on a long side, below which the feet are.
        let (across, up, left, bottom) = match long_way {
            Direction::Up => (beyond, beyond, standing, Length::ZERO),
            Direction::Across => (beyond, beyond, Length::ZERO, standing),
        };
        let flat_on = if middle > 0 {
            flat.thickness
        } else {
            Length::ZERO
        };
        let wall = panel.caliper + flat_on + lining;
        let adds = Addition::new(across, up, wall, wall + deeper);
        let needs = needs.into_iter().map(|need| need.over(journeys)).collect();
        Ok(supplies.layer(Making {
            slot: LayerSlot::Box,
            needs,
            adds: Addition {
                left: adds.left + left,
                bottom: adds.bottom + bottom,
                ..adds
            },
            inside,
            minutes,
            why: "A case is built once and used many times. Its faces withstand what pierces a carton.",
            make: Make::TravelCase(Self {
                inside_mm: [long, short, frame.height],
                face_mm: face,
                caliper: panel.caliper,
                batten: frame.thickness,
                lining,
                deeper,
                middle,
                flat: flat.height,
                battens: battens
                    .iter()
                    .filter(|(.., count)| *count > 0)
                    .map(|(name, of, length, count)| SawnBatten {
                        name: *name,
                        of: of.name.clone(),
                        length: *length,
                        count: *count,
                    })
                    .collect(),
                stock,
                least_lengths: least,
                screws: all_screws,
                lid_screws: screws,
                braces: CORNERS,
                handles,
                feet: FEET,
                empty,
                journeys,
            }),
            cushioning: Some(Cushioning::covering(foam.curve, Sides::all(lining))),
        }))
    }
}

/// Feet below it, and handles on it, where it is heavy.
const FEET: u32 = 2;
const HANDLES: u32 = 2;

/// To build it. Source: house rule.
fn minutes_of(sides: CaseSides, allowances: &Allowances) -> Minutes {
    allowances.case_minutes + allowances.case_minutes_per_m2 * sides.faces().as_m2()
}

impl TravelCase {
    /// Returns it as hands build, load, close and open it.
    #[must_use]
    pub fn container(&self, of: &container::Use) -> Container {
        let face = PartId::CaseFace;
        let act = |does, says: String| Act::on(does, face, says);
        let mut ready = vec![
            act(
                Does::Stand,
                "Set up the frame on edge, the short battens between the long ones, with a brace in each corner; push it square until both diagonals are one length.".to_owned(),
            ),
            act(
                Does::Glue,
                format!(
                    "Glue one face on it and drive {} screws, evenly spaced along its edge and its battens: that is the floor.",
                    self.lid_screws
                ),
            ),
        ];
        if self.middle > 0 {
            ready.push(act(
                Does::Stand,
                format!(
                    "Screw {} flat across the outside of each face, evenly spaced.",
                    match self.middle {
                        1 => "one batten".to_owned(),
                        count => format!("{} battens", number(count)),
                    }
                ),
            ));
        }
        ready.push(act(
            Does::Stand,
            "Screw the feet below one long side; the case stands on it.".to_owned(),
        ));
        if self.handles > 0 {
            ready.push(act(
                Does::Stand,
                "Screw a handle on each short side, above its middle.".to_owned(),
            ));
        }
        ready.push(act(
            Does::Lay,
            "Lay the lining on the floor and along the four sides.".to_owned(),
        ));
        if self.deeper > Length::ZERO {
            ready.push(act(
                Does::Lay,
                format!(
                    "Lay fill {} thick on the floor: the battens are that much higher.",
                    of.telling.length(self.deeper)
                ),
            ));
        }
        Container {
            parts: vec![face],
            strips: Vec::new(),
            openings: vec![Opening {
                sealed_by: Vec::new(),
                loads: true,
            }],
            way_in: WayIn::Face,
            mouth: None,
            all_at_once: false,
            follows: None,
            measured: false,
            lid: "the lid",
            titles: Titles {
                ready: "Build the case".to_owned(),
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
                    "Lay {} in, {} up, with the same gap on all four sides.",
                    of.what, of.face
                ),
            )],
            close: vec![
                act(
                    Does::Lay,
                    "Lay the last lining over it, then the lid, its edges in line with the frame.".to_owned(),
                ),
                act(
                    Does::Push,
                    "Drive a screw into every hole, from one corner round; none is left out.".to_owned(),
                ),
            ],
            seal: Vec::new(),
            open: vec![
                act(
                    Does::Lift,
                    "Lay it on its back. Undo the screws of the lid, and only those, and keep them in the case: it comes back.".to_owned(),
                ),
                act(Does::Lift, "Lift the lid straight up.".to_owned()),
            ],
        }
    }

    /// Returns where each batten across a face begins and ends along its long side: they part it evenly.
    pub(crate) fn across_at(&self) -> impl Iterator<Item = [Length; 2]> {
        let spans = f64::from(self.middle + 1);
        let span = self.face_mm[0] / spans;
        (1..=self.middle).map(move |at| {
            let middle = span * f64::from(at);
            [middle - self.flat / 2.0, middle + self.flat / 2.0]
        })
    }
}

impl StockLength {
    fn of(batten: &Batten, parts: &[Length]) -> Self {
        let mut at = Length::ZERO;
        let cuts: Vec<Length> = parts
            .iter()
            .map(|part| {
                at += *part;
                let cut = at;
                at += KERF;
                cut
            })
            .collect();
        Self {
            of: batten.name.clone(),
            length: batten.length,
            height: batten.height,
            left: (batten.length - at).max(Length::ZERO),
            cuts_mm: cuts,
        }
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    #[test]
    fn the_sides_of_a_case_follow_from_its_inside() {
        // 1200 × 900 inside, battens 25 × 94: faces 1250 × 950, 1.1875 m² each: 60 + 20 × 2.375 = 107.5 minutes. ⌈1200/800⌉ − 1 = one
        // batten across each face. Around a face (1250 + 950) × 2 = 4400: 18 screws every 250, and ⌈950/250⌉ + 1 = 5 along the batten.
        let [long, short, thick, high] = [1200.0, 900.0, 25.0, 94.0].map(Length::mm);
        let sides = CaseSides {
            long,
            short,
            batten: [thick, high],
        };
        assert_eq!(sides.face(), [1250.0, 950.0].map(Length::mm));
        let allowances = Allowances::default();
        assert!((minutes_of(sides, &allowances).as_min() - 107.5).abs() < 1e-9);
        assert_eq!(sides.middle(allowances.case_span), 1);
        assert_eq!(sides.screws(allowances.case_screw_every, 1), 23);
    }

    #[test]
    fn battens_are_sawn_from_stock_lengths_by_running_distances() {
        // 1250, 1250, 900 and 900 from 2400: 1250 + 3 + 900 = 2153 each, two lengths; together 4300 + 4 × 3 = 4312 over 2403: two at least.
        let parts = [1250.0, 900.0, 1250.0, 900.0].map(Length::mm);
        let stock = Length::mm(2400.0);
        let lengths = sawn(&parts, stock).expect("they are short enough");
        assert_eq!(lengths.len(), 2);
        assert_eq!(least_lengths(&parts, stock), 2);
        assert_eq!(sawn(&[Length::mm(2401.0)], stock), None);
    }

    proptest! {
        #[test]
        fn what_is_sawn_is_all_there_and_near_the_least(
            parts in prop::collection::vec(30.0..2400.0_f64, 1..12),
        ) {
            let parts: Vec<Length> = parts.into_iter().map(Length::mm).collect();
            let stock = Length::mm(2400.0);
            let lengths = sawn(&parts, stock).expect("each is short enough");
            let mut all: Vec<Length> = lengths.iter().flatten().copied().collect();
            let mut wanted = parts.clone();
            all.sort_unstable();
            wanted.sort_unstable();
            prop_assert_eq!(all, wanted);
            // Each length holds its parts and a cut between any two.
            for cuts in &lengths {
                let used: Length = cuts.iter().copied().sum::<Length>()
                    + KERF * f64::from(u32::try_from(cuts.len() - 1).expect("a few"));
                prop_assert!(used <= stock);
            }
            // First fit, decreasing, takes at most 11/9 of the least and one more.
            let found = f64::from(u32::try_from(lengths.len()).expect("a few"));
            let least = f64::from(least_lengths(&parts, stock));
            prop_assert!(found >= least && found <= least * 11.0 / 9.0 * 1.5 + 1.0);
        }
    }
}
