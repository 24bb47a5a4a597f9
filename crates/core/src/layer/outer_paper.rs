//! Paper around the closed box, with the studio's mark.

use serde::Serialize;

use super::kind::{Kind, Nature, Standing, StandingQuestion, from_shelf};
use super::{
    Layer, Make, Making, Supplies,
    contact::{strip_of, strips_across},
};
use crate::{
    Refusal,
    house::OutsideRule,
    material::{ContactPaper, Use},
    part::{Need, PartId, StripId},
    quantity::Length,
    space::{Addition, Envelope, LayerSlot},
};

/// A sheet around the closed box.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct OuterPaper {
    /// Around the box, with its lap.
    #[serde(rename = "around_mm")]
    pub around: Length,
    /// Along the box, with what closes its ends.
    #[serde(rename = "along_mm")]
    pub along: Length,
    /// Off the roll, side by side.
    pub strips: u32,
    /// Whether it carries the studio's mark.
    pub marked: bool,
}

/// Paper around the closed box.
pub(super) const KIND: Kind = Kind::new(Nature::PLAIN, stands, |around| {
    OuterPaper::layer(around.supplies, around.inside()).map(Some)
})
.or(|offering| from_shelf!(offering.catalogue.contact_papers, outer_paper).collect());

fn stands(asked: &StandingQuestion<'_>) -> Standing {
    let dressed = asked.rules.schools.outside == OutsideRule::Dressed;
    asked.boxed(|| if dressed { Standing::On } else { Standing::Off })
}

/// The ends of a deep box close with half as much again as it is deep.
const END_DEPTHS: f64 = 1.5;

impl OuterPaper {
    /// Returns the paper for a box by its outside: (2·(w + d) + lap) × (h + max(1.5·d, d + lap)), h its longest side and
    /// d its shortest, cut across a roll in as many strips as it takes. Source: house rule.
    #[must_use]
    pub fn around(outside: Envelope, roll_width: Length, lap: Length, marked: bool) -> Self {
        let mut sides = [outside.across, outside.up, outside.through];
        sides.sort_unstable();
        let [d, w, h] = sides;
        let along = h + (d * END_DEPTHS).max(d + lap);
        Self {
            around: (w + d) * 2.0 + lap,
            along,
            strips: strips_across(along, roll_width, lap),
            marked,
        }
    }

    /// Returns its strips off a roll.
    pub(super) fn needs<'a>(
        self,
        name: PartId,
        paper: &'a ContactPaper,
        lap: Length,
    ) -> Vec<Need<'a>> {
        let strip = strip_of(self.strips, [self.around, self.along], lap);
        vec![Need::paper(name, paper, strip).times(self.strips)]
    }

    fn layer(supplies: &Supplies<'_>, inside: Envelope) -> Result<Layer, Refusal> {
        let paper = supplies.paper("choices.outer_paper", &supplies.rules.materials.outer_paper)?;
        let allowances = supplies.allowances();
        let lap = allowances.outer_paper_lap;
        let mark = supplies.catalogue.sundry_for(Use::StudioMark);
        let sheet = Self::around(inside, paper.roll_width, lap, mark.is_some());
        let t = paper.thickness;
        let mut needs = sheet.needs(PartId::OuterPaper, paper, lap);
        needs.extend([
            Need::tape(supplies.seal_tape, StripId::AlongEachLap, sheet.along).times(sheet.strips),
            Need::tape(supplies.seal_tape, StripId::AroundEachEnd, sheet.around).times(2),
        ]);
        needs.extend(mark.map(|mark| Need::sundry(PartId::StudiosMark, mark)));
        Ok(supplies.layer(Making {
            slot: LayerSlot::OuterPaper,
            needs,
            adds: Addition::new(t, t, t, t),
            inside,
            minutes: allowances.outer_paper_minutes,
            why: "The buyer first sees paper and the studio's mark; it doesn't show what is inside.",
            make: Make::OuterPaper(sheet),
            cushioning: None,
        }))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn paper_goes_around_and_closes_the_ends() {
        // 760 × 580 × 100: 2 × (580 + 100) + 60 = 1420 around; 760 + max(150, 160) = 920 along; off 610 with laps of 60
        // (920 − 60)/550 = 1.56: two strips. Deep, 300: 760 + 450 = 1210.
        let paper = |deep: f64| {
            let [across, up, through] = [580.0, 760.0, deep].map(Length::mm);
            let outside = Envelope {
                across,
                up,
                through,
            };
            OuterPaper::around(outside, Length::mm(610.0), Length::mm(60.0), false)
        };
        let flat = paper(100.0);
        assert_eq!(
            (flat.around, flat.along),
            (Length::mm(1420.0), Length::mm(920.0))
        );
        assert_eq!(flat.strips, 2);
        assert_eq!(paper(300.0).along, Length::mm(1210.0));
    }
}
