//! What the odds are made from: how often a size of piece arrives damaged, what goes through its boards, and what damage costs.

use serde::{Deserialize, Serialize};

use super::{
    Sum,
    checked::{GLASS_AREA, JOULES, MONEY, SHARE_OF_ONE, SIDE, SOFT},
    cushions::MOST_PARTS,
};
use crate::{
    Refusal, Refusals,
    odds::{Harmed, OddsTables, SOFT_J_PER_MM, SizedKind, harm_of, pierced_measure},
};

/// A size of a kind of piece.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct BaseSum {
    /// Of which kind.
    pub kind: SizedKind,
    /// The longest side in mm, 1 to 10 000; of a pane or a mirror its glass in m², 0.001 to 20.
    pub size: f64,
}

/// How often such a piece arrives damaged.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BaseAnswer {
    /// Of a hundred, packed as Standard on a national way, by the starting values.
    pub base_percent: f64,
}

impl Sum for BaseSum {
    type Answer = BaseAnswer;

    fn work(&self) -> Result<BaseAnswer, Vec<Refusal>> {
        let range = match self.kind {
            SizedKind::Canvas | SizedKind::Panel | SizedKind::Frame => SIDE,
            SizedKind::Pane | SizedKind::Mirror => GLASS_AREA,
        };
        Refusals::default()
            .number("size", self.size, range)
            .done()?;
        Ok(BaseAnswer {
            base_percent: OddsTables::default().base_of(self.kind, self.size),
        })
    }
}

/// What lies on both sides of the art, between it and the outside.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct PiercedSum {
    /// Before the face; nothing when left out.
    #[serde(default)]
    pub front: PiercedSide,
    /// Behind; nothing when left out.
    #[serde(default)]
    pub back: PiercedSide,
}

/// What lies on one side.
#[derive(Debug, Clone, PartialEq, Default, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct PiercedSide {
    /// The energy that each board takes to be pierced, in joules, each 0 to 1000; up to twenty.
    pub joules: Vec<f64>,
    /// All that is soft, 0 to 1000.
    pub soft_mm: f64,
}

/// How easily something goes through to the art.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PiercedAnswer {
    /// It grows with danger; only its ratio to another means anything. `null` where a side has nothing.
    pub measure: Option<f64>,
    /// Whether a side has nothing.
    pub unbounded: bool,
}

impl PiercedSide {
    fn check(&self, checked: &mut Refusals, name: &str) {
        if self.joules.len() > MOST_PARTS {
            let says = format!("{} given: give at most {MOST_PARTS}", self.joules.len());
            checked.refuse(format!("{name}.joules"), says);
        }
        for (place, joules) in self.joules.iter().enumerate() {
            checked.number(format!("{name}.joules[{place}]"), *joules, JOULES);
        }
        checked.number(format!("{name}.soft_mm"), self.soft_mm, SOFT);
    }

    fn energy(&self) -> f64 {
        self.joules.iter().sum::<f64>() + self.soft_mm * SOFT_J_PER_MM
    }
}

impl Sum for PiercedSum {
    type Answer = PiercedAnswer;

    fn work(&self) -> Result<PiercedAnswer, Vec<Refusal>> {
        let mut checked = Refusals::default();
        self.front.check(&mut checked, "front");
        self.back.check(&mut checked, "back");
        checked.done()?;
        let measure = pierced_measure(self.front.energy(), self.back.energy());
        let bounded = measure.is_finite();
        Ok(PiercedAnswer {
            measure: bounded.then_some(measure),
            unbounded: !bounded,
        })
    }
}

/// What a damaged parcel costs.
#[derive(Debug, Clone, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct HarmSum {
    /// What each piece is worth, each 0 to 1 000 000 000; one to a hundred.
    pub values: Vec<f64>,
    /// Whether each lies under a pane of glass in a frame.
    #[serde(default)]
    pub glazed: bool,
    /// Whether tape, film or a second pane holds the splinters.
    #[serde(default)]
    pub guarded: bool,
    /// Which part of what harms it is falls, flat and on edges, 0 to 1.
    #[serde(default)]
    pub fall_part: f64,
    /// What a new pane costs with the work, 0 to 1 000 000 000.
    #[serde(default)]
    pub repair: f64,
}

/// What it costs on average.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct HarmAnswer {
    /// Once the parcel arrives damaged, before any cover.
    pub harm: f64,
}

const MOST_PIECES: usize = 100;

impl Sum for HarmSum {
    type Answer = HarmAnswer;

    fn work(&self) -> Result<HarmAnswer, Vec<Refusal>> {
        let mut checked = Refusals::default();
        if self.values.is_empty() || self.values.len() > MOST_PIECES {
            let says = format!("{} given: give 1 to {MOST_PIECES}", self.values.len());
            checked.refuse("values", says);
        }
        for (place, value) in self.values.iter().enumerate() {
            checked.number(format!("values[{place}]"), *value, MONEY);
        }
        checked
            .number("fall_part", self.fall_part, SHARE_OF_ONE)
            .number("repair", self.repair, MONEY)
            .done()?;
        let pieces: Vec<Harmed> = self
            .values
            .iter()
            .map(|&value| Harmed {
                value,
                glazed: self.glazed,
                guarded: self.guarded,
                fall_part: self.fall_part,
                repair: self.repair,
            })
            .collect();
        Ok(HarmAnswer {
            harm: harm_of(&pieces),
        })
    }
}
