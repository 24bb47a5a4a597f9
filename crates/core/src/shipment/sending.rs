//! Findings about sending a parcel: its address, its tracking and its cover.

use super::ShipmentInputs;
use crate::{
    freight::Quote,
    place::{AddressPart, Buyer, Country},
    plan::{
        Finding,
        FindingLevel::{Mind, Note},
    },
    space::LayerSlot,
};

/// That a chosen service covers less than the house wants.
pub(crate) const COVER_BELOW_VALUE: &str = "cover-below-value";

/// What is known about sending a parcel.
pub(super) struct Sending<'a> {
    pub inputs: &'a ShipmentInputs,
    pub quotes: &'a [Quote],
    /// Whether the house wants the full value covered.
    pub full_cover: bool,
    /// Whether wood that isn't treated goes across a border.
    pub bare_wood_abroad: bool,
}

/// Returns every finding about sending.
pub(super) fn findings(sending: &Sending<'_>) -> Vec<Finding> {
    [
        half_an_address(&sending.inputs.buyer),
        untracked(sending),
        covered_below_value(sending),
        untreated(sending),
        no_service(sending),
    ]
    .into_iter()
    .flatten()
    .collect()
}

fn half_an_address(buyer: &Buyer) -> Option<Finding> {
    // In Singapore and Japan an address has no town of its own.
    let country = Country::of(&buyer.country);
    let has_town = country.is_none_or(|country| country.format().has(AddressPart::Town));
    let missing: Vec<&str> = [
        ("the buyer's name", &buyer.name, true),
        ("the street", &buyer.street, true),
        ("the town", &buyer.town, has_town),
    ]
    .into_iter()
    .filter_map(|(what, text, wanted)| (wanted && text.trim().is_empty()).then_some(what))
    .collect();
    (!missing.is_empty()).then(|| {
        Finding::parcel(
            Note,
            "half-an-address",
            format!(
                "The address lacks {}. Complete it before you begin wrapping.",
                missing.join(" and ")
            ),
        )
    })
}

impl Sending<'_> {
    /// The service that was chosen, when it takes the parcel.
    fn chosen(&self) -> Option<&Quote> {
        let id = self.inputs.service.as_deref()?;
        self.quotes
            .iter()
            .find(|quote| quote.id == id && quote.total().is_some())
    }
}

fn untracked(sending: &Sending<'_>) -> Option<Finding> {
    let quote = sending.chosen().filter(|quote| !quote.tracked)?;
    let says = format!(
        "{} {} has no tracking: nothing proves that the parcel arrived.",
        quote.carrier, quote.service
    );
    Some(Finding::parcel(Note, "untracked", says))
}

fn covered_below_value(sending: &Sending<'_>) -> Option<Finding> {
    let quote = sending.chosen().filter(|_| sending.full_cover)?;
    let short = quote.uncovered.as_ref()?;
    let says = format!(
        "{} {} leaves {} {} of its value uncovered, and this studio wants full cover. Choose another service, or accept the risk.",
        quote.carrier,
        quote.service,
        short.amount,
        short.currency.code()
    );
    Some(Finding::parcel(Mind, COVER_BELOW_VALUE, says))
}

/// Battens carry bark beetles: customs send a parcel with untreated ones back, or burn it. Plywood is exempt. Source: public rules for wood
/// packaging.
fn untreated(sending: &Sending<'_>) -> Option<Finding> {
    sending.bare_wood_abroad.then(|| {
        Finding::layer(
            Mind,
            "untreated-battens",
            LayerSlot::Box,
            "The battens of the case aren't heat-treated and stamped, and customs may turn it back. Build it of stamped battens, or send it in a box.",
        )
    })
}

/// Every service refuses: what would make one take it is what it is too long or too heavy by.
fn no_service(sending: &Sending<'_>) -> Option<Finding> {
    let asked = !sending.quotes.is_empty();
    let taken = sending.quotes.iter().any(|quote| quote.total().is_some());
    (asked && !taken).then(|| {
        Finding::parcel(
            Note,
            "no-service",
            "No service takes this parcel; Price shows why. Make it smaller or lighter, or use a packer or an art courier.",
        )
    })
}
