//! When paint has cured enough to be touched by a sheet.

use jiff::{Span, ToSpan, civil::Date};
use serde::{Deserialize, Serialize};

use super::{Medium, PaintBody};

/// When a piece may be wrapped.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Cure {
    /// The first day on which a sheet may lie on it; absent when the day it was finished is not known.
    #[cfg_attr(feature = "schema", schema(value_type = Option<String>, example = "2027-05-02"))]
    pub cured_on: Option<Date>,
    /// How long the paint needs, in words: "6 months".
    pub needs: String,
}

impl Cure {
    /// Tells whether the piece is known to have cured by a day.
    #[must_use]
    pub fn is_cured_by(&self, day: Date) -> bool {
        self.cured_on.is_some_and(|cured_on| cured_on <= day)
    }
}

/// A coat of varnish.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Varnish {
    /// The day it was laid on, when that is known.
    pub laid_on: Option<Date>,
}

/// Varnish needs two weeks before a sheet may lie on it.
const VARNISH_NEEDS: &str = "2 weeks for its varnish";

/// Returns when a surface has cured; `None` if it is ready on the day that it is finished.
///
/// Oil needs 6 months thin and 12 thick, 3 with a fast-drying medium; acrylic 2 weeks thin and 6
/// thick, spray paint 1 week. Raised paint counts as thick. Varnish needs 2 weeks more. The later of both counts. Source:
/// house rule, after workshop custom.
#[must_use]
pub fn cure_of(
    medium: Medium,
    paint: PaintBody,
    finished: Option<Date>,
    varnish: Option<Varnish>,
) -> Option<Cure> {
    let painted = time_needed(medium, paint).map(|(span, needs)| Cure {
        cured_on: finished.map(|day| day.saturating_add(span)),
        needs: needs.to_owned(),
    });
    let varnished = varnish.map(|varnish| Cure {
        cured_on: varnish.laid_on.map(|day| day.saturating_add(2.weeks())),
        needs: VARNISH_NEEDS.to_owned(),
    });
    match (painted, varnished) {
        (Some(painted), Some(varnished)) => Some(later(painted, varnished)),
        (painted, varnished) => painted.or(varnished),
    }
}

/// The one that is ready later; one whose day is not known comes last of all.
fn later(one: Cure, other: Cure) -> Cure {
    match (one.cured_on, other.cured_on) {
        (None, _) => one,
        (_, None) => other,
        (Some(first), Some(second)) if first >= second => one,
        _ => other,
    }
}

fn time_needed(medium: Medium, paint: PaintBody) -> Option<(Span, &'static str)> {
    let thick = paint != PaintBody::Thin;
    Some(match medium {
        Medium::Oil if thick => (12.months(), "12 months"),
        Medium::Oil => (6.months(), "6 months"),
        Medium::OilFastDrying => (3.months(), "3 months"),
        Medium::SprayPaint => (1.week(), "1 week"),
        Medium::Acrylic if thick => (6.weeks(), "6 weeks"),
        Medium::Acrylic => (2.weeks(), "2 weeks"),
        Medium::Watercolour
        | Medium::Encaustic
        | Medium::Print
        | Medium::Drawing
        | Medium::WaxedPaper
        | Medium::PastelOrCharcoal
        | Medium::Photograph
        | Medium::Resin
        | Medium::Gilding
        | Medium::Collage => return None,
    })
}

#[cfg(test)]
mod tests {
    use jiff::civil::date;

    use super::*;

    #[test]
    fn paint_cures_by_its_medium_and_body() {
        let finished = Some(date(2026, 8, 31));
        for (medium, paint, cured_on) in [
            (Medium::Oil, PaintBody::Thin, date(2027, 2, 28)),
            (Medium::Oil, PaintBody::Impasto, date(2027, 8, 31)),
            (Medium::OilFastDrying, PaintBody::Raised, date(2026, 11, 30)),
            (Medium::Acrylic, PaintBody::Thin, date(2026, 9, 14)),
            (Medium::Acrylic, PaintBody::Raised, date(2026, 10, 12)),
        ] {
            let cure = cure_of(medium, paint, finished, None).expect("paint has to cure");
            assert_eq!(cure.cured_on, Some(cured_on), "{medium:?} {paint:?}");
            assert!(cure.is_cured_by(cured_on));
            assert!(!cure.is_cured_by(cured_on.yesterday().expect("not the first of all days")));
        }
    }

    #[test]
    fn a_day_that_is_not_known_is_never_cured_by_then() {
        let cure = cure_of(Medium::Oil, PaintBody::Thin, None, None).expect("oil has to cure");
        assert!(!cure.is_cured_by(date(9999, 12, 31)));
        assert_eq!(cure_of(Medium::Print, PaintBody::Thin, None, None), None);
    }

    #[test]
    fn fresh_varnish_waits_even_where_the_paint_does_not() {
        let varnish = |day| Some(Varnish { laid_on: day });
        let finished = Some(date(2026, 1, 1));
        let laid = date(2026, 11, 10);
        for (medium, cured_on) in [
            (Medium::Print, Some(date(2026, 11, 24))),
            (Medium::Acrylic, Some(date(2026, 11, 24))),
            (Medium::Oil, Some(date(2026, 11, 24))),
        ] {
            let cure = cure_of(medium, PaintBody::Thin, finished, varnish(Some(laid)));
            assert_eq!(cure.expect("varnish has to dry").cured_on, cured_on);
        }
        // Oil finished in October is ready in April, long after its varnish.
        let late = cure_of(
            Medium::Oil,
            PaintBody::Thin,
            Some(date(2026, 10, 1)),
            varnish(Some(laid)),
        );
        assert_eq!(late.expect("oil").cured_on, Some(date(2027, 4, 1)));
        // The day of the varnish is not known, so neither is the day it is ready.
        let unknown = cure_of(Medium::Oil, PaintBody::Thin, finished, varnish(None));
        assert_eq!(unknown.expect("varnish").cured_on, None);
    }
}
