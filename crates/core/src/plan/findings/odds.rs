//! The one finding about odds.

use super::Looked;
use crate::plan::{Finding, FindingLevel::Mind};

/// That it is likelier to arrive damaged than the house accepts.
pub(crate) const ODDS_PAST_ACCEPTED: &str = "odds";

/// It is likelier to arrive damaged than the house accepts; what would change that is worked out when it is
/// asked for.
pub(super) fn look(looked: &Looked<'_>, findings: &mut Vec<Finding>) {
    let odds = looked.odds;
    if !odds.is_past_accepted() {
        return;
    }
    let says = format!(
        "About 1 in {} would arrive damaged {}. This studio accepts 1 in {:.0}.",
        odds.one_in.about,
        odds.by.on_the_way(),
        odds.accepted.recip(),
    );
    findings.push(Finding::parcel(Mind, ODDS_PAST_ACCEPTED, says));
}
