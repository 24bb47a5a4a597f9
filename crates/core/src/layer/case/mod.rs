//! The travel case: two faces on a frame of battens, screwed shut, that comes back and goes out again.

mod acts;
mod joints;
mod kept;
mod timber;

pub use joints::{Joins, Joint, holds};
use serde::Serialize;
pub use timber::{SawnBatten, StockLength, least_lengths, sawn};

use self::{
    joints::Asked,
    timber::{across, butted, face_parts, flat_batten, frame_for},
};
use super::boxed::GLUE_G_M2;
use super::kind::Around;
use super::{Cushioning, Layer, Make, Making, Sides};
use crate::{
    Refusal,
    house::Allowances,
    material::{Batten, Board, Foam, Sundry, Use},
    part::{Cut, Need, PartId},
    quantity::{Area, Length, Mass, Minutes, Weight, ceil_count},
    space::{Addition, Direction, LayerSlot},
};

/// A case around a wrapped piece.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TravelCase {
    /// Inside the frame, lining included: along the long side of the art, along the short one, and through, as high as its battens.
    pub inside_mm: [Length; 3],
    /// Each of the two faces: along the long side of the art, and along the short one.
    pub face_mm: [Length; 2],
    /// How thick the board of its faces is.
    #[serde(rename = "caliper_mm")]
    pub caliper: Length,
    /// How thick the battens of the frame are.
    #[serde(rename = "batten_mm")]
    pub batten: Length,
    /// Of the lining, on all six sides.
    #[serde(rename = "lining_mm")]
    pub lining: Length,
    /// How much deeper the frame is than what lies in it, because battens come in steps: flat sheets behind fill that.
    #[serde(rename = "deeper_mm")]
    pub deeper: Length,
    /// The flat sheets behind, within the lining of the sides: along the long side of the art, and along the short one.
    pub sheet_mm: [Length; 2],
    /// Whether any are laid.
    #[serde(skip)]
    pub sheets_behind: bool,
    /// Whether sheets stand beside too, since a case that was built before is wider than what goes in.
    #[serde(skip)]
    pub sheets_beside: bool,
    /// Whether it was built before, and stands on the shelf.
    pub kept: bool,
    /// Whether all its battens are heat-treated and stamped, as wood that crosses a border has to be.
    pub treated: bool,
    /// How high each batten of a side is; two are glued edge to edge.
    pub heights_mm: Vec<Length>,
    /// From how many lengths a long side of the frame is butted, and a short one.
    pub lengths_of_a_side: [u32; 2],
    /// From how many parts each face is butted, side by side along its long side; one where a sheet takes it whole.
    pub parts_of_a_face: u32,
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
    /// What screws join, in the order in which it is built, with the hole for each.
    pub joints: Vec<Joint>,
    /// White glue, where battens are glued edge to edge.
    #[serde(rename = "glue_g")]
    pub glue: Mass,
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
    /// What it weighs empty: as it was weighed, once it was, and as the sum says until then.
    #[serde(rename = "empty_g")]
    pub empty: Mass,
    /// Over how many journeys its cost and the time to build it are spread.
    pub journeys: u32,
    /// To build it, once.
    #[serde(rename = "build_minutes")]
    pub build: Minutes,
}

const CORNERS: u32 = 4;
const SCREWS_A_CORNER: u32 = 2;
const SCREWS_A_BRACE: u32 = 4;
const SCREWS_A_PLATE: u32 = 4;
const SCREWS_A_CLEAT: u32 = 8;
const SCREWS_A_FOOT: u32 = 2;
const SCREWS_A_HANDLE: u32 = 4;
/// Feet below it, and handles on it, where it is heavy.
const FEET: u32 = 2;
const HANDLES: u32 = 2;
/// Of a brace, a plate or the base of a handle: sheet metal.
const METAL: Length = Length::mm(2.0);
/// The longest screw of a brace or a plate. Source: house rule, as the next four.
const METAL_SCREW: Length = Length::mm(12.0);
/// A screw of a face reaches so far beyond it into the frame's edge.
const INTO_EDGE: Length = Length::mm(25.0);
/// One of a corner so far into the short side's end.
const INTO_END: Length = Length::mm(35.0);
/// One of a foot so far into the foot.
const INTO_FOOT: Length = Length::mm(20.0);
/// One that joins a face to a batten ends so far before the batten's far side.
const SHORT_OF_BATTEN: Length = Length::mm(4.0);
/// One of a handle ends so far before the inside of the frame.
const SHORT_OF_FRAME: Length = Length::mm(2.0);
/// Plates across a glued joint are no further apart.
const PLATE_EVERY: Length = Length::mm(300.0);
/// Under a joint of a face screws are no further apart.
const BUTT_EVERY: Length = Length::mm(150.0);
/// A cleat over the joint of two lengths is so long.
const CLEAT: Length = Length::mm(300.0);
/// Between what goes in and the lining, at each edge.
const CLEARANCE: Length = Length::mm(3.0);
/// What is left unfilled is at most this.
const LEFT_UNFILLED: Length = Length::mm(3.0);
/// Laying a piece in, and driving or drawing a screw of the lid, each journey. Source: house rule.
const LOADING: Minutes = Minutes::min_of(3.0);
const LID_SCREW: Minutes = Minutes::min_of(0.25);

/// The sides of a case, before it is known what it is made of.
#[derive(Debug, Clone, Copy, PartialEq)]
struct CaseSides {
    long: Length,
    short: Length,
    /// How thick a batten of the frame is.
    thick: Length,
}

impl CaseSides {
    /// Each face covers the frame.
    fn face(self) -> [Length; 2] {
        [self.long, self.short].map(|side| side + self.thick * 2.0)
    }

    /// Of both faces.
    fn faces(self) -> Area {
        let [long, short] = self.face();
        long * short * 2.0
    }

    /// Of all four sides of the frame together: two cover the ends of the other two.
    fn around(self) -> Length {
        (self.face()[0] + self.short) * 2.0
    }

    /// Screws around the edge of one face.
    fn screws_around(self, every: Length) -> u32 {
        let [long, short] = self.face();
        ceil_count((long + short) * 2.0 / every)
    }

    /// Plates across the glued joints of all four sides.
    fn plates(self) -> u32 {
        let of = |side: Length| ceil_count(side / PLATE_EVERY) * 2;
        of(self.face()[0]) + of(self.short)
    }
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
        Use::Plate => PartId::FlatPlate,
    }
}

/// The flat sheets that fill a gap: as thick foam as goes in, and card for the rest.
fn flat_sheets<'a>(
    part: PartId,
    (deep, sides): (Length, [Length; 2]),
    (foam, card): (&'a Foam, &'a Board),
) -> Vec<Need<'a>> {
    let mut thicknesses: Vec<Length> = foam.sheets.iter().map(|sheet| sheet.thickness).collect();
    thicknesses.sort_unstable_by(|one, other| other.cmp(one));
    let mut left = deep;
    let mut needs = Vec::new();
    for thick in thicknesses {
        while left >= thick {
            needs.push(Need::foam(part, foam, Cut::of(sides), thick));
            left = left - thick;
        }
    }
    let mut cards = 0;
    while left > LEFT_UNFILLED && left >= card.caliper {
        cards += 1;
        left = left - card.caliper;
    }
    needs.push(Need::board(part, card, Cut::of(sides)).times(cards));
    needs
}

/// To build it. Source: house rule.
fn minutes_of(sides: CaseSides, allowances: &Allowances) -> Minutes {
    allowances.case_minutes + allowances.case_minutes_per_m2 * sides.faces().as_m2()
}

impl TravelCase {
    /// Returns the layer of a case around what is there: the one that was chosen from the shelf, or one that is built.
    ///
    /// # Errors
    /// A [`Refusal`] where what goes in has no room in the one, or no batten, sheet or screw on the shelf does for the other.
    pub(super) fn layer(around: &Around<'_, '_>) -> Result<Layer, Refusal> {
        match &around.supplies.rules.case_kept {
            Some(kept) => Self::kept(around, kept),
            None => Self::built(around),
        }
    }

    fn built(around: &Around<'_, '_>) -> Result<Layer, Refusal> {
        let (supplies, inside) = (around.supplies, around.inside());
        let (catalogue, allowances) = (supplies.catalogue, supplies.allowances());
        let told = |length| supplies.rules.told_in.length(length);
        let refuse = |says: String| Refusal::new("choices.travel_case", says);
        let panel = supplies.board("choices.case_board", &supplies.rules.materials.case_board)?;
        let foam = supplies.foam("choices.lining_foam", &supplies.rules.materials.lining_foam)?;
        let lining = allowances.case_lining;
        let long_way = around.long_way();
        let (long, short) = match long_way {
            Direction::Up => (inside.up, inside.across),
            Direction::Across => (inside.across, inside.up),
        };
        let beside = lining + CLEARANCE;
        let [long, short] = [long, short].map(|side| side + beside * 2.0);
        let through = inside.through + lining * 2.0;
        let frame = frame_for(catalogue, through, long).ok_or_else(|| {
            refuse(format!(
                "the frame must be {} high, and no batten in Materials is, nor two glued edge to edge: add one, or remove layers",
                told(through)
            ))
        })?;
        let first = frame[0];
        let high: Length = frame.iter().map(|batten| batten.height).sum();
        let sides = CaseSides {
            long,
            short,
            thick: first.thickness,
        };
        let face = sides.face();
        let parts = face_parts(face, panel).ok_or_else(|| {
            refuse(format!(
                "no sheet of {} takes a face of {} × {}, even in parts: take another board, or have the case built",
                panel.name,
                told(face[0]),
                told(face[1])
            ))
        })?;
        let middle = across(long, allowances.case_span, parts);
        let flat = flat_batten(catalogue, first.thickness).unwrap_or(first);
        let [lengths_long, lengths_short] = [face[0], short].map(|side| butted(side, first.length));
        let mut battens: Vec<(PartId, &Batten, Length, u32)> = Vec::new();
        for (name, (count, length)) in [
            (PartId::LongSideOfTheFrame, lengths_long),
            (PartId::ShortSideOfTheFrame, lengths_short),
        ] {
            battens.extend(frame.iter().map(|of| (name, *of, length, count * 2)));
        }
        battens.push((PartId::AcrossAFace, flat, face[1], middle * 2));
        let (stock, least) = Self::stock_for(&battens).ok_or_else(|| {
            refuse(format!(
                "a batten across a face is {} long, longer than any in Materials: have the case built",
                told(face[1])
            ))
        })?;
        let glued = frame.len() > 1;
        let plates = if glued { sides.plates() } else { 0 };
        let cleats = (lengths_long.0 - 1 + lengths_short.0 - 1) * 2;
        let deeper = high - through;
        let sheet_mm = [long, short].map(|side| side - lining * 2.0);
        let cut_foam =
            |name, of: [Length; 2], count| Need::foam(name, foam, Cut::of(of), lining).times(count);
        let between = high - lining * 2.0;
        let mut needs = vec![
            Need::board(
                PartId::CaseFace,
                panel,
                Cut::of([face[0] / f64::from(parts), face[1]]),
            )
            .times(parts * 2),
            Need::board(PartId::Cleat, panel, Cut::of([CLEAT, high])).times(cleats),
            cut_foam(PartId::LiningOfAFace, [long, short], 2),
            cut_foam(PartId::LiningAlong, [long, between], 2),
            cut_foam(PartId::LiningAcross, [short - lining * 2.0, between], 2),
        ];
        let behind = flat_sheets(
            PartId::SheetBehind,
            (deeper, sheet_mm),
            (foam, supplies.first.board),
        );
        let sheets_behind = behind.iter().any(|need| !need.is_nothing());
        needs.extend(behind);
        needs.extend(
            battens
                .iter()
                .map(|(name, of, length, count)| Need::batten(*name, of, *length).times(*count)),
        );
        let hardware = |of: Use, count: u32| {
            let thing = catalogue.sundry_for(of);
            thing.map(|thing| Need::sundry(in_case(of), thing).times(count))
        };
        let asked = |of: Use, what: &str, count: u32| {
            let thing = hardware(of, count);
            thing
                .ok_or_else(|| refuse(format!("it takes {what}, and none is in Materials: add it")))
        };
        let mut glue = Mass::ZERO;
        if glued {
            let joint = sides.around() * first.thickness;
            let grams = ceil_count(joint.as_m2() * GLUE_G_M2);
            glue = Mass::g(f64::from(grams));
            needs.push(asked(Use::Glue, "white glue", grams)?);
            needs.push(asked(Use::Plate, "flat plates", plates)?);
        }
        needs.extend(hardware(Use::CornerBrace, CORNERS));
        needs.extend(hardware(Use::Foot, FEET));
        let sold: Vec<&Sundry> = catalogue.screws().collect();
        let foot = catalogue.sundry_for(Use::Foot);
        let (p, b) = (panel.caliper, first.thickness);
        let on_battens = |every: Length| ceil_count(face[1] / every) + 1;
        let joints_of_a_face = parts - 1;
        let around_it = sides.screws_around(allowances.case_screw_every);
        let joint = |joins, through, into, most, count| Asked {
            joins,
            through,
            into,
            most,
            count,
        };
        let to_batten = p + b - SHORT_OF_BATTEN;
        let mut all = vec![
            joint(Joins::Plate, METAL, b, METAL_SCREW, plates * SCREWS_A_PLATE),
            joint(Joins::Cleat, p, b, to_batten, cleats * SCREWS_A_CLEAT),
            joint(
                Joins::Corner,
                b,
                short,
                b + INTO_END,
                CORNERS * SCREWS_A_CORNER,
            ),
            joint(
                Joins::Brace,
                METAL,
                b,
                METAL_SCREW,
                CORNERS * SCREWS_A_BRACE,
            ),
            joint(
                Joins::Foot,
                b,
                foot.map_or(Length::ZERO, |foot| foot.thickness),
                b + INTO_FOOT,
                if foot.is_some() {
                    FEET * SCREWS_A_FOOT
                } else {
                    0
                },
            ),
        ];
        let after = [
            joint(
                Joins::Batten,
                p,
                b,
                to_batten,
                (middle - joints_of_a_face) * on_battens(allowances.case_screw_every) * 2,
            ),
            joint(
                Joins::Butt,
                p,
                b,
                to_batten,
                joints_of_a_face * on_battens(BUTT_EVERY) * 4,
            ),
            joint(Joins::Floor, p, high, p + INTO_EDGE, around_it),
            joint(Joins::Lid, p, high, p + INTO_EDGE, around_it),
        ];
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
        if catalogue.sundry_for(Use::Handle).is_some() {
            let most = b - SHORT_OF_FRAME;
            all.push(joint(
                Joins::Handle,
                METAL,
                b,
                most,
                handles * SCREWS_A_HANDLE,
            ));
        }
        all.extend(after);
        let mut joints = Vec::new();
        for one in all.iter().filter(|one| one.count > 0) {
            let (screw, joint) = one.screwed(&sold).ok_or_else(|| {
                refuse(format!(
                    "no screw in Materials holds in {} behind {}: it may be {} long at most. Add one",
                    told(one.into),
                    told(one.through),
                    told(one.most)
                ))
            })?;
            needs.push(Need::sundry(PartId::Screw, screw).times(joint.count));
            joints.push(joint);
        }
        let sum = weighed(&needs);
        let on_scale = supplies.rules.shipment.case_empty;
        let empty = on_scale.unwrap_or(sum);
        let build = minutes_of(sides, allowances);
        let beyond = first.thickness + beside;
        let standing = if foot.is_some() {
            allowances.case_foot
        } else {
            Length::ZERO
        };
        // It stands on a long side, below which the feet are.
        let (left, bottom) = match long_way {
            Direction::Up => (standing, Length::ZERO),
            Direction::Across => (Length::ZERO, standing),
        };
        let flat_on = if middle > 0 {
            flat.thickness
        } else {
            Length::ZERO
        };
        let wall = p + flat_on + lining;
        let adds = Addition::new(beyond, beyond, wall, wall + deeper);
        let needs = needs.into_iter().map(|need| need.over(journeys)).collect();
        // The lid has as many screws as the floor.
        let lid_screws = around_it;
        let layer = supplies.layer(Making {
            slot: LayerSlot::Box,
            needs,
            adds: Addition {
                left: adds.left + left,
                bottom: adds.bottom + bottom,
                ..adds
            },
            inside,
            minutes: build / f64::from(journeys) + LOADING + LID_SCREW * f64::from(lid_screws),
            why: "A case is built once and used many times. Its faces withstand what pierces a carton.",
            make: Make::TravelCase(Self {
                inside_mm: [long, short, high],
                face_mm: face,
                caliper: p,
                batten: first.thickness,
                lining,
                deeper,
                sheet_mm,
                sheets_behind,
                sheets_beside: false,
                kept: false,
                treated: battens
                    .iter()
                    .all(|(_, of, _, count)| *count == 0 || of.treated),
                heights_mm: frame.iter().map(|batten| batten.height).collect(),
                lengths_of_a_side: [lengths_long.0, lengths_short.0],
                parts_of_a_face: parts,
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
                screws: joints.iter().map(|joint| joint.count).sum(),
                joints,
                glue,
                lid_screws,
                braces: CORNERS,
                handles,
                feet: FEET,
                empty,
                journeys,
                build,
            }),
            cushioning: Some(Cushioning::covering(foam.curve, Sides::all(lining))),
        });
        Ok(Layer {
            weight: on_scale.map_or(layer.weight, |empty| Weight::with_doubt(empty, 0.0)),
            ..layer
        })
    }

    /// The stock lengths that battens are sawn from, and how few would do at least; `None` if one is longer than its stock length.
    fn stock_for(battens: &[(PartId, &Batten, Length, u32)]) -> Option<(Vec<StockLength>, u32)> {
        let mut stock: Vec<StockLength> = Vec::new();
        let mut least = 0;
        let mut known: Vec<&Batten> = Vec::new();
        for (_, kind, ..) in battens {
            if known.iter().any(|one| one.id == kind.id) {
                continue;
            }
            known.push(kind);
            let parts: Vec<Length> = battens
                .iter()
                .filter(|(_, of, ..)| of.id == kind.id)
                .flat_map(|(_, _, length, count)| (0..*count).map(|_| *length))
                .collect();
            if parts.is_empty() {
                continue;
            }
            let lengths = sawn(&parts, kind.length)?;
            least += least_lengths(&parts, kind.length);
            stock.extend(lengths.into_iter().map(|cuts| StockLength::of(kind, &cuts)));
        }
        Some((stock, least))
    }
}

impl TravelCase {
    /// Returns a joint of it.
    pub(crate) fn joint(&self, joins: Joins) -> Option<&Joint> {
        self.joints.iter().find(|joint| joint.joins == joins)
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

#[cfg(test)]
mod tests {
    use super::*;

    /// 1200 × 900 inside, battens of 25: faces 1250 × 950, 1.1875 m² each: 60 + 20 × 2.375 = 107.5 minutes. Around a face
    /// (1250 + 950) × 2 = 4400: 18 screws every 250. The frame is (1250 + 900) × 2 = 4300 around; plates every 300 are 5 on a long side
    /// and 3 on a short one.
    #[test]
    fn the_sides_of_a_case_follow_from_its_inside() {
        let [long, short, thick] = [1200.0, 900.0, 25.0].map(Length::mm);
        let sides = CaseSides { long, short, thick };
        assert_eq!(sides.face(), [1250.0, 950.0].map(Length::mm));
        let allowances = Allowances::default();
        assert!((minutes_of(sides, &allowances).as_min() - 107.5).abs() < 1e-9);
        assert_eq!(sides.screws_around(allowances.case_screw_every), 18);
        assert_eq!(sides.around(), Length::mm(4300.0));
        assert_eq!(sides.plates(), 16);
    }
}
