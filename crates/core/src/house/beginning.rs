//! From whom to begin: which preset a shipment starts from, by where it goes, what it is and what it is worth.

use serde::{Deserialize, Serialize};

use super::HouseRules;
use crate::{Refusal, Refusals, odds::PieceClass, place::Route, quantity::Sum};

/// A line of the table: when all that it names holds, a shipment starts from its preset.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct BeginLine {
    /// On one of these routes; on any, when none is named.
    pub routes: Vec<Route>,
    /// Of one of these kinds; of any, when none is named.
    pub classes: Vec<PieceClass>,
    /// Worth more than this.
    pub value_over: Option<Sum>,
    /// Worth at most this.
    pub value_up_to: Option<Sum>,
    /// Only a piece that can't be replaced.
    pub irreplaceable: bool,
    /// The preset, or the house's own rules by their name.
    pub start_from: String,
}

/// What the table is asked about.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct BeginQuestion {
    /// Which way it goes.
    pub route: Route,
    /// What kind it is.
    pub class: PieceClass,
    /// What it is worth, where that is known.
    pub value: Option<f64>,
    /// Whether it can't be replaced.
    pub irreplaceable: bool,
}

/// What a shipment starts from.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema), schema(as = Began))]
pub struct Beginning {
    /// The preset.
    pub preset: String,
    /// The line of the table that it followed, from 1; `None` if none matched, or where the shipment names
    /// its own.
    pub line: Option<usize>,
    /// Why, in a few words.
    pub says: String,
}

const MOST_LINES: usize = 50;
const LONGEST_NAME: usize = 60;

impl BeginLine {
    fn holds(&self, asked: BeginQuestion) -> bool {
        (self.routes.is_empty() || self.routes.contains(&asked.route))
            && (self.classes.is_empty() || self.classes.contains(&asked.class))
            && self
                .value_over
                .is_none_or(|over| asked.value.is_some_and(|value| value > over.number()))
            && self
                .value_up_to
                .is_none_or(|most| asked.value.is_some_and(|value| value <= most.number()))
            && (!self.irreplaceable || asked.irreplaceable)
    }

    /// Returns what it asks for, in a few words.
    #[must_use]
    pub fn says(&self) -> String {
        let mut parts = Vec::new();
        let listed = |names: Vec<&str>| names.join(" or ");
        let all_of = |which: fn(PieceClass) -> bool| {
            let mut of_kind = PieceClass::ALL.iter().filter(|&&class| which(class));
            self.classes.iter().all(|&class| which(class))
                && of_kind.all(|class| self.classes.contains(class))
        };
        if all_of(PieceClass::is_loose) {
            parts.push("loose sheets, flat or rolled".to_owned());
        } else if all_of(PieceClass::is_glass) {
            parts.push("glass or a mirror".to_owned());
        } else if all_of(|class| !class.is_glass()) {
            parts.push("no glass or mirror".to_owned());
        } else if !self.classes.is_empty() {
            parts.push(listed(
                self.classes.iter().map(|class| class.name()).collect(),
            ));
        }
        if !self.routes.is_empty() {
            parts.push(listed(
                self.routes.iter().map(|route| route.name()).collect(),
            ));
        }
        if let Some(over) = self.value_over {
            parts.push(format!("worth over {:.0}", over.number()));
        }
        if let Some(most) = self.value_up_to {
            parts.push(format!("worth at most {:.0}", most.number()));
        }
        if self.irreplaceable {
            parts.push("can't be replaced".to_owned());
        }
        if parts.is_empty() {
            "everything else".to_owned()
        } else {
            parts.join(", ")
        }
    }
}

/// Returns the table that a studio starts with. Source: workshop custom.
#[must_use]
pub fn shipped_beginnings() -> Vec<BeginLine> {
    use PieceClass as Class;
    let line = |start_from: &str| BeginLine {
        start_from: start_from.to_owned(),
        ..BeginLine::default()
    };
    let twice = || line(TWICE_BOXED);
    let classes = |which: fn(Class) -> bool| {
        let all = Class::ALL.iter().copied();
        all.filter(|class| which(*class)).collect()
    };
    vec![
        BeginLine {
            routes: vec![Route::OwnVan],
            ..line("Lean")
        },
        BeginLine {
            classes: vec![Class::PaperBoxed, Class::PaperMailed, Class::Rolled],
            ..line("Standard")
        },
        BeginLine {
            irreplaceable: true,
            ..twice()
        },
        BeginLine {
            value_over: Some(WORTH_TWO_BOXES),
            ..twice()
        },
        BeginLine {
            routes: vec![Route::Overseas],
            value_over: Some(WORTH_TWO_OVERSEAS),
            ..twice()
        },
        BeginLine {
            routes: vec![Route::Abroad, Route::Overseas],
            classes: classes(Class::is_glass),
            value_over: Some(GLASS_WORTH_TWO),
            ..twice()
        },
        BeginLine {
            classes: classes(|class| !class.is_glass()),
            value_up_to: Some(WORTH_LITTLE),
            ..line("Lean")
        },
    ]
}

const TWICE_BOXED: &str = "Twice boxed";
const WORTH_TWO_BOXES: Sum = Sum::new(2000.0);
const WORTH_TWO_OVERSEAS: Sum = Sum::new(400.0);
const GLASS_WORTH_TWO: Sum = Sum::new(200.0);
const WORTH_LITTLE: Sum = Sum::new(100.0);

impl HouseRules {
    /// Returns what a shipment starts from: the first line that holds, else the house's own rules.
    #[must_use]
    pub fn begin(&self, asked: BeginQuestion) -> Beginning {
        let found = self
            .beginnings
            .iter()
            .enumerate()
            .find(|(_, line)| line.holds(asked));
        match found {
            Some((place, line)) => Beginning {
                preset: line.start_from.clone(),
                line: Some(place + 1),
                says: line.says(),
            },
            None => Beginning {
                preset: self.name.clone(),
                line: None,
                says: "everything else".to_owned(),
            },
        }
    }

    /// Checks the table of beginnings.
    pub(super) fn beginnings_refused(&self) -> Vec<Refusal> {
        if self.beginnings.len() > MOST_LINES {
            let says = format!(
                "{} lines given: keep at most {MOST_LINES}",
                self.beginnings.len()
            );
            return vec![Refusal::new("beginnings", says)];
        }
        let mut refusals = Refusals::default();
        for (at, line) in self.beginnings.iter().enumerate() {
            let length = line.start_from.trim().chars().count();
            if !(1..=LONGEST_NAME).contains(&length) {
                let says = "name the preset to start from";
                refusals.refuse(format!("beginnings[{at}].start_from"), says);
            }
            for (field, value) in [
                ("value_over", line.value_over),
                ("value_up_to", line.value_up_to),
            ] {
                if value.is_some_and(|value| !(0.0..=Sum::MOST).contains(&value.number())) {
                    let says = format!("give a value from 0 to {:.0}", Sum::MOST);
                    refusals.refuse(format!("beginnings[{at}].{field}"), says);
                }
            }
        }
        refusals.into()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn asked(route: Route, class: PieceClass, value: f64) -> BeginQuestion {
        BeginQuestion {
            route,
            class,
            value: Some(value),
            irreplaceable: false,
        }
    }

    #[test]
    fn the_first_line_that_holds_is_followed() {
        let rules: HouseRules =
            serde_json::from_str(include_str!("../../../../demo/house-rules.json")).expect("rules");
        use PieceClass as Class;
        for (asked, preset, line) in [
            (
                asked(Route::OwnVan, Class::MirrorLarge, 9000.0),
                "Lean",
                Some(1),
            ),
            // Paper stays Standard even overseas.
            (
                asked(Route::Overseas, Class::PaperBoxed, 900.0),
                "Standard",
                Some(2),
            ),
            // A canvas of 60 does not go overseas in two boxes for four times its value.
            (asked(Route::Overseas, Class::Canvas, 60.0), "Lean", Some(7)),
            (
                asked(Route::Overseas, Class::Canvas, 400.0),
                "Standard",
                None,
            ),
            (
                asked(Route::Overseas, Class::Canvas, 400.01),
                "Twice boxed",
                Some(5),
            ),
            (
                asked(Route::Abroad, Class::GlassSmall, 90.0),
                "Standard",
                None,
            ),
            (
                asked(Route::Abroad, Class::GlassSmall, 201.0),
                "Twice boxed",
                Some(6),
            ),
            (
                asked(Route::National, Class::Canvas, 100.0),
                "Lean",
                Some(7),
            ),
            (asked(Route::Abroad, Class::Canvas, 101.0), "Standard", None),
            (
                asked(Route::National, Class::Canvas, 2000.0),
                "Standard",
                None,
            ),
            (
                asked(Route::National, Class::Canvas, 2000.01),
                "Twice boxed",
                Some(4),
            ),
        ] {
            let began = rules.begin(asked);
            assert_eq!(
                (began.preset.as_str(), began.line),
                (preset, line),
                "{asked:?}"
            );
        }
        assert_eq!(rules.beginnings[1].says(), "loose sheets, flat or rolled");
        assert_eq!(
            rules.beginnings[5].says(),
            "glass or a mirror, across a border or overseas, worth over 200"
        );
        assert_eq!(
            rules.beginnings[6].says(),
            "no glass or mirror, worth at most 100"
        );
        let treasured = BeginQuestion {
            irreplaceable: true,
            ..asked(Route::National, Class::Canvas, 10.0)
        };
        assert_eq!(rules.begin(treasured).line, Some(3));
        assert_eq!(rules.begin(treasured).says, "can't be replaced");
        let emptied = HouseRules {
            beginnings: std::sync::Arc::default(),
            ..rules
        };
        assert_eq!(emptied.begin(treasured).preset, "Standard");
    }
}
