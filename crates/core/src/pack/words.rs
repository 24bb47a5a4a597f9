//! How something is put in, in sentences for somebody with tape on one hand.

use crate::enclosure::EnclosurePlace;

/// Returns how something is put in.
pub(super) const fn enclosing(place: EnclosurePlace, hard: bool) -> &'static [&'static str] {
    match (place, hard) {
        (EnclosurePlace::OnBack, _) => {
            &["In its sleeve, taped to the back of the frame or the bars, never to the art."]
        }
        (EnclosurePlace::UnderLastWrap, _) => {
            &["Flat on the back, in its sleeve and never over the face; the wrap covers it."]
        }
        (EnclosurePlace::OnFloor, true) => {
            &["On the floor of the box, in the gap at the edge, wrapped so that it can't wander."]
        }
        (EnclosurePlace::OnFloor, false) => &["Flat on the floor of the box."],
        (EnclosurePlace::OnTop, true) => {
            &["At the upper edge, in the gap, wrapped so that it can't wander."]
        }
        (EnclosurePlace::OnTop, false) => {
            &["On top, at the upper edge: the first thing that is seen when the box is opened."]
        }
        (EnclosurePlace::InPocket, _) => {
            &["In the pocket on the outside of the box, which is stuck down all round."]
        }
    }
}
